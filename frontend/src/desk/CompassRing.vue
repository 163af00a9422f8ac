<script setup lang="ts">
import { computed } from 'vue';

import type { Point } from '@/marks/numbers';
import { useView } from '@/stores/view';

/**
 * The ring round a selection: its dot turns it; its cross is dragged to where the turning
 * point is to be, and rests on the ring, so that shapes can be taken hold of in their middle.
 */
const props = defineProps<{
  /** The turning point, in the plate's units. */
  centre: Point;
  /** The ring's radius, in pixels. */
  radius: number;
  degrees: number;
  /** Whether the turning point was moved away from the middle. */
  moved: boolean;
}>();
const emit = defineEmits<{
  turn: [event: PointerEvent];
  shift: [event: PointerEvent];
  reset: [];
}>();

/** Where the dot rests, from the shape's own first axis: up to the right. */
const REST = -45;

const view = useView();
const middle = computed(() => view.toDesk(props.centre));
const dot = computed(() => {
  const turned = ((props.degrees + REST) * Math.PI) / 180;
  return {
    x: middle.value.x + props.radius * Math.cos(turned),
    y: middle.value.y + props.radius * Math.sin(turned),
  };
});
const cross = computed(() =>
  props.moved ? middle.value : { x: middle.value.x, y: middle.value.y + props.radius },
);
const ticks = computed(() => {
  const steps = Array.from({ length: 24 }, (_, i) => (i * Math.PI) / 12);
  return steps
    .map((turn, i) => {
      const [inner, outer] = [props.radius - (i % 6 ? 2 : 6), props.radius + (i % 6 ? 2 : 6)];
      const { x, y } = middle.value;
      return (
        `M${x + inner * Math.cos(turn)} ${y + inner * Math.sin(turn)}` +
        `L${x + outer * Math.cos(turn)} ${y + outer * Math.sin(turn)}`
      );
    })
    .join('');
});
</script>

<template>
  <g>
    <circle class="casing" :cx="middle.x" :cy="middle.y" :r="radius" />
    <circle class="ring" :cx="middle.x" :cy="middle.y" :r="radius" />
    <path class="ring" :d="ticks" />
    <g
      class="middle"
      data-testid="turning-point"
      @pointerdown.stop="emit('shift', $event)"
      @dblclick.stop="emit('reset')"
    >
      <title>Drag to where the turning point is to be; double-click brings it back</title>
      <circle :cx="cross.x" :cy="cross.y" r="9" class="hold" />
      <path :d="`M${cross.x - 5} ${cross.y}h10M${cross.x} ${cross.y - 5}v10`" />
    </g>
    <circle
      class="dot"
      data-testid="turn"
      :cx="dot.x"
      :cy="dot.y"
      r="7"
      @pointerdown.stop="emit('turn', $event)"
    >
      <title>Drag to turn: by steps of 15° inside the ring, freely beyond it</title>
    </circle>
    <text :x="dot.x + 12" :y="dot.y - 6" class="mono">{{ degrees }}°</text>
  </g>
</template>

<style scoped>
/* The ring stands out from paint of its own colour. */
.casing {
  fill: none;
  stroke: #fff;
  stroke-opacity: 0.7;
  stroke-width: 3;
  pointer-events: none;
}
.ring {
  fill: none;
  stroke: var(--clay);
  stroke-opacity: 0.55;
  pointer-events: none;
}
.dot {
  fill: var(--clay);
  stroke: #fff;
  cursor: grab;
}
.dot:hover {
  stroke: var(--card);
  stroke-width: 2;
}
.middle path {
  stroke: var(--clay);
  stroke-width: 1.5;
  pointer-events: none;
}
.hold {
  fill: var(--card);
  fill-opacity: 0.8;
  stroke: var(--clay);
  stroke-opacity: 0.4;
  cursor: move;
}
text {
  fill: var(--clay);
  stroke: var(--card);
  stroke-width: 6;
  stroke-linejoin: round;
  paint-order: stroke;
  pointer-events: none;
}
</style>
