<script setup lang="ts">
import type { WaitingMark } from '@/desk/waitingMarks';
import { useWaitingMarks } from '@/desk/waitingMarks';
import { useView } from '@/stores/view';

/** What was done while the server is away: where shapes will be, and what waits to be done. */
const waiting = useWaitingMarks();
const view = useView();

/** For words that are upright and of one size, however the shape stands. */
function atCorner({ by, corner }: WaitingMark): string {
  const { x, y } = by.transformPoint(corner);
  return `translate(${x} ${y}) scale(${1 / view.zoom})`;
}
</script>

<template>
  <g v-if="waiting.marks.length" data-testid="waiting" pointer-events="none">
    <g v-for="mark in waiting.marks" :key="mark.key" :transform="mark.by.toString()">
      <path class="casing" :d="mark.path" />
      <path class="waits" :d="mark.path" />
    </g>
    <text
      v-for="mark in waiting.marks"
      :key="`words ${mark.key}`"
      :transform="atCorner(mark)"
      dy="-8"
    >
      waits: {{ mark.words.join(', ') }}
    </text>
  </g>
</template>

<style scoped>
path {
  fill: none;
  vector-effect: non-scaling-stroke;
}
.casing {
  stroke: #fff;
  stroke-width: 3.5;
}
.waits {
  stroke: var(--mustard);
  stroke-width: 1.8;
  stroke-dasharray: 6 4;
}
text {
  font-size: 12px;
  fill: var(--ink);
  stroke: var(--card);
  stroke-width: 4;
  paint-order: stroke;
}
</style>
