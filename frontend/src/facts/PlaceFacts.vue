<script setup lang="ts">
import { storeToRefs } from 'pinia';
import { computed } from 'vue';

import type { Figure, Node } from '@/api/types';
import AnchorPicker from '@/facts/AnchorPicker.vue';
import NumberField from '@/fields/NumberField.vue';
import { common } from '@/marks/common';
import { goesRound, kindOf } from '@/marks/kinds';
import { useActions } from '@/stores/actions';
import { useDrawing } from '@/stores/drawing';
import { useView } from '@/stores/view';

/** Place, size and angle of one shape or of several at once. */
const props = defineProps<{ nodes: Node[]; figures: Figure[] }>();

const SIZE = { min: 0, max: 1e6, above: true };
const ANGLE = { min: -36000, max: 36000 };
/** The centre that shapes are made round lies elsewhere if it is off by more, as a share. */
const OFF = 1e-6;
const ACROSS = ['left', 'middle', 'right'] as const;
const DOWN = ['top', 'middle', 'bottom'] as const;

const drawing = useDrawing();
const view = useView();
const { anchor, ownCentre, ratioLocked: locked } = storeToRefs(view);
const { actions, turnAlone } = useActions();

const ids = computed(() => props.figures.map((figure) => figure.id));
const x = computed(() => common(props.figures, (figure) => placeOf(figure, 'x')));
const y = computed(() => common(props.figures, (figure) => placeOf(figure, 'y')));
const width = computed(() => common(props.figures, (figure) => figure.width));
const height = computed(() => common(props.figures, (figure) => figure.height));
const angle = computed(() => common(props.figures, (figure) => figure.angle_deg));

/** Whether any is made round a centre that is not the middle of its box. */
const hasOwn = computed(() =>
  props.figures.some(({ bounds, x: cx, y: cy }) => {
    const [across, down] = [bounds.x1 - bounds.x0, bounds.y1 - bounds.y0];
    const [dx, dy] = [cx - bounds.x0 - across / 2, cy - bounds.y0 - down / 2];
    return Math.max(Math.abs(dx), Math.abs(dy)) > OFF * Math.max(across, down);
  }),
);
const byOwn = computed(() => ownCentre.value && hasOwn.value);

function placeOf(figure: Figure, axis: 'x' | 'y'): number {
  if (byOwn.value) return figure[axis];
  const [low, high] = [figure.bounds[`${axis}0`], figure.bounds[`${axis}1`]];
  return low + anchor.value[axis] * (high - low);
}

/** Whether a number that is shown is a field of each shape, and so can follow a measure. */
function isField(shown: number | undefined, field: (node: Node) => number | undefined): boolean {
  const near = (value = NaN) => Math.abs(value - (shown ?? NaN)) < 1e-9;
  return props.nodes.every((node) => near(field(node)));
}
const side = (name: 'width' | 'height') => (node: Node) =>
  node.kind === 'rectangle' ? node[name] : undefined;
const radius = (name: 'rx' | 'ry') => (node: Node) =>
  node.kind === 'ellipse' ? 2 * node[name] : undefined;
const length = (node: Node) => (node.kind === 'line' ? node.length : undefined);
/** The angle of what is made round its own centre, which alone it is turned about. */
function turn(node: Node): number | undefined {
  if (node.kind === 'repeat' && !goesRound(node)) return undefined;
  const { a = 1, b = 0 } = node.transform;
  return kindOf(node).parameters(node).length ? (Math.atan2(b, a) * 180) / Math.PI : undefined;
}
/** The field that width or height is, and how many times it. */
function sizePath(shown: number | undefined, name: 'width' | 'height') {
  if (isField(shown, side(name))) return { path: name };
  const along = name === 'width' ? 'rx' : 'ry';
  if (isField(shown, radius(along))) return { path: along, times: 0.5 };
  return name === 'width' && isField(shown, length) ? { path: 'length' } : {};
}
const paths = computed(() => ({
  angle: isField(angle.value, turn) ? 'angle_deg' : undefined,
  x: isField(x.value, ({ transform }) => transform.e) ? 'transform.e' : undefined,
  y: isField(y.value, ({ transform }) => transform.f) ? 'transform.f' : undefined,
  width: sizePath(width.value, 'width'),
  height: sizePath(height.value, 'height'),
}));

