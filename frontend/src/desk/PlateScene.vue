<script setup lang="ts">
import { computed } from 'vue';

import ShapeInk from '@/desk/ShapeInk.vue';
import UnderlayPicture from '@/desk/UnderlayPicture.vue';
import { useRegions } from '@/regions/store';
import type { Row } from '@/stores/selection';
import { childrenOf, LIVE_KINDS, useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** What is painted on the plate, and the outlines that can be taken hold of. */
const selection = useSelection();
const view = useView();
const regions = useRegions();

/** The lowest first: groups are what they hold, members show in their compound's result. */
const painted = computed(() =>
  selection.rows
    .filter((row) => !row.dimmed && !row.inside && row.node.kind !== 'group')
    .reverse()
    .flatMap((row) => {
      const figure = selection.figureById.get(row.node.id);
      return figure ? [{ row, figure }] : [];
    }),
);

const isLive = (row?: Row | null) => Boolean(row && LIVE_KINDS.includes(row.node.kind));
const inLive = computed(() => isLive(selection.focused));

/** What makes the live thing that is worked in, or the one that is selected. */
const members = computed(() => {
  const { focused, only } = selection;
  const above = only?.parent ? selection.rowById.get(only.parent) : null;
  const parent = [focused, only, above].find(isLive);
  if (!parent || view.outcome || regions.open) return [];
  return childrenOf(parent.node)
    .filter(({ node }) => node.visible !== false)
    .flatMap(({ node }) => {
      const figure = selection.figureById.get(node.id);
      const moved = selection.isMoved(selection.rowById.get(node.id)!);
      return figure ? [{ figure, moved }] : [];
    });
});

/** Selected shapes inside others, which can be dragged though these are what is painted. */
const reachable = computed(() =>
  view.outcome || regions.open || view.tool !== 'pick'
    ? []
    : selection.selected
        .filter((row) => row.depth && !row.held && !row.dimmed)
        .flatMap((row) => selection.figureById.get(row.node.id) ?? []),
);
</script>

<template>
  <g :class="view.manner">
    <template v-for="{ row, figure } in painted" :key="row.node.id">
      <UnderlayPicture v-if="row.node.kind === 'image'" :row="row" :node="row.node" />
      <ShapeInk v-else :row="row" :figure="figure" />
    </template>
    <path
      v-for="{ figure, moved } in members"
      :key="`member ${figure.id}`"
      class="member"
      :class="{ moved, reachable: inLive }"
      :data-node="inLive ? figure.id : undefined"
      :d="figure.path"
    />
    <path
      v-for="figure in reachable"
      :key="`reachable ${figure.id}`"
      class="reachable"
      :data-node="figure.id"
      :d="figure.path"
    />
  </g>
</template>

<style scoped>
.member {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1.4;
  stroke-dasharray: 2 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.reachable {
  fill: transparent;
  pointer-events: all;
}
</style>
