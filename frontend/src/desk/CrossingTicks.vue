<script setup lang="ts">
import { computed } from 'vue';

import { useSelection } from '@/stores/selection';
import { useSnaps } from '@/stores/snaps';
import { useView } from '@/stores/view';

/** For the wire view: dots on the nodes of what is painted, ticks where outlines cross. */
const REACH = 3.5;
const DOT = 2.4;

const snaps = useSnaps();
const selection = useSelection();
const view = useView();

/** The points of a kind on shapes that are painted, not on those that only make others. */
function points(wanted: 'node' | 'crossing') {
  const targets = snaps.targets;
  if (!targets) return [];
  const inner = targets.shapes.map((key) => selection.rowById.get(key)?.inside ?? true);
  return targets.kind.flatMap((kind, i) => {
    const other = targets.other[i]!;
    if (kind !== wanted || inner[targets.shape[i]!] || (other >= 0 && inner[other])) return [];
    return [{ x: targets.x[i]!, y: targets.y[i]! }];
  });
}

const ticks = computed(() => {
  const reach = REACH / view.zoom;
  return points('crossing')
    .map(({ x, y }) => {
      const cross = (s: number) => `M${x - reach} ${y - s * reach}L${x + reach} ${y + s * reach}`;
      return cross(1) + cross(-1);
    })
    .join('');
});
const dots = computed(() => {
  const r = DOT / view.zoom;
  return points('node')
    .map(({ x, y }) => `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`)
    .join('');
});
</script>

<template>
  <path class="dots" data-testid="nodes" :d="dots" />
  <path class="ticks" data-testid="crossings" :d="ticks" />
</template>

<style scoped>
.ticks,
.dots {
  fill: none;
  stroke: var(--moss);
  stroke-width: 1.3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.dots {
  fill: var(--card);
  stroke: var(--ink);
}
</style>
