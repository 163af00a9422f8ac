<script setup lang="ts">
import { computed, nextTick, provide, ref, shallowRef, watch } from 'vue';

import type { Line } from '@/api/types';
import CompassRing from '@/desk/CompassRing.vue';
import CentreLayer from '@/desk/CentreLayer.vue';
import ContextMenu from '@/desk/ContextMenu.vue';
import CornerLayer from '@/desk/CornerLayer.vue';
import CrossingTicks from '@/desk/CrossingTicks.vue';
import DeskRulers from '@/desk/DeskRulers.vue';
import EffectLayer from '@/desk/EffectLayer.vue';
import GradientLayer from '@/desk/GradientLayer.vue';
import NodeLayer from '@/desk/NodeLayer.vue';
import PlateScene from '@/desk/PlateScene.vue';
import SaidBeside from '@/desk/SaidBeside.vue';
import SelectionMarks from '@/desk/SelectionMarks.vue';
import SizeCard from '@/desk/SizeCard.vue';
import SizeGrips from '@/desk/SizeGrips.vue';
import SnapMarks from '@/desk/SnapMarks.vue';
import ValueTags from '@/desk/ValueTags.vue';
import WaitingLayer from '@/desk/WaitingLayer.vue';
import type { Gesture, Hands, Sized } from '@/desk/gestures';
import {
  endGesture,
  keysOf,
  resizeGesture,
  resizing,
  stretching,
  throughGesture,
} from '@/desk/gestures';
import { shapesAt } from '@/desk/picking';
import type { SaidAt } from '@/desk/said';
import { SAID } from '@/desk/said';
import { useAsset } from '@/desk/useAsset';
import { useDeskView } from '@/desk/useDeskView';
import { useDraw } from '@/desk/useDraw';
import { usePath } from '@/desk/usePath';
import { usePick } from '@/desk/usePick';
import { useRing } from '@/desk/useRing';
import { useSnapping } from '@/desk/useSnapping';
import { useTypingPress } from '@/letters/useTypingPress';
import SpacingLayer from '@/letters/SpacingLayer.vue';
import TypingLayer from '@/letters/TypingLayer.vue';
import { useWaitingMarks } from '@/desk/waitingMarks';
import PiecePaths from '@/look/PiecePaths.vue';
import { childrenOf, goesRound, paintOf } from '@/marks/kinds';
import { ontoPlate } from '@/marks/matrix';
import { gradientOf } from '@/marks/paint';
import type { Point } from '@/marks/numbers';
import { shapeWord } from '@/marks/shapes';
import RegionLayer from '@/regions/RegionLayer.vue';
import { useStroke } from '@/regions/useStroke';
import { ASSET } from '@/shelf/placing';
import { useClipboard } from '@/stores/clipboard';
import { useCompare } from '@/stores/compare';
import { useColours } from '@/stores/colours';
import { useCorners } from '@/stores/corners';
import { useDrawing } from '@/stores/drawing';
import { useNodes } from '@/stores/nodes';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';
import { useSimplifying } from '@/stores/simplifying';
import { useSnaps } from '@/stores/snaps';
import { useTwins } from '@/stores/twins';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** The desk: the plate, its shapes, and every gesture of the pointer on them. */
const THRESHOLD = 3;

const drawing = useDrawing();
const selection = useSelection();
const view = useView();
const snaps = useSnaps();
const clipboard = useClipboard();
const regions = useRegions();
const compare = useCompare();
const colours = useColours();
const corners = useCorners();
const nodes = useNodes();
const simplifying = useSimplifying();
const shelf = useShelf();
const typing = useTyping();
const twins = useTwins();
const stroke = useStroke();
const waiting = useWaitingMarks();

const desk = ref<HTMLElement>();
const words = ref<InstanceType<typeof TypingLayer>>();
const plated = ref<SVGGElement>();
const said = shallowRef<SaidAt | null>(null);
const menu = ref(false);
const menuAt = ref<Point>({ x: 0, y: 0 });
const busy = ref(false);

const head = computed(() => drawing.shown.heads[selection.plate]);
const only = computed(() => (selection.only && !selection.only.held ? selection.only : null));
const hoveredFigure = computed(() =>
  selection.hovered && !selection.ids.includes(selection.hovered)
    ? selection.figureById.get(selection.hovered)
    : undefined,
);
/** Whether the pointer takes hold of what is selected: what was just drawn too. */
const takesHold = computed(() => view.tool === 'pick' || justDrawn.value);
const picking = computed(
  () => takesHold.value && !shelf.inHand && !view.outcome && !regions.open && !compare.picture,
);
const quiet = computed(
  () =>
    picking.value &&
    !busy.value &&
    !corners.open &&
    !nodes.open &&
    !simplifying.open &&
    !typing.open,
);

