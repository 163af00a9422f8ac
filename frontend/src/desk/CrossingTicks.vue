<script setup lang="ts">
import { computed } from 'vue';

import { useSnaps } from '@/stores/snaps';
import { useView } from '@/stores/view';

/** Small ticks where outlines cross, for the wire view. */
const REACH = 3.5;

const snaps = useSnaps();
const view = useView();

const ticks = computed(() => {
  const targets = snaps.targets;
  if (!targets) return '';
  const reach = REACH / view.zoom;
  return targets.kind
    .flatMap((kind, i) => {
      if (kind !== 'crossing') return [];
      const [x, y] = [targets.x[i]!, targets.y[i]!];
      const cross = (s: number) => `M${x - reach} ${y - s * reach}L${x + reach} ${y + s * reach}`;
      return [cross(1) + cross(-1)];
    })
    .join('');
});
</script>

<template>
  <path class="ticks" data-testid="crossings" :d="ticks" />
</template>

<style scoped>
.ticks {
  fill: none;
  stroke: var(--moss);
  stroke-width: 1.3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
</style>