function choose(axis: 'x' | 'y', share: number): void {
  anchor.value[axis] = share;
  ownCentre.value = false;
}

function place(fields: { x?: number; y?: number; angle_deg?: number }): void {
  const at: 'own' | [number, number] = byOwn.value ? 'own' : [anchor.value.x, anchor.value.y];
  void drawing.do('place', { ids: ids.value, anchor: at, ...fields });
}

/** Turns to an angle: a shape that has a turning point set goes round that. */
function turnTo(degrees: number): void {
  if (view.pivot && angle.value !== undefined) void turnAlone(degrees - angle.value);
  else place({ angle_deg: degrees });
}

function resize(fields: { width?: number; height?: number }): void {
  const only = props.figures[0]!;
  const size = { ...fields };
  // With the ratio locked the other side follows, where there is one shape and one ratio.
  if (locked.value && props.figures.length === 1 && only.width && only.height) {
    size.width ??= (only.width * fields.height!) / only.height;
    size.height ??= (only.height * fields.width!) / only.width;
  }
  void drawing.do('resize', { ids: ids.value, ...size });
}
</script>

<template>
  <div class="grid">
    <NumberField
      label="x"
      :says="byOwn ? 'x of the centre of the full circle' : `x of its ${ACROSS[anchor.x * 2]}`"
      :value="x"
      :path="paths.x"
      @change="place({ x: $event })"
    >
      <AnchorPicker
        :share="byOwn ? null : anchor.x"
        axis="x"
        :words="ACROSS"
        @choose="choose('x', $event)"
      />
    </NumberField>
    <NumberField
      label="y"
      :says="byOwn ? 'y of the centre of the full circle' : `y of its ${DOWN[anchor.y * 2]}`"
      :value="y"
      :path="paths.y"
      @change="place({ y: $event })"
    >
      <AnchorPicker
        :share="byOwn ? null : anchor.y"
        axis="y"
        :words="DOWN"
        @choose="choose('y', $event)"
      />
    </NumberField>
    <button
      v-if="hasOwn"
      class="own soft"
      :class="{ on: ownCentre }"
      :aria-pressed="ownCentre"
      title="x and y are the centre of the full circle that it is made round, not of its box"
      @click="ownCentre = !ownCentre"
    >
      centre of the full circle
    </button>
    <NumberField
      label="w"
      says="width along its own axes"
      :value="width"
      :rule="SIZE"
      :disabled="width === 0"
      v-bind="paths.width"
      @change="resize({ width: $event })"
    />
    <NumberField
      label="h"
      says="height along its own axes"
      :value="height"
      :rule="SIZE"
      :disabled="height === 0"
      v-bind="paths.height"
      @change="resize({ height: $event })"
    />
    <NumberField
      label="angle"
      :value="angle"
      :rule="ANGLE"
      unit="°"
      :path="paths.angle"
      @change="turnTo($event)"
    >
      <button
        v-for="(way, i) in [actions.quarterBack!, actions.quarter!]"
        :key="way.word"
        class="quarter soft"
        :title="`${way.word} (${way.key})`"
        :aria-label="way.word"
        @click="way.run()"
      >
        {{ i ? '↻' : '↺' }}
      </button>
    </NumberField>
    <button
      class="ratio"
      :aria-pressed="locked"
      title="Whether width and height keep their ratio"
      @click="locked = !locked"
    >
      <span class="soft">ratio</span><span class="mono">{{ locked ? 'locked' : 'free' }}</span>
    </button>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 8px;
  margin-top: 6px;
}
.own {
  grid-column: 1 / -1;
  justify-self: start;
  padding: 1px 9px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  font-size: 11.5px;
}
.own.on {
  border-color: var(--clay);
  color: var(--ink);
}
.quarter {
  line-height: 1;
}
.quarter:hover {
  color: var(--clay);
}
.ratio {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  padding: 4px 2px;
  border-bottom: 1px solid var(--rule);
}
</style>
