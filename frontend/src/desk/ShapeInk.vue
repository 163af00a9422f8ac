<script setup lang="ts">
import { computed } from 'vue';

import type { Figure } from '@/api/types';
import PiecePaths from '@/look/PiecePaths.vue';
import { colourOf, penOf, strokeOf } from '@/marks/paint';
import { useRegions } from '@/stores/regions';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** One painted shape: its fill and line, and what of an open line can be taken hold of. */
const props = defineProps<{
  row: Row;
  figure: Figure;
  /** Whether something that it is in is painted as one. */
  hollow?: boolean;
  /** Whether it is that: what is in it is taken hold of. */
  whole?: boolean;
}>();

const selection = useSelection();
const view = useView();
const regions = useRegions();

const node = computed(() => props.row.node);
const look = computed(() => node.value.look);
const moved = computed(() => selection.isMoved(props.row));
const veiled = computed(
  () =>
    (view.outcome !== null && moved.value) ||
    props.row.chain.some((each) => regions.shapes.has(each)),
);
const pale = computed(
  () =>
    !veiled.value &&
    (regions.open || (selection.focus !== null && !props.row.chain.includes(selection.focus))),
);
const key = computed(() => (props.row.held ? undefined : node.value.id));
const isOpen = computed(() => props.figure.area !== null);

const stroke = computed(() => strokeOf(penOf(look.value.lines[0])));

/** Guides are outlines, whatever they would paint. */
const pieces = computed(() => (props.row.guide ? null : props.figure.pieces));

const classes = computed(() => ({
  ink: true,
  guide: props.row.guide,
  bare: !props.row.guide && !look.value.fill && !look.value.lines.length,
  moved: moved.value,
  veiled: veiled.value,
  pale: pale.value,
}));
</script>

<template>
  <template v-if="hollow || pieces">
    <g v-if="pieces && !hollow" :class="{ ...classes, bare: false }" pointer-events="none">
      <PiecePaths :pieces="pieces" />
    </g>
    <path
      v-if="key && !whole"
      :class="[isOpen ? 'grasp' : 'area', { moved }]"
      :data-node="key"
      :d="figure.path"
    />
  </template>
  <path
    v-else-if="figure.area !== '' && (look.fill || !isOpen)"
    :class="classes"
    :data-node="key"
    :d="figure.area ?? figure.path"
    :fill="colourOf(look.fill) ?? 'none'"
    :fill-rule="figure.fill_rule"
    v-bind="isOpen ? {} : stroke"
    :opacity="look.opacity"
    :pointer-events="row.held ? 'none' : 'all'"
  />
  <template v-if="isOpen && !pieces">
    <path
      :class="[classes, 'open']"
      :d="figure.path"
      fill="none"
      v-bind="stroke"
      :opacity="look.opacity"
      pointer-events="none"
    />
    <path v-if="key" class="grasp" :class="{ moved }" :data-node="key" :d="figure.path" />
  </template>
</template>

<style scoped>
.bare {
  stroke: var(--soft);
  stroke-width: 1;
  stroke-dasharray: 3 3;
  vector-effect: non-scaling-stroke;
}
.guide {
  fill: none;
  stroke: var(--moss);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
  opacity: 1;
  vector-effect: non-scaling-stroke;
}
.veiled {
  opacity: 0;
}
.pale {
  opacity: 0.25;
}
.glass .ink {
  fill-opacity: 0.6;
}
.wire .ink:not(.guide) {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  opacity: 1;
  vector-effect: non-scaling-stroke;
}
.wire .pale {
  stroke-opacity: 0.25;
}
.glass .ink :deep(.piece) {
  fill-opacity: 0.6;
}
.wire .ink :deep(.piece) {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1;
  opacity: 1;
  vector-effect: non-scaling-stroke;
}
.wire .ink :deep(.cast) {
  filter: none;
}
.area {
  fill: transparent;
  pointer-events: all;
}
.grasp {
  fill: none;
  stroke: transparent;
  stroke-width: 12;
  vector-effect: non-scaling-stroke;
  pointer-events: stroke;
}
</style>
