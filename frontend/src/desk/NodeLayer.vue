<script setup lang="ts">
import { computed } from 'vue';

import type { Hands, Press } from '@/desk/gestures';
import { handleGesture, nodeGesture, sideGesture } from '@/desk/nodeGestures';
import { useSnapping } from '@/desk/useSnapping';
import { ontoPlate } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';
import { angleOf } from '@/marks/numbers';
import type { NodeSpot, SideSpot } from '@/stores/nodes';
import { useNodes } from '@/stores/nodes';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** The nodes, handles and sides of the shapes in hand, dragged and picked. */
const props = defineProps<{ press: Press; hands: Hands }>();

const nodes = useNodes();
const selection = useSelection();
const view = useView();
const { snapperFor } = useSnapping();

/** What comes of a drag goes the way of all edits: what is live is settled first. */
const hands: Hands = { ...props.hands, run: nodes.take };

const dots = computed(() =>
  nodes.spots.map((spot, i) => {
    const before = nodes.spots[i - 1];
    const first = before?.id !== spot.id || before.dot.contour !== spot.dot.contour;
    return { spot, ...view.toDesk(spot.at), kind: spot.dot.kind, way: first ? wayOf(spot) : null };
  }),
);
/** The angle in which an outline leaves a node: its first one shows which way it runs. */
function wayOf({ id, dot, at }: NodeSpot): number {
  const { matrix } = selection.figureById.get(id)!;
  const { leaves_x: x, leaves_y: y } = dot;
  const to = ontoPlate(matrix, { x: dot.x + x, y: dot.y + y });
  return angleOf(at, to);
}
/** Handles of what is picked, and those of picked sides. */
const handles = computed(() => {
  const shown = new Set(nodes.picked);
  for (const { id, line } of nodes.sidesInHand)
    for (const number of [line.first, line.last]) shown.add(`${id}/${number}`);
  return nodes.spots
    .filter(({ key }) => shown.has(key))
    .flatMap((spot) =>
      ([false, true] as const).flatMap((forward) => {
        const own = forward ? spot.dot.handle_after : spot.dot.handle_before;
        const figure = selection.figureById.get(spot.id);
        if (!own || !figure) return [];
        const at = ontoPlate(figure.matrix, { x: own[0], y: own[1] });
        return [{ spot, forward, plate: at, node: view.toDesk(spot.at), at: view.toDesk(at) }];
      }),
    );
});
const toDesk = computed(() => `translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`);

function adds(event: PointerEvent): boolean {
  return event.shiftKey || event.ctrlKey || event.metaKey;
}

function held(from: Point, picked: Iterable<string>, sides: Iterable<string> = []) {
  const [one, two] = [[...picked], [...sides]];
  return {
    hands,
    editing: (edit: Parameters<typeof nodes.editing>[0]) => nodes.editing(edit, one, two),
    snapper: snapperFor([]),
    from,
  };
}

function grabNode(spot: NodeSpot, event: PointerEvent): void {
  if (event.button !== 0) return;
  const was = nodes.picked.has(spot.key);
  if (!was && adds(event)) nodes.toggle(spot.key);
  else if (!was) nodes.pick(spot.key);
  props.press(
    event,
    (from) => nodeGesture(held(from, nodes.picked), spot.at),
    () => {
      if (adds(event) && was) nodes.toggle(spot.key);
      else if (!adds(event)) nodes.pick(spot.key);
    },
  );
  // Held by itself, it gets the double click too.
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
}

function grabHandle(
  { spot, forward, plate }: (typeof handles.value)[number],
  event: PointerEvent,
): void {
  if (event.button !== 0) return;
  props.press(
    event,
    (from) => handleGesture(held(from, [spot.key]), spot.at, plate, forward),
    () => undefined,
  );
}

function grabSide(side: SideSpot, event: PointerEvent): void {
  if (event.button !== 0) return;
  const { id, line } = side;
  const both = [`${id}/${line.first}`, `${id}/${line.last}`];
  props.press(
    event,
    (from) => {
      nodes.pickSide(side.key);
      const straight = line.kind === 'straight' ? held(from, both).editing : null;
      return sideGesture(held(from, [], [side.key]), straight);
    },
    () => (adds(event) ? nodes.toggleSide(side.key) : nodes.pickSide(side.key)),
  );
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
}

