import { defineStore } from 'pinia';
import { computed, reactive, ref } from 'vue';

import type { Box, Piece } from '@/api/types';
import type { Point } from '@/marks/numbers';
import type { Tool } from '@/marks/shapes';

const MIN_ZOOM = 0.02;
const MAX_ZOOM = 200;
const MARGIN = 56;

export const MANNERS = ['solid', 'glass', 'wire'] as const;
export type Manner = (typeof MANNERS)[number];

/** Whether a result stays live, whether its shapes stay beneath, and whose paint it takes. */
export interface Taking {
  live: boolean;
  keep: boolean;
  /** Whether shapes with a line and no fill are cut as lines, or all lines count as what they ink. */
  lines: 'enclosed' | 'as lines' | 'as areas';
  paint: 'natural' | 'lowest' | 'topmost' | 'first';
}

/** How the desk is looked at, and what the pointer does there. */
export const useView = defineStore('view', () => {
  const zoom = ref(1);
  const pan = ref<Point>({ x: 0, y: 0 });
  const size = ref({ width: 0, height: 0 });
  const tool = ref<'pick' | Tool>('pick');
  const tab = ref<'stack' | 'shelf'>('stack');
  /** How shapes are shown; their paint stays what it is. */
  const manner = ref<Manner>('solid');
  const rulers = ref(false);
  /** What x and y in Facts mean: 0 the left or top, 0.5 the middle, 1 the right or bottom. */
  const anchor = ref<Point>({ x: 0.5, y: 0.5 });
  /** Or the centre that a shape is made round, where that is not the middle of its box. */
  const ownCentre = ref(false);
  const ratioLocked = ref(false);
  /** Where the selection is turned about, if that was moved from its middle. */
  const pivot = ref<Point | null>(null);
  /** An outcome's pieces shown in the place of the selected shapes. */
  const outcome = ref<readonly Piece[] | null>(null);
  /** How outcomes are taken. */
  const taking = reactive<Taking>({
    live: true,
    keep: false,
    lines: 'enclosed',
    paint: 'natural',
  });

  function nextManner(): void {
    manner.value = MANNERS[(MANNERS.indexOf(manner.value) + 1) % MANNERS.length]!;
  }

  /** From the desk's pixels to the plate's units. */
  function toPlate(at: Point): Point {
    return { x: (at.x - pan.value.x) / zoom.value, y: (at.y - pan.value.y) / zoom.value };
  }

  /** From the plate's units to the desk's pixels. */
  function toDesk(at: Point): Point {
    return { x: at.x * zoom.value + pan.value.x, y: at.y * zoom.value + pan.value.y };
  }

  function zoomAt(at: Point, factor: number): void {
    const next = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, zoom.value * factor));
    const still = toPlate(at);
    zoom.value = next;
    pan.value = { x: at.x - still.x * next, y: at.y - still.y * next };
  }

  function panBy(dx: number, dy: number): void {
    pan.value = { x: pan.value.x + dx, y: pan.value.y + dy };
  }

  /** Shows a box of the plate in the middle of the desk, as large as fits or at ``scale``. */
  function fit(box: Box, scale?: number): void {
    const width = Math.max(box.x1 - box.x0, 1e-6);
    const height = Math.max(box.y1 - box.y0, 1e-6);
    const room = { x: size.value.width - 2 * MARGIN, y: size.value.height - 2 * MARGIN };
    const next = scale ?? Math.min(room.x / width, room.y / height);
    zoom.value = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, next));
    pan.value = {
      x: size.value.width / 2 - ((box.x0 + box.x1) / 2) * zoom.value,
      y: size.value.height / 2 - ((box.y0 + box.y1) / 2) * zoom.value,
    };
  }

  /** The step that gestures round to: the smallest power of ten that a pixel does not exceed. */
  const step = computed(() => 10 ** Math.ceil(Math.log10(1 / zoom.value) - 1e-9));
  function rounded(value: number): number {
    return Number((Math.round(value / step.value) * step.value).toFixed(9));
  }

  return {
    zoom,
    pan,
    size,
    tool,
    tab,
    manner,
    rulers,
    anchor,
    ownCentre,
    ratioLocked,
    nextManner,
    pivot,
    outcome,
    taking,
    toPlate,
    toDesk,
    zoomAt,
    panBy,
    fit,
    step,
    rounded,
  };
});
