<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Press } from '@/desk/gestures';
import { cornerGesture } from '@/desk/gestures';
import type { Hands } from '@/desk/gestures';
import ValueTag from '@/desk/ValueTag.vue';
import type { Point } from '@/marks/numbers';
import { reachPerSize, sizeTag } from '@/marks/refinements';
import type { Corner } from '@/stores/corners';
import { useCorners } from '@/stores/corners';
import { useView } from '@/stores/view';

/** A handle at each corner of the shape in hand, dragged inward to round it, and its value tag. */
const props = defineProps<{ press: Press; hands: Hands }>();

/** How far a handle lies from what it shapes, and so from the corner itself, in pixels. */
const AWAY = 15;
const SIZES = { min: 0, max: 1e6 };

const corners = useCorners();
const view = useView();
const dragged = ref<number | null>(null);

const sizeOf = (corner: Corner) =>
  dragged.value !== null && corners.picked.has(corner.place) ? dragged.value : corner.size;

const handles = computed(() =>
  corners.corners.map((corner) => {
    const unit = Math.hypot(corner.inward.x, corner.inward.y);
    const node = view.toDesk(corner.at);
    const way = { x: corner.inward.x / unit, y: corner.inward.y / unit };
    const reach = sizeOf(corner) * reachPerSize(corner, corner.shape) * unit * view.zoom + AWAY;
    const at = { x: node.x + way.x * reach, y: node.y + way.y * reach };
    return { corner, node, at, on: corners.picked.has(corner.place) };
  }),
);
const tagged = computed(() => handles.value.filter(({ corner, on }) => on && sizeOf(corner) > 0));

function grab(corner: Corner, event: PointerEvent): void {
  if (event.button !== 0) return;
  const adds = event.shiftKey || event.ctrlKey || event.metaKey;
  const was = corners.picked.has(corner.place);
  if (!was && !adds) corners.pick(corner.place);
  else if (!was) corners.toggle(corner.place);
  const places = [...corners.picked];
  props.press(
    event,
    (from: Point) =>
      cornerGesture(
        props.hands,
        corner,
        from,
        (size) => corners.making(places, size, corner.shape),
        (size) => corners.take(places, size, corner.shape),
        (size) => (dragged.value = size),
      ),
    () => {
      if (adds && was) corners.toggle(corner.place);
      else if (!adds) corners.pick(corner.place);
    },
  );
  // Held by itself, it gets the double click too.
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
}
</script>

<template>
  <svg class="corners" width="100%" height="100%" data-testid="corners">
    <g
      v-for="{ corner, node, at, on } in handles"
      :key="corner.place"
      :class="[corner.shape, { on, sized: sizeOf(corner) > 0 }]"
      :data-corner="corner.place"
      @pointerdown.stop="grab(corner, $event)"
      @dblclick.stop="corners.wholeContours()"
    >
      <line :x1="node.x" :y1="node.y" :x2="at.x" :y2="at.y" />
      <circle class="reach" :cx="at.x" :cy="at.y" r="11" />
      <rect
        v-if="corner.shape === 'straight'"
        class="handle"
        :x="at.x - 4.5"
        :y="at.y - 4.5"
        width="9"
        height="9"
        :transform="`rotate(45 ${at.x} ${at.y})`"
      />
      <circle v-else class="handle" :cx="at.x" :cy="at.y" r="5" />
      <circle v-if="corner.shape === 'hollow'" class="core" :cx="at.x" :cy="at.y" r="1.8" />
    </g>
  </svg>
  <ValueTag
    v-for="{ corner, at } in tagged"
    :key="corner.place"
    class="at"
    :style="{ left: `${at.x + 10}px`, top: `${at.y + 6}px` }"
    :text="sizeTag(corner.shape, sizeOf(corner), corner.fits)"
    label="size"
    :value="corner.size"
    :rule="SIZES"
    data-testid="corner-tag"
    @pointerdown.stop="grab(corner, $event)"
    @change="corners.make({ size: $event })"
  />
</template>

<style scoped>
.corners {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
g {
  pointer-events: all;
  cursor: pointer;
}
line {
  stroke: var(--tide);
  stroke-width: 1;
  stroke-dasharray: 2 2;
  pointer-events: none;
}
.reach {
  fill: transparent;
}
.handle {
  fill: var(--card);
  stroke: var(--tide);
  stroke-width: 1.6;
}
.core {
  fill: var(--tide);
}
.sized .handle {
  fill: var(--tide);
}
.sized .core {
  fill: var(--card);
}
g:hover .handle,
.on .handle {
  stroke: var(--clay);
}
.on .handle {
  stroke-width: 2.2;
}
.on.sized .handle {
  fill: var(--clay);
}
.at {
  position: absolute;
  z-index: 2;
}
</style>
