import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';

import client, { answered, RefusedError } from '@/api/client';
import type { Outcome, Tile, Tiles } from '@/api/types';
import { hasLine, paintOf } from '@/marks/kinds';
import { FIRST, MORE, STAYS_LIVE } from '@/marks/outcomes';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** Where several shapes are picked one after the other, only the first and the last are computed. */
const BURST_MS = 40;
/** Of more shapes the outcomes are asked for one by one, so that progress shows and a cancel tells. */
const AT_ONCE = 40;

interface Question {
  ids: readonly string[];
  /** What is asked for now, and what after it. */
  which: readonly Outcome[];
  later: readonly (readonly Outcome[])[];
  first: boolean;
}

/** The outcomes of the selection, as they come from the core. */
export function useOutcomes() {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const found = shallowRef<Tiles | null>(null);
  const more = ref(false);
  const fault = ref('');
  const cancelled = ref(false);
  const wanted = ref(0);

  const paint = computed(() => (view.taking.paint === 'natural' ? null : view.taking.paint));
  /** Whether any of the shapes is only a line to the eye, though it encloses an area. */
  const hasBare = computed(() =>
    selection.operands.some((key) => {
      const { fill, lines } = paintOf(selection.rowById.get(key)!.node).look;
      return !fill && lines.length > 0 && selection.figureById.get(key)?.area !== '';
    }),
  );
  const hasLines = computed(() =>
    selection.operands.some((key) => hasLine(selection.rowById.get(key)!.node)),
  );
  const asAreas = computed(() => view.taking.lines === 'as areas' && hasLines.value);
  const asLines = computed(() => view.taking.lines === 'as lines' && hasBare.value);

  function asked(
    ids: readonly string[],
    which: readonly Outcome[],
    signal?: AbortSignal,
  ): Promise<Tiles> {
    return answered<Tiles>(
      client.POST('/api/drawings/{drawing_id}/outcomes', {
        params: { path: { drawing_id: drawing.id } },
        signal,
        body: {
          revision: drawing.revision,
          ids: [...ids],
          which: [...which],
          paint: paint.value,
          as_lines: asLines.value,
          lines_as_areas: asAreas.value,
        },
      }),
    );
  }

  const tiles = computed(() => (selection.operands.length ? (found.value?.tiles ?? []) : []));

  /** Of one live thing only outcomes that stay live. */
  const again = computed(() => selection.operands.length === 1);
  const lists = computed(() =>
    [FIRST, ...(more.value || again.value ? [MORE] : [])].map((list) =>
      list.filter((outcome) => !again.value || STAYS_LIVE.includes(outcome)),
    ),
  );

  const asking = latestWins(
    ({ ids, which }: Question, signal) => asked(ids, which, signal),
    (answer, { ids, later, first }) => {
      const before = first ? [] : (found.value?.tiles ?? []);
      found.value = { ...answer, tiles: [...before, ...answer.tiles] };
      const [which, ...rest] = later;
      if (which) asking.ask({ ids, which, later: rest, first: false });
    },
    {
      burstMs: BURST_MS,
      failed(error) {
        found.value = null;
        // An answer that was overtaken by a change is asked for again with that.
        if (error instanceof RefusedError && !error.problem.current) fault.value = error.message;
      },
    },
  );

  /** Asks for all outcomes that are to be in sight, or for those that have not come yet. */
  function compute(anew = true): void {
    const ids = selection.operands;
    const have = anew ? [] : tiles.value.map((tile) => tile.outcome);
    const missing = lists.value
      .map((list) => list.filter((outcome) => !have.includes(outcome)))
      .filter((list) => list.length);
    const parts = ids.length > AT_ONCE ? missing.flat().map((outcome) => [outcome]) : missing;
    wanted.value = have.length + missing.flat().length;
    fault.value = '';
    cancelled.value = false;
    const [which, ...later] = parts;
    if (which) asking.ask({ ids, which, later, first: !have.length });
  }

  /** The tile of an outcome of the selection, if it has come. */
  function knownTile(outcome: Outcome): Tile | undefined {
    if (asking.busy.value) return undefined;
    return tiles.value.find((tile) => tile.outcome === outcome);
  }

  /** The tile of one outcome of shapes, asked for by itself. */
  async function tileOf(ids: readonly string[], outcome: Outcome): Promise<Tile | undefined> {
    return (await asked(ids, [outcome])).tiles[0];
  }

  function cancel(): void {
    asking.cancel();
    cancelled.value = true;
  }

  watch(
    // One value, for a fresh list would count as a change though nothing in it has changed.
    () =>
      [...selection.operands, drawing.revision, paint.value, asLines.value, asAreas.value].join(),
    () => {
      asking.cancel();
      view.outcome = null;
      if (selection.operands.length) compute();
      else {
        found.value = null;
        fault.value = '';
      }
    },
    { immediate: true },
  );
  watch(more, () => selection.operands.length && compute(asking.busy.value));
  onScopeDispose(asking.cancel);

  const shown = computed(() =>
    tiles.value.filter((tile) => lists.value.flat().includes(tile.outcome)),
  );
  return {
    found,
    tiles: shown,
    more,
    paint,
    hasBare,
    hasLines,
    asLines,
    asAreas,
    again,
    fault,
    cancelled,
    wanted,
    busy: asking.busy,
    compute,
    cancel,
    knownTile,
    tileOf,
  };
}
