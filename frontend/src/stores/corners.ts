import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { CornerHandle, CornerMap, CornerShape } from '@/api/types';
import { commandOf } from '@/marks/commands';
import { kindOf } from '@/marks/kinds';
import { matrixOf, ontoPlate } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useSelection } from '@/stores/selection';

/** A corner as it stands on the plate. */
export interface Corner extends CornerHandle {
  place: number;
  /** The size that it is drawn in, where what is asked for does not fit. */
  fits: number | null;
  at: Point;
  /** The way inward on the plate, as long as a unit of its size. */
  inward: Point;
}

/** The corners of one shape, worked on from E until Esc: which are picked, what they become. */
export const useCorners = defineStore('corners', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const of = ref<string | null>(null);
  const map = shallowRef<CornerMap | null>(null);
  const picked = ref<ReadonlySet<number>>(new Set());
  /** What a corner that has no shape yet becomes. */
  const shape = ref<CornerShape>('round');

  const possible = computed(() => {
    const row = selection.only;
    return Boolean(row && !row.held && kindOf(row.node).refined);
  });
  const open = computed(() => of.value !== null && of.value === selection.only?.node.id);
  watch(open, (is) => {
    if (!is) leave();
  });

  const asked = latestWins(
    (id: string) =>
      answered<CornerMap>(
        client.POST('/api/drawings/{drawing_id}/corners', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, id },
        }),
      ),
    (found) => {
      // What was picked stays picked as long as the corners are as many.
      if (found.corners.length !== map.value?.corners.length) picked.value = new Set();
      map.value = found;
    },
  );
  watch([() => of.value, () => drawing.revision], ([id]) => (id ? asked.ask(id) : asked.cancel()));

  const corners = computed<Corner[]>(() => {
    const figure = of.value ? selection.figureById.get(of.value) : undefined;
    if (!figure || !map.value) return [];
    const { picks, refinement } = map.value;
    const fits = figure.notes[refinement ?? figure.notes.length - 1]?.fits ?? {};
    // Those that are made for the first time get the next numbers.
    const fresh = [...picked.value].filter((place) => map.value!.corners[place]?.pick === null);
    const numbers = new Map(fresh.map((place, i) => [place, picks + i]));
    const linear = matrixOf({ ...figure.matrix, e: 0, f: 0 });
    return map.value.corners.map((corner, place) => {
      const inward = linear.transformPoint({ x: corner.dx, y: corner.dy });
      const number = corner.pick ?? numbers.get(place);
      return {
        ...corner,
        shape: corner.size ? corner.shape : shape.value,
        place,
        fits: number === undefined ? null : (fits[number] ?? null),
        at: ontoPlate(figure.matrix, corner),
        inward: { x: inward.x, y: inward.y },
      };
    });
  });
  /** Those that are picked, the first one first. */
  const inHand = computed(() => [...picked.value].flatMap((place) => corners.value[place] ?? []));

  function begin(): void {
    picked.value = new Set();
    map.value = null;
    of.value = selection.only?.node.id ?? null;
  }

  /** Answers whether there was something to leave. */
  function leave(): boolean {
    const was = of.value !== null;
    of.value = null;
    map.value = null;
    picked.value = new Set();
    return was;
  }

  function pick(...places: number[]): void {
    picked.value = new Set(places);
  }

  function toggle(place: number): void {
    const next = new Set(picked.value);
    if (!next.delete(place)) next.add(place);
    picked.value = next;
  }

  /** Goes on to the next corner, or back. */
  function walk(by: number): void {
    const count = corners.value.length;
    if (!count) return;
    const from = [...picked.value].at(-1) ?? (by > 0 ? -1 : count);
    pick((from + by + count) % count);
  }

  /** Picks all corners on the contours of those in hand. */
  function wholeContours(): void {
    const contours = new Set(inHand.value.map(({ contour }) => contour));
    pick(...corners.value.filter((each) => contours.has(each.contour)).map(({ place }) => place));
  }

  /** The command that makes corners so. */
  function making(places: readonly number[], size: number, as: CornerShape) {
    const spots = places.map((place) => map.value!.corners[place]!);
    return commandOf('set-corners', {
      id: of.value!,
      corners: spots.map(({ x, y }) => [x, y]),
      size,
      shape: as,
    });
  }

  /** Gives the corners in hand a size, a shape, or both. */
  function make(changes: { size?: number; shape?: CornerShape }): void {
    if (changes.shape) shape.value = changes.shape;
    const [first] = inHand.value;
    if (!first) return;
    const size = changes.size ?? first.size;
    // A shape alone, of what has no size yet, is what the next drag makes.
    if (!size && changes.size === undefined) return;
    const places = inHand.value.map(({ place }) => place);
    void take(places, size, changes.shape ?? first.shape);
  }

  /** Makes corners so; until the answer comes they count as made. */
  async function take(places: readonly number[], size: number, as: CornerShape): Promise<void> {
    const before = map.value!;
    const command = making(places, size, as);
    map.value = {
      ...before,
      corners: before.corners.map((corner, place) =>
        places.includes(place) ? { ...corner, size, shape: as } : corner,
      ),
    };
    if (!(await drawing.run(command))) map.value = before;
  }

  return {
    map,
    picked,
    shape,
    possible,
    open,
    corners,
    inHand,
    begin,
    leave,
    pick,
    toggle,
    walk,
    wholeContours,
    making,
    take,
    make,
  };
});