const hands: Hands = {
  look: drawing.look,
  stopLooking: drawing.stopPreview,
  run: drawing.run,
  rounded: view.rounded,
  step: () => view.step,
};

function place(event: { clientX: number; clientY: number }): Point {
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

const { snapperFor } = useSnapping();
const { spaceHeld, ground, fit, fitSelection, zoom } = useDeskView(() => desk.value!);
const given = { hands, press, place, snapperFor, element: () => desk.value! };
const { card, beside, justDrawn, pressDraw, askSize, drawTyped } = useDraw(given);
const path = usePath(given);
const asset = useAsset(given);
const { ring, grabRing, grabPivot } = useRing(given);
const { band, moved, pressPick, pressNodes } = usePick(given);
const { pressWords, chooseWord } = useTypingPress(given);

provide(SAID, { said, marks: computed(() => said.value?.marks ?? path.marks.value) });

function onPointerDown(event: PointerEvent): void {
  (document.activeElement as HTMLElement | null)?.blur();
  card.value = null;
  if (event.button === 1 || spaceHeld.value) {
    desk.value!.setPointerCapture(event.pointerId);
    panning = place(event);
    regions.panned = true;
    return;
  }
  if (event.button !== 0) return;
  if (colours.waiting) {
    void colours.sample(selection.plate, view.toPlate(place(event)), event.altKey);
    return;
  }
  if (regions.open) {
    desk.value!.setPointerCapture(event.pointerId);
    stroke.press(event);
  } else if (shelf.inHand) asset.pressAsset(event);
  else if (typing.open || view.tool === 'text') pressWords(event);
  else if (view.tool === 'path') path.pressPath(event);
  else if (nodes.open) pressNodes(event);
  else if (view.tool === 'pick' || (justDrawn.value && isOnSelected(event))) pressPick(event);
  else pressDraw(event);
}

/** Whether the pointer is on what is selected: what was just drawn is moved, not drawn over. */
function isOnSelected(event: PointerEvent): boolean {
  return shapesAt(event.clientX, event.clientY).some((key) =>
    selection.chainOf(key).some((each) => selection.chosen.has(each)),
  );
}

function grab(
  figure: Sized,
  sized: Parameters<typeof resizeGesture>[4],
  grip: Point,
  event: PointerEvent,
): void {
  if (event.button !== 0) return;
  press(
    event,
    (from) => resizeGesture(hands, figure, grip, from, sized),
    () => undefined,
  );
}

/** The shape that is selected alone, while its paint can be led on the desk. */
const led = computed(() => {
  if (!only.value || only.value.dimmed || only.value.inside) return null;
  const { node } = only.value;
  const figure = selection.figureById.get(node.id);
  const busy = corners.open || nodes.open || typing.typing || typing.spacing;
  return figure && !busy && picking.value ? { node, figure } : null;
});
/** The spin or mirror that is selected alone, wherever it lies. */
const centred = computed(() => {
  const node = only.value?.node;
  if (node?.kind !== 'repeat' || !goesRound(node)) return null;
  const figure = selection.figureById.get(node.id);
  const busy = corners.open || nodes.open;
  return figure && !busy && picking.value ? { node, figure } : null;
});
/** Its gradient: of the paint that was touched last in Facts, or else the first one it has. */
const gradient = computed(() => {
  const look = led.value?.node.look;
  if (!look) return null;
  const all = [look.fill, ...look.lines.map((line) => line.paint)].map(gradientOf);
  const touched = (colours.touched ?? -1) + 1;
  const place = all[touched] ? touched : all.findIndex(Boolean);
  return place < 0 ? null : { gradient: all[place]!, line: place ? place - 1 : null };
});
watch(
  () => selection.ids.join(),
  () => (colours.touched = null),
);

/**
 * The line that a selected shape is seen to have all along its outline; underlays and what is
 * hidden have none.
 */
function inkOf(key: string): Line | null {
  const row = selection.rowById.get(key);
  if (!row || row.dimmed || row.inside || selection.figureById.get(key)?.pieces) return null;
  const line = paintOf(row.node).look.lines[0] as Line | undefined;
  return line && !line.dashes ? line : null;
}

/** The box round several selected shapes that can be sized together. */
const together = computed<Sized | null>(() => {
  const box = selection.bounds;
  if (!box || selection.ids.length < 2 || selection.selected.some((row) => row.held)) return null;
  const matrix = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 };
  return { matrix, box, width: box.x1 - box.x0, height: box.y1 - box.y0 };
});

