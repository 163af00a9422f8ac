<script setup lang="ts">
import { computed } from 'vue';

import type { Sized } from '@/desk/gestures';
import { ontoPlate } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';

/**
 * What is taken hold of to size a shape along its own axes, or several with the box round them:
 * brackets at the corners, marks at the sides. Beside a short side the mark lies further out, so
 * that it can be taken; where there is nothing to size there is none.
 */
const props = defineProps<{ figure: Sized; zoom: number }>();
const emit = defineEmits<{ grab: [grip: Point, event: PointerEvent] }>();

const GAP = 7;
const FURTHER = 19;
const ARM = 13;
const BAR = 8;
const LEAST = 30;

const axes = computed(() => {
  const m = props.figure.matrix;
  const across = Math.hypot(m.a, m.b) || 1;
  const down = Math.hypot(m.c, m.d) || 1;
  return {
    u: { x: m.a / across, y: m.b / across },
    v: { x: m.c / down, y: m.d / down },
  };
});

/** The point of the box at fractions, ``gap`` pixels outwards. */
function placed(fx: number, fy: number, gap: number): Point {
  const { box, matrix } = props.figure;
  const { u, v } = axes.value;
  const at = ontoPlate(matrix, {
    x: box.x0 + fx * (box.x1 - box.x0),
    y: box.y0 + fy * (box.y1 - box.y0),
  });
  const [out, down] = [(2 * fx - 1) * gap, (2 * fy - 1) * gap].map((way) => way / props.zoom);
  return { x: at.x + u.x * out! + v.x * down!, y: at.y + u.y * out! + v.y * down! };
}

/** Along a side through ``tip``, or round a corner. */
function mark(tip: Point, fx: number, fy: number): string {
  const { u, v } = axes.value;
  const way = fx === 0.5 ? u : fy === 0.5 ? v : null;
  const by = (w: Point, reach: number) =>
    `${tip.x + (w.x * reach) / props.zoom} ${tip.y + (w.y * reach) / props.zoom}`;
  return way
    ? `M${by(way, -BAR)}L${by(way, BAR)}`
    : `M${by(u, (1 - 2 * fx) * ARM)}L${tip.x} ${tip.y}L${by(v, (1 - 2 * fy) * ARM)}`;
}

const grips = computed(() => {
  const { width, height } = props.figure;
  const shares = (length: number) => (length ? [0, 0.5, 1] : [0.5]);
  return shares(width).flatMap((fx) =>
    shares(height)
      .filter((fy) => fx !== 0.5 || fy !== 0.5)
      .map((fy) => {
        const along = fx === 0.5 ? width : fy === 0.5 ? height : Infinity;
        const tip = placed(fx, fy, along * props.zoom < LEAST ? GAP + FURTHER : GAP);
        return { fx, fy, tip, d: mark(tip, fx, fy), cursor: cursor(fx, fy) };
      }),
  );
});

function cursor(fx: number, fy: number): string {
  const { u, v } = axes.value;
  const way = { x: u.x * (fx - 0.5) + v.x * (fy - 0.5), y: u.y * (fx - 0.5) + v.y * (fy - 0.5) };
  const eighth = Math.round((Math.atan2(way.y, way.x) * 4) / Math.PI + 8) % 4;
  return ['ew-resize', 'nwse-resize', 'ns-resize', 'nesw-resize'][eighth]!;
}
</script>

<template>
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

<style scoped>
/* Marks stand out from paint of their own colour. */
.casing,
.bracket {
  fill: none;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.casing {
  stroke: #fff;
  stroke-opacity: 0.8;
  stroke-width: 4.5;
}
.bracket {
  stroke: var(--clay);
  stroke-width: 2.2;
}
.grip {
  fill: transparent;
}
</style>
