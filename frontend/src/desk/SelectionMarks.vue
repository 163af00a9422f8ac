<script setup lang="ts">
import { computed } from 'vue';

import type { Figure } from '@/api/types';
import { ontoPlate } from '@/desk/gestures';
import type { Point } from '@/stores/view';

/**
 * A shape's outline, and what is taken hold of to size it along its own axes: brackets at the
 * corners, marks at the sides; of a line its two ends.
 */
const props = defineProps<{ figure: Figure; zoom: number; held: boolean; line: boolean }>();
const emit = defineEmits<{
  grab: [grip: Point, event: PointerEvent];
  grabEnd: [atStart: boolean, event: PointerEvent];
}>();

const GAP = 7;
const ARM = 13;
const BAR = 8;
const LEAST = 30;

const axes = computed(() => {
  const m = props.figure.matrix;
  const across = Math.hypot(m.a!, m.b!) || 1;
  const down = Math.hypot(m.c!, m.d!) || 1;
  return {
    u: { x: m.a! / across, y: m.b! / across },
    v: { x: m.c! / down, y: m.d! / down },
  };
});

/** The point of the box at fractions, ``gap`` pixels outwards. */
function placed(fx: number, fy: number) {
  const { box, matrix } = props.figure;
  const { u, v } = axes.value;
  const at = ontoPlate(matrix, {
    x: box.x0 + fx * (box.x1 - box.x0),
    y: box.y0 + fy * (box.y1 - box.y0),
  });
  const sx = ((fx - 0.5) * 2) / props.zoom;
  const sy = ((fy - 0.5) * 2) / props.zoom;
  return {
    sx,
    sy,
    tip: { x: at.x + (u.x * sx + v.x * sy) * GAP, y: at.y + (u.y * sx + v.y * sy) * GAP },
  };
}

const grips = computed(() => {
  const { u, v } = axes.value;
  const found = [];
  for (const fx of [0, 0.5, 1])
    for (const fy of [0, 0.5, 1]) {
      if (fx === 0.5 && fy === 0.5) continue;
      const side = fx === 0.5 || fy === 0.5;
      const long = fx === 0.5 ? props.figure.width : props.figure.height;
      if (side && long * props.zoom < LEAST) continue;
      const { sx, sy, tip } = placed(fx, fy);
      const w = side ? (fx === 0.5 ? u : v) : null;
      const reach = BAR / props.zoom;
      const d = w
        ? `M${tip.x - w.x * reach} ${tip.y - w.y * reach}L${tip.x + w.x * reach} ${tip.y + w.y * reach}`
        : `M${tip.x - u.x * sx * ARM} ${tip.y - u.y * sx * ARM}L${tip.x} ${tip.y}` +
          `L${tip.x - v.x * sy * ARM} ${tip.y - v.y * sy * ARM}`;
      found.push({ fx, fy, tip, d, cursor: cursor(fx, fy) });
    }
  return found;
});

const ends = computed(() => {
  const { box, matrix } = props.figure;
  return [box.x0, box.x1].map((x) => ontoPlate(matrix, { x, y: 0 }));
});

function cursor(fx: number, fy: number): string {
  const { u, v } = axes.value;
  const way = { x: u.x * (fx - 0.5) + v.x * (fy - 0.5), y: u.y * (fx - 0.5) + v.y * (fy - 0.5) };
  const eighth = Math.round((Math.atan2(way.y, way.x) * 4) / Math.PI + 8) % 4;
  return ['ew-resize', 'nwse-resize', 'ns-resize', 'nesw-resize'][eighth]!;
}
</script>

<template>
  <g>
    <path class="casing" :d="figure.path" />
    <path class="outline" :d="figure.path" />
    <template v-if="held && line">
      <circle
        v-for="(end, i) in ends"
        :key="i"
        class="end"
        :cx="end.x"
        :cy="end.y"
        :r="6 / zoom"
        :data-end="i ? 'end' : 'start'"
        @pointerdown.stop="emit('grabEnd', i === 0, $event)"
      />
    </template>
    <template v-else-if="held">
      <g v-for="grip in grips" :key="`${grip.fx} ${grip.fy}`">
        <path class="casing" :d="grip.d" />
        <path class="bracket" :d="grip.d" />
        <circle
          class="grip"
          :cx="grip.tip.x"
          :cy="grip.tip.y"
          :r="10 / zoom"
          :style="{ cursor: grip.cursor }"
          :data-grip="`${grip.fx} ${grip.fy}`"
          @pointerdown.stop="emit('grab', { x: grip.fx, y: grip.fy }, $event)"
        />
      </g>
    </template>
  </g>
</template>

<style scoped>
/* Marks stand out from paint of their own colour. */
.casing {
  fill: none;
  stroke: #fff;
  stroke-opacity: 0.8;
  stroke-width: 4.5;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.outline,
.bracket {
  fill: none;
  stroke: var(--clay);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.bracket {
  stroke-width: 2.2;
}
.grip {
  fill: transparent;
}
.end {
  fill: #fff;
  stroke: var(--clay);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
  cursor: move;
}
</style>
