<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';

import type { Gesture, Hands } from '@/desk/gestures';
import { drawGesture, moveGesture, resizeGesture } from '@/desk/gestures';
import SelectionMarks from '@/desk/SelectionMarks.vue';
import SizeCard from '@/desk/SizeCard.vue';
import type { Parameter } from '@/editor/shapes';
import { drawn, shapeWord } from '@/editor/shapes';
import { rule } from '@/look/fillRule';
import { newId, useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import type { Point } from '@/stores/view';
import { useView } from '@/stores/view';

/** The desk: the plate, its shapes, and every gesture of the pointer on them. */
const THRESHOLD = 3;
const CARD = { width: 208, height: 190 };

const drawing = useDrawing();
const selection = useSelection();
const view = useView();

const desk = ref<HTMLElement>();
const offset = ref<Point>({ x: 0, y: 0 });
const numbers = ref<{ text: string; at: Point } | null>(null);
const card = ref<{ at: Point; left: number; top: number } | null>(null);
const spaceHeld = ref(false);

const head = computed(() => drawing.shown.heads[selection.plate]);
const painted = computed(() =>
  (head.value?.nodes ?? []).flatMap((key) => {
    const node = drawing.shown.nodes[key];
    const figure = drawing.shown.figures[key]?.[0];
    return node && figure ? [{ node, figure }] : [];
  }),
);
const chosen = computed(() => new Set(selection.ids));
const marked = computed(() => selection.ids.flatMap((key) => selection.figureById.get(key) ?? []));
/** Outlines of members, of a selected compound or beside a selected member. */
const members = computed(() => {
  if (selection.selected.length > 1 || view.outcome) return [];
  const parents = new Set(selection.selected.map((row) => (row.depth ? row.top : row.node.id)));
  return selection.rows.flatMap((row) =>
    row.depth && parents.has(row.top) && !chosen.value.has(row.node.id)
      ? (selection.figureById.get(row.node.id) ?? [])
      : [],
  );
});
const hoveredFigure = computed(() =>
  selection.hovered && !chosen.value.has(selection.hovered)
    ? selection.figureById.get(selection.hovered)
    : undefined,
);
const shift = computed(() => `translate(${offset.value.x} ${offset.value.y})`);
const isMoved = (key: string) => chosen.value.has(key);

const hands: Hands = {
  look: drawing.look,
  stopLooking: drawing.stopPreview,
  run: drawing.run,
  rounded: view.rounded,
  step: () => 10 ** Math.ceil(Math.log10(1 / view.zoom) - 1e-9),
};

function place(event: PointerEvent | WheelEvent): Point {
  const box = desk.value!.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

let gesture: Gesture | null = null;
let pressed: { at: Point; start: (from: Point) => Gesture | null; click: () => void } | null = null;
let panning: Point | null = null;

function press(event: PointerEvent, start: (from: Point) => Gesture | null, click: () => void) {
  desk.value!.setPointerCapture(event.pointerId);
  pressed = { at: place(event), start, click };
}

function onPointerDown(event: PointerEvent): void {
  (document.activeElement as HTMLElement | null)?.blur();
  card.value = null;
  if (event.button === 1 || spaceHeld.value) {
    desk.value!.setPointerCapture(event.pointerId);
    panning = place(event);
    return;
  }
  if (event.button !== 0) return;
  if (view.tool !== 'pick') {
    pressDraw(event);
    return;
  }
  const key = (event.target as Element).getAttribute('data-node');
  if (!key) {
    press(
      event,
      () => null,
      () => !event.shiftKey && selection.pick(),
    );
    return;
  }
  pressShape(event, key);
}

function pressDraw(event: PointerEvent): void {
  const kind = view.tool;
  if (kind === 'pick') return;
  const id = newId();
  press(
    event,
    (from) => {
      const shape = { kind, plate: selection.plate, id, fill: view.fill };
      const draw = drawGesture(hands, shape, from);
      const end = async () => {
        await draw.end();
        if (drawing.nodes[id]) selection.pick(id);
      };
      return { ...draw, end };
    },
    () => {
      const at = place(event);
      card.value = {
        at: view.toPlate(at),
        left: Math.min(at.x + 12, view.size.width - CARD.width - 8),
        top: Math.min(at.y + 12, view.size.height - CARD.height - 8),
      };
    },
  );
}

function pressShape(event: PointerEvent, key: string): void {
  const before = chosen.value.has(key);
  if (event.shiftKey) {
    press(
      event,
      () => null,
      () => selection.toggle(key),
    );
    return;
  }
  if (!before) selection.pick(key);
  press(
    event,
    (from) => {
      const live = selection.selected.some((row) => row.depth > 0);
      return moveGesture(hands, [...selection.ids], live, from, (by) => (offset.value = by));
    },
    () => selection.pick(key),
  );
}

function grab(key: string, corner: Point, event: PointerEvent): void {
  const figure = selection.figureById.get(key);
  if (!figure || event.button !== 0) return;
  press(
    event,
    () => resizeGesture(hands, figure, corner),
    () => undefined,
  );
}

function onPointerMove(event: PointerEvent): void {
  const at = place(event);
  if (panning) {
    view.panBy(at.x - panning.x, at.y - panning.y);
    panning = at;
    return;
  }
  if (pressed && Math.hypot(at.x - pressed.at.x, at.y - pressed.at.y) > THRESHOLD) {
    gesture = pressed.start(view.toPlate(pressed.at));
    pressed = null;
  }
  if (gesture) {
    const keys = { shift: event.shiftKey, alt: event.altKey };
    const text = gesture.move(view.toPlate(at), keys);
    numbers.value = text ? { text, at } : null;
    return;
  }
  if (!pressed) selection.hovered = (event.target as Element).getAttribute('data-node');
}

async function onPointerUp(): Promise<void> {
  panning = null;
  pressed?.click();
  pressed = null;
  const ended = gesture;
  gesture = null;
  numbers.value = null;
  await ended?.end();
}

/** Leaves what is going on; answers whether there was something to leave. */
function cancel(): boolean {
  const busy = Boolean(gesture ?? card.value);
  gesture?.cancel();
  gesture = pressed = null;
  numbers.value = card.value = null;
  return busy;
}

async function drawTyped(values: Partial<Record<Parameter['key'], number>>): Promise<void> {
  const kind = view.tool;
  if (kind === 'pick' || !card.value) return;
  const { rx, width = 2 * rx!, height = 2 * rx!, ...others } = values;
  const id = newId();
  const centre = { x: view.rounded(card.value.at.x), y: view.rounded(card.value.at.y) };
  card.value = null;
  const fields = { width, height, ...others };
  if (await drawing.run(drawn(kind, selection.plate, id, view.fill, centre, fields)))
    selection.pick(id);
}

function onWheel(event: WheelEvent): void {
  view.zoomAt(place(event), Math.exp(-event.deltaY * 0.0015));
}

function fit(): void {
  if (head.value) view.fit(head.value.width, head.value.height);
}

function onSpace(event: KeyboardEvent): void {
  const typing = (event.target as Element).closest?.('input, textarea, button, [role=button]');
  if (event.code === 'Space' && (event.type === 'keyup' || !typing))
    spaceHeld.value = event.type === 'keydown';
}

let observer: ResizeObserver | null = null;
onMounted(() => {
  observer = new ResizeObserver(([entry]) => {
    const first = view.size.width === 0;
    view.size = { width: entry!.contentRect.width, height: entry!.contentRect.height };
    if (first) fit();
  });
  view.size = { width: 0, height: 0 };
  observer.observe(desk.value!);
  window.addEventListener('keydown', onSpace);
  window.addEventListener('keyup', onSpace);
});
onBeforeUnmount(() => {
  observer?.disconnect();
  window.removeEventListener('keydown', onSpace);
  window.removeEventListener('keyup', onSpace);
});
watch(() => [selection.plate, head.value?.width, head.value?.height], fit);
watch(
  () => view.tool,
  () => (card.value = null),
);

const ground = computed(() => {
  let pitch = 10 * view.zoom;
  while (pitch < 14) pitch *= 2;
  while (pitch > 40) pitch /= 2;
  return {
    backgroundSize: `${pitch}px ${pitch}px`,
    backgroundPosition: `${view.pan.x - pitch / 2}px ${view.pan.y - pitch / 2}px`,
  };
});

defineExpose({ fit, cancel });
</script>

<template>
  <div
    ref="desk"
    class="desk"
    :class="{ drawing: view.tool !== 'pick', panning: spaceHeld }"
    :style="ground"
    data-testid="desk"
    @pointerdown="onPointerDown"
    @pointermove="onPointerMove"
    @pointerup="onPointerUp"
    @pointercancel="cancel"
    @pointerleave="selection.hovered = null"
    @wheel.prevent="onWheel"
    @contextmenu.prevent
  >
    <svg v-if="head" width="100%" height="100%" role="img" :aria-label="`Plate ${head.name}`">
      <g :transform="`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`">
        <rect class="plate" :width="head.width" :height="head.height" />
        <path
          v-for="{ node, figure } in painted"
          :key="node.id"
          :data-node="node.id"
          :d="figure.path"
          :fill="node.fill ?? 'none'"
          :fill-rule="rule(figure.fill_rule)"
          :class="{ bare: !node.fill, veiled: view.outcome && isMoved(node.id) }"
          :transform="isMoved(node.id) ? shift : undefined"
          pointer-events="all"
        />
        <path
          v-if="view.outcome"
          class="outcome"
          data-testid="outcome-preview"
          :d="view.outcome.path"
          :fill="view.outcome.fill"
        />
        <path
          v-for="figure in members"
          :key="figure.id"
          class="member"
          :d="figure.path"
          :transform="shift"
        />
        <path v-if="hoveredFigure" class="hovered" :d="hoveredFigure.path" />
        <g v-if="!view.outcome" :transform="shift">
          <template v-for="figure in marked" :key="figure.id">
            <path
              v-if="view.tool === 'pick' && selection.rowById.get(figure.id)?.depth"
              class="held"
              :d="figure.path"
              :data-node="figure.id"
            />
            <SelectionMarks
              :figure="figure"
              :zoom="view.zoom"
              :brackets="marked.length === 1 && view.tool === 'pick'"
              @grab="(corner, event) => grab(figure.id, corner, event)"
            />
          </template>
        </g>
      </g>
    </svg>
    <div
      v-if="head"
      class="caption soft"
      :style="{ left: `${view.pan.x}px`, top: `${view.pan.y - 24}px` }"
    >
      {{ head.name }} · {{ head.width }} × {{ head.height }}
    </div>
    <div
      v-if="numbers"
      class="numbers mono"
      :style="{ left: `${numbers.at.x + 16}px`, top: `${numbers.at.y + 14}px` }"
    >
      {{ numbers.text }}
    </div>
    <SizeCard
      v-if="card && view.tool !== 'pick'"
      :key="view.tool"
      :shape="shapeWord(view.tool)"
      :style="{ left: `${card.left}px`, top: `${card.top}px` }"
      @draw="drawTyped"
      @cancel="card = null"
    />
    <slot />
  </div>
</template>

<style scoped>
.desk {
  position: relative;
  overflow: hidden;
  background: radial-gradient(circle, var(--dot) 1px, transparent 1.2px), var(--desk);
  touch-action: none;
  user-select: none;
}
.drawing {
  cursor: crosshair;
}
.panning {
  cursor: grab;
}
svg {
  display: block;
}
.plate {
  fill: #fff;
  stroke: var(--rule);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.bare {
  stroke: var(--soft);
  vector-effect: non-scaling-stroke;
}
.veiled {
  opacity: 0;
}
.outcome,
.member,
.hovered {
  pointer-events: none;
  vector-effect: non-scaling-stroke;
}
.outcome {
  stroke: var(--clay);
  stroke-width: 2;
}
.member {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1.4;
  stroke-dasharray: 2 3;
}
.hovered {
  fill: none;
  stroke: var(--clay);
  stroke-opacity: 0.6;
  stroke-width: 1.5;
}
.held {
  fill: transparent;
  pointer-events: all;
}
.caption {
  position: absolute;
  font-size: 12px;
  pointer-events: none;
  white-space: nowrap;
}
.numbers {
  position: absolute;
  padding: 2px 8px;
  border: 1px solid var(--clay);
  border-radius: 10px;
  background: #fff;
  color: var(--clay);
  pointer-events: none;
  white-space: nowrap;
}
</style>
