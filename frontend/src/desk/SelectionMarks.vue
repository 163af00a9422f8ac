<script setup lang="ts">
import { computed } from 'vue';

import type { Figure } from '@/api/types';

/** Corner brackets along a shape's own axes, and its outline; all in desk pixels thick. */
const props = defineProps<{ figure: Figure; zoom: number; brackets: boolean }>();
const emit = defineEmits<{ grab: [corner: { x: number; y: number }, event: PointerEvent] }>();

const GAP = 7;
const ARM = 13;

const corners = computed(() => {
  const { matrix: m, box } = props.figure;
  const place = (x: number, y: number) => ({
    x: m.a! * x + m.c! * y + m.e!,
    y: m.b! * x + m.d! * y + m.f!,
  });
  // Unit vectors of the own axes on the desk.
  const across = Math.hypot(m.a!, m.b!) || 1;
  const down = Math.hypot(m.c!, m.d!) || 1;
  const u = { x: m.a! / across, y: m.b! / across };
  const v = { x: m.c! / down, y: m.d! / down };
  return [0, 1].flatMap((cx) =>
    [0, 1].map((cy) => {
      const at = place(cx ? box.x1 : box.x0, cy ? box.y1 : box.y0);
      const sx = (cx ? 1 : -1) / props.zoom;
      const sy = (cy ? 1 : -1) / props.zoom;
      const tip = {
        x: at.x + (u.x * sx + v.x * sy) * GAP,
        y: at.y + (u.y * sx + v.y * sy) * GAP,
      };
      const one = { x: tip.x - u.x * sx * ARM, y: tip.y - u.y * sx * ARM };
      const two = { x: tip.x - v.x * sy * ARM, y: tip.y - v.y * sy * ARM };
      return { cx, cy, tip, d: `M${one.x} ${one.y}L${tip.x} ${tip.y}L${two.x} ${two.y}` };
    }),
  );
});

function cursor(cx: number, cy: number): string {
  return cx === cy ? 'nwse-resize' : 'nesw-resize';
}
</script>

<template>
  <g>
    <path class="outline" :d="figure.path" />
    <template v-if="brackets">
      <g v-for="corner in corners" :key="`${corner.cx}${corner.cy}`">
        <path class="bracket" :d="corner.d" />
        <circle
          class="grip"
          :cx="corner.tip.x"
          :cy="corner.tip.y"
          :r="11 / zoom"
          :style="{ cursor: cursor(corner.cx, corner.cy) }"
          :data-grip="`${corner.cx}${corner.cy}`"
          @pointerdown.stop="emit('grab', { x: corner.cx, y: corner.cy }, $event)"
        />
      </g>
    </template>
  </g>
</template>

<style scoped>
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
</style>
