<script setup lang="ts">
import { computed } from 'vue';

import { useView } from '@/stores/view';

/** Rulers along the desk's upper and left edges, in the plate's units. */
const THICK = 18;
const APART = 56;
const STEPS = [1, 2, 5, 10];

const view = useView();

/** The smallest of 1, 2, 5, 10, 20, … that leaves room between two figures. */
const pitch = computed(() => {
  const least = APART / view.zoom;
  const tens = 10 ** Math.floor(Math.log10(least));
  return STEPS.map((step) => step * tens).find((step) => step >= least)!;
});

function marks(from: number, to: number) {
  const first = Math.ceil(from / pitch.value);
  const count = Math.max(0, Math.floor(to / pitch.value) - first + 1);
  return Array.from({ length: count }, (_, i) => Number(((first + i) * pitch.value).toFixed(6)));
}

const across = computed(() => {
  const low = view.toPlate({ x: THICK, y: 0 }).x;
  return marks(low, view.toPlate({ x: view.size.width, y: 0 }).x);
});
const down = computed(() => {
  const low = view.toPlate({ x: 0, y: THICK }).y;
  return marks(low, view.toPlate({ x: 0, y: view.size.height }).y);
});
</script>

<template>
  <svg class="rulers" width="100%" height="100%" aria-hidden="true">
    <rect width="100%" :height="THICK" />
    <rect :width="THICK" height="100%" />
    <g v-for="value in across" :key="`x ${value}`">
      <path :d="`M${view.toDesk({ x: value, y: 0 }).x} ${THICK - 5}v5`" />
      <text :x="view.toDesk({ x: value, y: 0 }).x + 3" y="11">{{ value }}</text>
    </g>
    <g v-for="value in down" :key="`y ${value}`">
      <path :d="`M${THICK - 5} ${view.toDesk({ x: 0, y: value }).y}h5`" />
      <text :transform="`translate(11 ${view.toDesk({ x: 0, y: value }).y - 3}) rotate(-90)`">
        {{ value }}
      </text>
    </g>
    <rect :width="THICK" :height="THICK" class="corner" />
  </svg>
</template>

<style scoped>
.rulers {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
rect {
  fill: var(--card);
  fill-opacity: 0.92;
}
.corner {
  fill-opacity: 1;
}
path {
  stroke: var(--soft);
}
text {
  fill: var(--soft);
  font: 9px var(--mono);
}
</style>
