<script setup lang="ts">
import { computed } from 'vue';

import ShapeInk from '@/desk/ShapeInk.vue';
import UnderlayPicture from '@/desk/UnderlayPicture.vue';
import { useWaitingMarks } from '@/desk/waitingMarks';
import { showsAsTheirs, staysLive } from '@/marks/kinds';
import { useRegions } from '@/stores/regions';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** What is painted on the plate, and the outlines that can be taken hold of. */
const props = defineProps<{
  /** Whether the pointer takes hold of what is selected. */
  picking: boolean;
}>();

const selection = useSelection();
const view = useView();
const regions = useRegions();
const waiting = useWaitingMarks();

/**
 * The lowest first: groups are what they hold, what comes in pieces is these, and members show in
 * their compound's result.
 */
const painted = computed(() =>
  selection.rows
    .filter((row) => !row.dimmed && !row.inside)
    .reverse()
    .flatMap((row) => {
      const figure = selection.figureById.get(row.node.id);
      return figure && (figure.pieces || !showsAsTheirs(row.node)) ? [{ row, figure }] : [];
    }),
);
/** What is painted as one: what is in it can be taken hold of, and is not painted again. */
const wholes = computed(() =>
  painted.value.filter(({ row }) => showsAsTheirs(row.node)).map(({ row }) => row.node.id),
);
const isInWhole = ({ chain, node }: Row) =>
  wholes.value.some((each) => each !== node.id && chain.includes(each));

const isLive = (row?: Row | null) => Boolean(row && staysLive(row.node));
const inLive = computed(() => isLive(selection.focused));

/** What makes the live thing that is worked in, or the one that is selected. */
const members = computed(() => {
  const { focused, only } = selection;
  const above = only?.parent ? selection.rowById.get(only.parent) : null;
  const parent = [focused, only, above].find(isLive);
  if (!parent || view.outcome || regions.open) return [];
  return selection.rows
    .filter(({ parent: above, node }) => above === parent.node.id && node.visible !== false)
    .filter((row) => row.strand !== 'pieces' || row.inside)
    .reverse()
    .flatMap((row) => {
      const figure = selection.figureById.get(row.node.id);
      const moved = selection.isMoved(row);
      return figure ? [{ figure, moved, free: inLive.value && selection.isWorkedOn(row) }] : [];
    });
});

/** Selected shapes inside others, which can be dragged though these are what is painted. */
const reachable = computed(() =>
  view.outcome || regions.open || !props.picking
    ? []
    : selection.selected
        .filter((row) => row.depth && !row.held && !row.dimmed)
        .flatMap((row) => selection.figureById.get(row.node.id) ?? []),
);
</script>

<template>
  <g :class="view.manner">
    <g
      v-for="{ row, figure } in painted"
      :key="row.node.id"
      :transform="waiting.moveOf(row.node.id)"
    >
      <UnderlayPicture v-if="row.node.kind === 'image'" :row="row" :node="row.node" />
      <ShapeInk
        v-else
        :row="row"
        :figure="figure"
        :hollow="isInWhole(row)"
        :whole="showsAsTheirs(row.node)"
      />
    </g>
    <g class="members">
      <path
        v-for="{ figure, moved, free } in members"
        :key="`member ${figure.id}`"
        class="member"
        :class="{ moved, reachable: free }"
        :data-node="free ? figure.id : undefined"
        :d="figure.path"
      />
    </g>
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
/* A layer of its own: all these dashes take longer to paint than anything else under the hand. */
.members {
  will-change: opacity;
}
.member {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1.4;
  stroke-dasharray: 2 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
/* Another one: it moves with the pointer, and need not be painted anew for that. */
.member.moved {
  will-change: transform;
}
.reachable {
  fill: transparent;
  pointer-events: all;
}
</style>
