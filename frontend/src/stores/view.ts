import { defineStore } from 'pinia';
import { computed, ref } from 'vue';

import type { ShapeKind } from '@/editor/shapes';

const MIN_ZOOM = 0.02;
const MAX_ZOOM = 200;
const MARGIN = 56;

export interface Point {
  x: number;
  y: number;
}

/** How the desk is looked at, and what the pointer does there. */
export const useView = defineStore('view', () => {
  const zoom = ref(1);
  const pan = ref<Point>({ x: 0, y: 0 });
  const size = ref({ width: 0, height: 0 });
  const tool = ref<'pick' | ShapeKind>('pick');
  const tab = ref<'stack' | 'shelf'>('stack');
  const fill = ref('#3F7355');
  /** An outcome's path shown in the place of the selected shapes. */
  const outcome = ref<{ path: string; fill: string } | null>(null);

  /** From the desk's pixels to the plate's units. */
  function toPlate(at: Point): Point {
    return { x: (at.x - pan.value.x) / zoom.value, y: (at.y - pan.value.y) / zoom.value };
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

  /** Shows a whole plate in the middle of the desk. */
  function fit(width: number, height: number): void {
    const room = { x: size.value.width - 2 * MARGIN, y: size.value.height - 2 * MARGIN };
    const next = Math.min(room.x / width, room.y / height);
    zoom.value = Math.min(MAX_ZOOM, Math.max(MIN_ZOOM, next));
    pan.value = {
      x: (size.value.width - width * zoom.value) / 2,
      y: (size.value.height - height * zoom.value) / 2,
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
    fill,
    outcome,
    toPlate,
    zoomAt,
    panBy,
    fit,
    rounded,
  };
});