/** Adds a node where a side is double-clicked. */
function addTo(side: SideSpot, event: MouseEvent): void {
  const box = (event.target as Element).closest('.desk')!.getBoundingClientRect();
  const at = view.toPlate({ x: event.clientX - box.left, y: event.clientY - box.top });
  void nodes.take(nodes.editing({ do: 'add', where: [at.x, at.y] }, [], [side.key]));
}
</script>

<template>
  <svg
    class="nodes"
    :class="{ snipping: nodes.snipping }"
    width="100%"
    height="100%"
    data-testid="nodes"
  >
    <g :transform="toDesk">
      <g
        v-for="side in nodes.sides"
        :key="side.key"
        class="side"
        :class="{ on: side.on }"
        :transform="side.matrix"
        :data-side="side.number"
        :data-of="side.id"
        @pointerdown.stop="grabSide(side, $event)"
        @dblclick.stop="addTo(side, $event)"
      >
        <path class="reach" :d="side.line.path" />
        <path class="line" :d="side.line.path" />
      </g>
    </g>
    <line
      v-for="{ spot, forward, node, at } in handles"
      :key="`line ${spot.key} ${forward}`"
      class="arm"
      :x1="node.x"
      :y1="node.y"
      :x2="at.x"
      :y2="at.y"
    />
    <g
      v-for="{ spot, x, y, kind, way } in dots"
      :key="spot.key"
      class="node"
      :class="[kind, { on: spot.on }]"
      :transform="`translate(${x} ${y})`"
      :data-node-kind="kind"
      :data-node-number="spot.number"
      :data-of="spot.id"
      @pointerdown.stop="grabNode(spot, $event)"
      @dblclick.stop="nodes.wholeContours()"
    >
      <circle class="reach" r="9" />
      <path v-if="way !== null" class="way" d="M8 -3.5L13 0L8 3.5" :transform="`rotate(${way})`" />
      <path v-if="kind === 'corner'" class="dot" d="M0 -5.6L5.6 0L0 5.6L-5.6 0Z" />
      <circle v-else class="dot" r="4.6" />
      <path v-if="kind === 'even'" class="mark" d="M-2 -1.1H2M-2 1.1H2" />
      <circle v-if="kind === 'end'" class="mark" r="1.4" />
    </g>
    <g
      v-for="handle in handles"
      :key="`${handle.spot.key} ${handle.forward}`"
      class="handle"
      :transform="`translate(${handle.at.x} ${handle.at.y})`"
      :data-handle="`${handle.spot.number} ${handle.forward ? 'after' : 'before'}`"
      @pointerdown.stop="grabHandle(handle, $event)"
    >
      <circle class="reach" r="9" />
      <circle class="knob" r="3.4" />
    </g>
  </svg>
</template>

<style scoped>
.nodes {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.side,
.node,
.handle {
  pointer-events: all;
  cursor: pointer;
}
.side path {
  fill: none;
}
.side .reach {
  stroke: transparent;
  stroke-width: 11;
  vector-effect: non-scaling-stroke;
  pointer-events: stroke;
}
.side .line {
  stroke: var(--tide);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.side:hover .line,
.side.on .line {
  stroke: var(--clay);
}
.side.on .line {
  stroke-width: 2.6;
}
.node .reach,
.handle .reach {
  fill: transparent;
}
.dot {
  fill: var(--card);
  stroke: var(--tide);
  stroke-width: 1.6;
}
.mark {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1.1;
}
.way {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1.4;
}
.node:hover .dot {
  stroke: var(--clay);
}
.on .dot {
  fill: var(--clay);
  stroke: var(--clay);
}
.on .mark {
  stroke: var(--card);
}
.arm {
  stroke: var(--clay);
  stroke-width: 1;
}
.knob {
  fill: var(--clay);
  stroke: var(--card);
  stroke-width: 1;
}
.nodes.snipping * {
  pointer-events: none;
}
</style>
