<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Figure, Gradient, Node, Stop } from '@/api/types';
import {
  inOrder,
  mixedAt,
  nearestPart,
  rounded,
  runBetween,
  runOf,
  stopPlace,
} from '@/marks/gradients';
import type { Point } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { useView } from '@/stores/view';

/**
 * A gradient on the desk: a line, or a circle round a point, with its stops as dots. Dots are
 * dragged along it, and off it to remove them; a click on it adds one; its ends place it.
 */
const props = defineProps<{
  node: Node;
  figure: Figure;
  gradient: Gradient;
  /** Which of the shape's lines it paints, or null of its fill. */
  line: number | null;
}>();

/** How far a stop is dragged off to be removed, in pixels. */
const OFF = 40;
/** How far beyond its ends it is taken hold of, in pixels. */
const BEYOND = 26;

const drawing = useDrawing();
const view = useView();
/** The gradient as the pointer leaves it for now. */
const held = ref<Gradient | null>(null);
let change: ((at: Point) => Gradient) | null = null;

const shown = computed(() => held.value ?? props.gradient);
const width = computed(() => (props.line === null ? 0 : props.node.look.lines[props.line]!.width));
const run = computed(() => runOf(props.figure, shown.value, width.value));
const onDesk = (own: Point) => {
  const { x, y } = run.value.transformPoint(own);
  return view.toDesk({ x, y });
};
const from = computed(() => onDesk({ x: 0, y: 0 }));
const to = computed(() => onDesk({ x: 1, y: 0 }));
const dots = computed(() =>
  shown.value.stops.map((stop) => ({ stop, at: onDesk(stopPlace(shown.value.shape, stop.at)) })),
);
/** Its ends are taken hold of beyond it, where no stop and no bracket lies. */
const ends = computed(() => {
  const [x, y] = [to.value.x - from.value.x, to.value.y - from.value.y];
  const reach = Math.hypot(x, y) || 1;
  const on = (end: Point, by: number) => ({
    x: end.x + (by * BEYOND * x) / reach,
    y: end.y + (by * BEYOND * y) / reach,
  });
  const isLine = shown.value.shape === 'linear';
  return { from: on(from.value, isLine ? -1 : 0), to: on(to.value, 1) };
});
/** The way that stops lie on: a line, or a circle as the gradient's axes have it. */
const way = computed(() => {
  const points =
    shown.value.shape === 'conic'
      ? Array.from({ length: 73 }, (_, i) => onDesk(stopPlace('conic', i / 72)))
      : [from.value, to.value];
  return points.map(({ x, y }) => `${x},${y}`).join(' ');
});

function pointer(event: PointerEvent): Point {
  const box = (event.currentTarget as Element).closest('.desk')!.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

/** Where a point of the desk is in the gradient's own axes as it was taken hold of. */
function own(at: Point, gradient: Gradient): Point {
  const { x, y } = runOf(props.figure, gradient, width.value)
    .inverse()
    .transformPoint(view.toPlate(at));
  return { x, y };
}

function take(event: PointerEvent, how: (at: Point) => Gradient): void {
  if (event.button !== 0) return;
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  change = how;
}

function takeEnd(event: PointerEvent, end: 'from' | 'to'): void {
  const { gradient, figure } = props;
  const between = (one: Point, two: Point) => runBetween(figure, gradient, one, two, width.value);
  const fixed = view.toPlate(end === 'from' ? to.value : from.value);
  const spot = end === 'from' ? from.value : to.value;
  const start = pointer(event);
  take(event, (at) => {
    // The handle lies beyond the end, which moves as the pointer does.
    const there = view.toPlate({ x: spot.x + at.x - start.x, y: spot.y + at.y - start.y });
    if (end === 'to') return between(fixed, there);
    // The middle of what goes round it takes its reach along.
    if (gradient.shape === 'linear') return between(there, fixed);
    const middle = view.toPlate(from.value);
    const reach = { x: fixed.x - middle.x, y: fixed.y - middle.y };
    return between(there, { x: there.x + reach.x, y: there.y + reach.y });
  });
}

function takeStop(event: PointerEvent, stop: Stop, stops: readonly Stop[] = props.gradient.stops) {
  const { gradient } = props;
  take(event, (at) => {
    const part = nearestPart(gradient.shape, own(at, gradient));
    const spot = onDesk(stopPlace(gradient.shape, part));
    const others = stops.filter((each) => each !== stop);
    if (others.length > 1 && Math.hypot(at.x - spot.x, at.y - spot.y) > OFF)
      return { ...gradient, stops: others };
    const moved = { ...stop, at: rounded(part) };
    return { ...gradient, stops: inOrder([...others, moved], moved).stops };
  });
}

function addStop(event: PointerEvent): void {
  const { gradient } = props;
  const at = nearestPart(gradient.shape, own(pointer(event), gradient));
  const stop = mixedAt(gradient.stops as Stop[], at);
  takeStop(event, stop, [...(gradient.stops as Stop[]), stop]);
  move(event);
}

function commandOf(paint: Gradient) {
  const { node, line } = props;
  const lines = node.look.lines.map((each, i) => (i === line ? { ...each, paint } : each));
  const fields = line === null ? { fill: paint } : { lines };
  return { kind: 'paint' as const, ids: [node.id], ...fields };
}

function move(event: PointerEvent): void {
  if (!change) return;
  held.value = change(pointer(event));
  drawing.look(commandOf(held.value));
}

async function drop(): Promise<void> {
  const made = held.value;
  change = null;
  if (made) await drawing.run(commandOf(made));
  held.value = null;
}

function letGo(): void {
  change = null;
  held.value = null;
  drawing.stopPreview();
}
</script>

<template>
  <svg
    class="gradient"
    width="100%"
    height="100%"
    data-testid="gradient"
    @pointermove="move"
    @pointerup="drop"
    @pointercancel="letGo"
  >
    <line :x1="ends.from.x" :y1="ends.from.y" :x2="ends.to.x" :y2="ends.to.y" />
    <polyline class="casing" :points="way" />
    <polyline class="way" :points="way" />
    <polyline class="reach" :points="way" data-part="way" @pointerdown.stop="addStop" />
    <g
      v-for="(end, name) in ends"
      :key="name"
      :data-part="name"
      @pointerdown.stop="takeEnd($event, name)"
    >
      <circle class="reach" :cx="end.x" :cy="end.y" r="13" />
      <circle class="end" :cx="end.x" :cy="end.y" r="8.5" />
    </g>
    <circle
      v-for="({ stop, at }, i) in dots"
      :key="i"
      class="stop"
      :cx="at.x"
      :cy="at.y"
      r="5"
      :fill="stop.colour"
      :data-stop="i"
      @pointerdown.stop="takeStop($event, stop as Stop)"
    />
  </svg>
</template>

<style scoped>
.gradient {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.gradient > * {
  pointer-events: auto;
}
polyline,
line {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
}
line {
  stroke-dasharray: 2 3;
}
.casing {
  stroke: #fff;
  stroke-width: 3.4;
}
.reach {
  stroke: transparent;
  stroke-width: 14;
  fill: transparent;
  cursor: copy;
}
g .reach {
  cursor: move;
}
.end {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.4;
  pointer-events: none;
}
.stop {
  stroke: #fff;
  stroke-width: 1.8;
  filter: drop-shadow(0 0 0.6px var(--ink)) drop-shadow(0 0 0.6px var(--ink));
  cursor: grab;
}
</style>
