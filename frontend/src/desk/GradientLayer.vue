<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Figure, Gradient, Node, Stop } from '@/api/types';
import type { Gesture, Hands, Press } from '@/desk/gestures';
import { andThen, commandGesture } from '@/desk/gestures';
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
import { useTwins } from '@/stores/twins';
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
  press: Press;
  hands: Hands;
}>();

/** How far a stop is dragged off to be removed, in pixels. */
const OFF = 40;
/** How far beyond its ends it is taken hold of, in pixels. */
const BEYOND = 26;

const view = useView();
const twins = useTwins();
/** The gradient as the pointer leaves it for now. */
const held = ref<Gradient | null>(null);

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

/** Where a point of the plate is in the gradient's own axes. */
function own(at: Point, gradient: Gradient): Point {
  const { x, y } = runOf(props.figure, gradient, width.value).inverse().transformPoint(at);
  return { x, y };
}

function commandOf(paint: Gradient) {
  const { node, line } = props;
  const lines = node.look.lines.map((each, i) => (i === line ? { ...each, paint } : each));
  const fields = line === null ? { fill: paint } : { lines };
  return twins.here('paint', { ids: [node.id], ...fields });
}

/** Shows the gradient as the pointer leads it. */
function leading(next: (at: Point) => Gradient): Gesture {
  const gesture = commandGesture(props.hands, (at) => {
    held.value = next(at);
    return { command: commandOf(held.value), said: { text: '' } };
  });
  return andThen(gesture, () => (held.value = null));
}

function take(
  event: PointerEvent,
  start: (from: Point) => Gesture,
  click: () => void = () => undefined,
): void {
  if (event.button === 0) props.press(event, start, click);
}

function takeEnd(event: PointerEvent, end: 'from' | 'to'): void {
  const { gradient, figure } = props;
  const between = (one: Point, two: Point) => runBetween(figure, gradient, one, two, width.value);
  const [first, last] = [view.toPlate(from.value), view.toPlate(to.value)];
  const reach = { x: last.x - first.x, y: last.y - first.y };
  const spot = end === 'from' ? first : last;
  take(event, (start) =>
    leading((at) => {
      // The handle lies beyond the end, which moves as the pointer does.
      const there = { x: spot.x + at.x - start.x, y: spot.y + at.y - start.y };
      if (end === 'to') return between(first, there);
      // The middle of what goes round it takes its reach along.
      if (gradient.shape === 'linear') return between(there, last);
      return between(there, { x: there.x + reach.x, y: there.y + reach.y });
    }),
  );
}

/** Leads a stop along the gradient; off it, it goes. */
function leadingStop(stop: Stop, stops: readonly Stop[]): Gesture {
  const { gradient } = props;
  const others = stops.filter((each) => each !== stop);
  return leading((at) => {
    const part = nearestPart(gradient.shape, own(at, gradient));
    const spot = onDesk(stopPlace(gradient.shape, part));
    const pointer = view.toDesk(at);
    const off = Math.hypot(pointer.x - spot.x, pointer.y - spot.y);
    if (others.length > 1 && off > OFF) return { ...gradient, stops: others };
    const moved = { ...stop, at: rounded(part) };
    return { ...gradient, stops: inOrder([...others, moved], moved).stops };
  });
}

function takeStop(event: PointerEvent, stop: Stop): void {
  take(event, () => leadingStop(stop, props.gradient.stops));
}

/** Adds a stop where the way is clicked, or dragged from. */
function addStop(event: PointerEvent): void {
  const { gradient, hands } = props;
  const box = (event.currentTarget as Element).closest('.desk')!.getBoundingClientRect();
  const at = view.toPlate({ x: event.clientX - box.left, y: event.clientY - box.top });
  const stop = mixedAt(gradient.stops as Stop[], nearestPart(gradient.shape, own(at, gradient)));
  const stops = inOrder([...(gradient.stops as Stop[]), stop], stop).stops;
  take(
    event,
    () => leadingStop(stop, stops),
    () => void hands.run(commandOf({ ...gradient, stops })),
  );
}
</script>

<template>
  <svg class="gradient" width="100%" height="100%" data-testid="gradient">
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
