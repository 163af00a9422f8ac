<script setup lang="ts">
import { inject } from 'vue';

import { SAID } from '@/desk/said';
import { useView } from '@/stores/view';

/** From where to where something has snapped, on the plate. */
const { marks } = inject(SAID)!;
const view = useView();
</script>

<template>
  <g>
    <template v-for="(mark, i) in marks" :key="i">
      <path class="snap" :d="`M${mark.from.x} ${mark.from.y}L${mark.to.x} ${mark.to.y}`" />
      <circle class="snap-dot" :cx="mark.to.x" :cy="mark.to.y" :r="4 / view.zoom" />
    </template>
  </g>
</template>

<style scoped>
.snap,
.snap-dot {
  pointer-events: none;
  vector-effect: non-scaling-stroke;
}
.snap {
  stroke: var(--moss);
  stroke-width: 1.4;
}
.snap-dot {
  fill: var(--moss);
}
</style>