/** Takes hold of an end of a line, or of one of the points that an arc goes through. */
function grabEnd(key: string, held: number, event: PointerEvent): void {
  const figure = selection.figureById.get(key);
  if (!figure || event.button !== 0) return;
  const ends = figure.grips.map(([x, y]) => ontoPlate(figure.matrix, { x, y }));
  press(
    event,
    () =>
      ends.length > 2
        ? throughGesture(hands, key, ends, held, snapperFor([key]))
        : endGesture(hands, key, ends[1 - held]!, held === 0, snapperFor([key])),
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
  if (regions.open) {
    stroke.move(event);
    return;
  }
  if (pressed && Math.hypot(at.x - pressed.at.x, at.y - pressed.at.y) > THRESHOLD) {
    gesture = pressed.start(view.toPlate(pressed.at));
    busy.value = gesture !== null;
    pressed = null;
  }
  if (gesture) {
    const now = gesture.move(view.toPlate(at), keysOf(event));
    said.value = now.text || now.marks?.length ? { ...now, at } : null;
    return;
  }
  if (view.tool === 'path') path.follow(event);
  if (!pressed) {
    const key = (event.target as Element).getAttribute('data-node');
    selection.hovered = key ? selection.pickable(key) : null;
  }
}

async function onPointerUp(): Promise<void> {
  panning = null;
  stroke.release();
  pressed?.click();
  pressed = null;
  const ended = gesture;
  gesture = null;
  said.value = null;
  await ended?.end();
  busy.value = false;
}

/** Leaves what is going on; answers whether there was something to leave. */
function cancel(): boolean {
  const something =
    stroke.cancel() || path.leave() || asset.leave() || Boolean(gesture ?? card.value);
  gesture?.cancel();
  gesture = pressed = null;
  busy.value = false;
  said.value = card.value = null;
  return something;
}

async function onDoubleClick(event: MouseEvent): Promise<void> {
  if (regions.open || corners.open || nodes.open) return;
  if (typing.open) {
    chooseWord(view.toPlate(place(event)));
    return;
  }
  if (view.tool === 'path') {
    void path.finishPath(false);
    return;
  }
  const key = shapesAt(event.clientX, event.clientY)[0];
  const outer = key ? selection.pickable(key) : null;
  const row = outer ? selection.rowById.get(outer) : null;
  if (row?.node.kind === 'path' && !row.held) nodes.begin();
  else if (row?.node.kind === 'text' && !row.held) void typing.begin(row.node.id);
  else if (outer && key && row && childrenOf(row.node).length) {
    selection.enter(outer);
    // What makes a live thing can be taken hold of only now.
    await nextTick();
    const under = shapesAt(event.clientX, event.clientY);
    const inner = under.map(selection.pickable).find((each) => each !== null);
    if (inner) selection.pick(inner);
  } else if (!key && wordsAt(view.toPlate(place(event)))) void typing.begin(only.value!.node.id);
  else if (!key) selection.leave();
}

/** Whether a point lies among the words in hand, be it between two letters. */
function wordsAt({ x, y }: Point): boolean {
  const { node } = only.value ?? {};
  const box = node?.kind === 'text' ? selection.figureById.get(node.id)?.bounds : undefined;
  return Boolean(box && x > box.x0 && x < box.x1 && y > box.y0 && y < box.y1);
}

function onContextMenu(event: MouseEvent): void {
  if (regions.open) return;
  const key = nodes.open ? null : shapesAt(event.clientX, event.clientY)[0];
  const outer = key ? selection.pickable(key) : null;
  if (outer && !selection.ids.includes(outer)) selection.pick(outer);
  openMenu({ x: event.clientX, y: event.clientY });
}

function openMenu(at?: Point): void {
  const box = desk.value!.getBoundingClientRect();
  menuAt.value = at ?? { x: box.left + 40, y: box.top + 40 };
  menu.value = true;
}

function onWheel(event: WheelEvent): void {
  view.zoomAt(place(event), Math.exp(-event.deltaY * 0.0015));
}

/** An asset from the shelf, or files from elsewhere. */
function onDrop(event: DragEvent): void {
  const dragged = event.dataTransfer?.getData(ASSET);
  if (dragged) void asset.put(dragged, view.toPlate(place(event)));
  else void clipboard.pasteFiles([...(event.dataTransfer?.files ?? [])]);
}

watch(
  () => view.tool,
  () => {
    card.value = said.value = null;
    asset.leave();
    void path.finishPath(false);
  },
);

// Set by hand, for all on the desk would be rendered again at each move of the pointer.
watch(
  [moved, plated],
  ([by, plate]) => {
    plate?.style.setProperty('--moved-x', `${by.x}px`);
    plate?.style.setProperty('--moved-y', `${by.y}px`);
  },
  { flush: 'post' },
);
defineExpose({
  fit,
  fitSelection,
  zoom,
  cancel,
  endPath: path.endPath,
  takeBack: path.takeBack,
  toWords: () => words.value?.focus(),
  openMenu,
  askSize,
});
const { preview: pathPreview, nodes: pathNodes } = path;
const { ghost } = asset;
</script>

<template>
  <div
    ref="desk"
    class="desk"
    :class="{ drawing: view.tool !== 'pick' || shelf.inHand, panning: spaceHeld }"
    data-testid="desk"
    :data-snaps="snaps.targets ? 'known' : 'asked'"
    @pointerdown="onPointerDown"
    @pointermove="onPointerMove"
    @pointerup="onPointerUp"
    @pointercancel="cancel"
    @pointerleave="selection.hovered = null"
    @dblclick="onDoubleClick"
    @wheel.prevent="onWheel"
    @dragover.prevent
    @drop.prevent="onDrop"
    @contextmenu.prevent="onContextMenu"
  >
    <div class="ground" :style="ground"></div>
    <svg v-if="head" width="100%" height="100%" role="img" :aria-label="`Plate ${head.name}`">
      <defs>
        <pattern id="no-ground" width="12" height="12" patternUnits="userSpaceOnUse">
          <path d="M0 0h6v6H0zM6 6h6v6H6z" fill="#e4ded2" />
        </pattern>
      </defs>
      <rect
        v-if="!head.background"
        class="no-ground"
        :x="view.pan.x"
        :y="view.pan.y"
        :width="head.width * view.zoom"
        :height="head.height * view.zoom"
        fill="url(#no-ground)"
      />
      <g ref="plated" :transform="`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`">
        <rect
          class="plate"
          :width="head.width"
          :height="head.height"
          :fill="head.background ?? 'none'"
        />
        <PiecePaths v-if="compare.picture" :pieces="compare.picture.pieces" />
        <PlateScene v-else :picking="takesHold" />
        <CrossingTicks v-if="view.manner === 'wire' && picking" />
        <g v-if="view.outcome" class="outcome" data-testid="outcome-preview">
          <PiecePaths :pieces="view.outcome" />
          <path
            v-for="(piece, i) in view.outcome"
            :key="`edge ${i}`"
            class="edge"
            :d="piece.path"
          />
        </g>
        <g v-if="ghost" :transform="ghost.transform" opacity="0.8" data-testid="asset-preview">
          <PiecePaths :pieces="ghost.pieces" />
        </g>
        <path v-if="hoveredFigure && quiet" class="hovered" :d="hoveredFigure.path" />
        <path
          v-for="key in quiet ? twins.alike : []"
          :key="`alike ${key}`"
          class="hovered alike"
          :d="selection.figureById.get(key)?.path"
        />
        <g v-if="picking" class="moved marks">
          <SelectionMarks
            v-for="figure in nodes.open || typing.open ? [] : selection.figures"
            :key="figure.id"
            :transform="waiting.moveOf(figure.id)"
            :figure="figure"
            :ink="inkOf(figure.id)"
            :zoom="view.zoom"
            :held="quiet && only?.node.id === figure.id"
            @grab="(grip, event) => grab(figure, resizing(figure.id), grip, event)"
            @grab-end="(held, event) => grabEnd(figure.id, held, event)"
          />
          <SizeGrips
            v-if="together && quiet"
            :figure="together"
            :zoom="view.zoom"
            @grab="
              (grip, event) =>
                grab(together!, stretching([...selection.ids], together!), grip, event)
            "
          />
        </g>
        <WaitingLayer />
        <circle
          v-for="(dot, i) in simplifying.dots"
          :key="`left ${i}`"
          class="path-node"
          :cx="dot.x"
          :cy="dot.y"
          :r="3 / view.zoom"
        />
        <path v-if="pathPreview" class="path" data-testid="path-preview" :d="pathPreview" />
        <circle
          v-for="(node, i) in pathNodes"
          :key="i"
          class="path-node"
          :cx="node.x"
          :cy="node.y"
          :r="(i ? 3 : 5) / view.zoom"
        />
        <rect
          v-if="band"
          class="band"
          :x="band.x0"
          :y="band.y0"
          :width="band.x1 - band.x0"
          :height="band.y1 - band.y0"
        />
        <SnapMarks />
      </g>
      <RegionLayer
        v-if="regions.open"
        :touched="stroke.touched.value"
        :hovered="stroke.hovered.value"
      />
      <CompassRing
        v-if="ring && quiet"
        :centre="ring.centre"
        :radius="ring.radius"
        :degrees="ring.degrees"
        :moved="view.pivot !== null"
        @turn="grabRing"
        @shift="grabPivot"
        @reset="view.pivot = null"
      />
    </svg>
    <CornerLayer v-if="corners.open && picking" :press="press" :hands="hands" />
    <GradientLayer
      v-if="led && gradient"
      v-bind="{ ...led, ...gradient }"
      :press="press"
      :hands="hands"
    />
    <CentreLayer
      v-if="centred && ring"
      :key="centred.node.id"
      v-bind="centred"
      :reach="ring.radius"
      :snapper-for="snapperFor"
      :press="press"
      :hands="hands"
    />
    <EffectLayer
      v-if="led && ring"
      :key="led.node.id"
      :node="led.node"
      :ring="ring"
      :press="press"
      :hands="hands"
    />
    <NodeLayer v-if="nodes.open && picking" :press="press" :hands="hands" />
    <TypingLayer v-if="typing.typing" ref="words" :key="typing.of!" />
    <SpacingLayer v-if="typing.spacing" :press="press" :hands="hands" />
    <DeskRulers v-if="view.rulers" />
    <div
      v-if="head"
      class="caption soft"
      :style="{ left: `${view.pan.x}px`, top: `${view.pan.y - 24}px` }"
    >
      {{ head.name }} · {{ head.width }} × {{ head.height }}
    </div>
    <ValueTags
      v-if="only && quiet && ring && selection.figureById.get(only.node.id)"
      :key="only.node.id"
      :node="only.node"
      :figure="selection.figureById.get(only.node.id)!"
      :ring="ring"
    />
    <SaidBeside />
    <div v-if="compare.label" class="before" role="status">before {{ compare.label }}</div>
    <SizeCard
      v-if="card && view.tool !== 'pick'"
      :key="view.tool"
      :shape="shapeWord(view.tool)"
      :at="card.at"
      :beside="beside"
      :plate="head!"
      :style="{ left: `${card.left}px`, top: `${card.top}px` }"
      @draw="drawTyped"
      @cancel="card = null"
    />
    <ContextMenu v-model="menu" :at="menuAt" />
    <slot />
  </div>
</template>

<style scoped>
.desk {
  position: relative;
  overflow: hidden;
  background: var(--desk);
  touch-action: none;
}
/* A layer of its own, so that its dots are not painted again when something on the plate changes. */
.ground {
  position: absolute;
  inset: 0;
  background: radial-gradient(circle, var(--dot) 1px, transparent 1.2px);
  pointer-events: none;
  will-change: opacity;
}
/* A layer of its own, which moves with the pointer and need not be painted anew for that. */
.marks {
  will-change: transform;
}
.drawing {
  cursor: crosshair;
}
.panning {
  cursor: grab;
}
svg {
  display: block;
  position: relative;
}
.plate {
  stroke: var(--rule);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.no-ground {
  pointer-events: none;
}
.outcome,
.edge,
.hovered,
.path,
.band {
  pointer-events: none;
  vector-effect: non-scaling-stroke;
}
.edge {
  fill: none;
  stroke: var(--clay);
  stroke-width: 1.6;
}
.hovered {
  fill: none;
  stroke: var(--clay);
  stroke-opacity: 0.6;
  stroke-width: 1.5;
}
.alike {
  stroke: var(--tide);
  stroke-dasharray: 5 3;
}
.path {
  fill: none;
  stroke: var(--clay);
  stroke-width: 1.6;
}
.path-node {
  fill: #fff;
  stroke: var(--clay);
  stroke-width: 1.6;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.band {
  fill: var(--tide);
  fill-opacity: 0.08;
  stroke: var(--tide);
  stroke-dasharray: 4 3;
}
.caption {
  position: absolute;
  font-size: 12px;
  pointer-events: none;
  white-space: nowrap;
}
.before {
  position: absolute;
  top: 12px;
  left: 50%;
  padding: 3px 14px;
  border-radius: 13px;
  background: var(--ink);
  color: #fff;
  transform: translateX(-50%);
}
</style>
