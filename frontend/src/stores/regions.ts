import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';

import client, { answered, RefusedError } from '@/api/client';
import type { Node, PickedRegion, RegionMap, RegionPick } from '@/api/types';
import { commandOf } from '@/marks/commands';
import { childrenOf, paintOf } from '@/marks/kinds';
import { colourOf as inkOf } from '@/marks/paint';
import type { Brush, Pick, Picks } from '@/marks/strokes';
import * as strokes from '@/marks/strokes';
import { newId, useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useStyle } from '@/stores/style';
import { useView } from '@/stores/view';

export type RegionPaint = 'topmost' | 'lowest' | 'new';
export const PAINTS: readonly RegionPaint[] = ['topmost', 'lowest', 'new'];
export const BRUSHES: readonly Brush[] = ['keep', 'fuse', 'drop'];

type RegionBuild = Extract<Node, { kind: 'regions' }>;

/** What is picked, and what becomes of the rest: one state of the strokes. */
interface State {
  picks: Picks;
  rest: boolean;
  paint: RegionPaint;
}

/** The picks of a region build; those whose pieces were removed by hand are dropped. */
function picksNow({ picks = [], held = [] }: RegionBuild): RegionPick[] {
  const gone = new Set(held.flatMap(({ piece, dropped }) => (dropped ? [piece] : [])));
  return picks.map((pick, i) => (gone.has(String(i)) ? { ...pick, dropped: true } : pick));
}

/** Picking regions: open from R until it is applied or left; each stroke undoes on its own. */
export const useRegions = defineStore('regions', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const style = useStyle();
  const notices = useNotices();

  const map = shallowRef<RegionMap | null>(null);
  const ids = ref<readonly string[]>([]);
  /** The region build that is picked anew; null where a new one is made. */
  const build = ref<string | null>(null);
  const states = shallowRef<readonly State[]>([]);
  const at = ref(0);
  const brush = ref<Brush>('keep');
  /** Whether X is held: whatever the brush, what is touched goes; and whether it was used so. */
  const dropping = ref<false | 'held' | 'used'>(false);
  /** Whether the desk was panned while Space was held: then Space does nothing else. */
  const panned = ref(false);
  /** The dot in hand, by its region. */
  const current = ref<number | null>(null);
  /** A lost region that the next click places. */
  const placing = shallowRef<{ pick: Pick; lost: PickedRegion } | null>(null);

  const open = computed(() => map.value !== null);
  const state = computed(() => states.value[at.value]);
  const picks = computed<Picks>(() => state.value?.picks ?? []);
  const shapes = computed(() => new Set(open.value ? ids.value : []));
  const canUndo = computed(() => at.value > 0);
  const canRedo = computed(() => at.value < states.value.length - 1);
  const lost = computed(() =>
    picks.value.flatMap((pick) => pick.lost.map((region) => ({ pick, lost: region }))),
  );

  /** Whether there is something whose regions can be picked. */
  const possible = computed(
    () => selection.combinable.length > 1 || Boolean(subject() && !selection.only?.held),
  );

  /** The one shape whose regions are picked: of a piece in hand its whole. */
  function subject(): Node | null {
    return selection.wholeInHand ?? selection.only?.node ?? null;
  }

  /** The shapes whose regions are picked: of a group those that it holds. */
  function sources(): string[] {
    const only = subject();
    if (!only) return [...selection.combinable];
    return only.kind === 'group' ? childrenOf(only).map((child) => child.node.id) : [only.id];
  }

  async function begin(): Promise<void> {
    const only = subject();
    const chosen = sources();
    if (!possible.value) return;
    try {
      const found = await answered<RegionMap>(
        client.POST('/api/drawings/{drawing_id}/regions', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, ids: chosen },
        }),
      );
      const again = only?.kind === 'regions' ? only : null;
      build.value = again?.id ?? null;
      ids.value = chosen;
      states.value = [
        {
          picks: again ? strokes.picksOf(picksNow(again), found.found) : [],
          rest: again?.keep_rest ?? true,
          paint: again?.paint ?? 'topmost',
        },
      ];
      at.value = 0;
      brush.value = 'keep';
      current.value = placing.value = null;
      view.tool = 'pick';
      map.value = found;
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      notices.say(error.message);
    }
  }

  function leave(): void {
    map.value = null;
    states.value = [];
    dropping.value = false;
    current.value = placing.value = null;
  }

  function change(fields: Partial<State>): void {
    states.value = [...states.value.slice(0, at.value + 1), { ...state.value!, ...fields }];
    at.value += 1;
  }

  function undo(): void {
    if (canUndo.value) at.value -= 1;
  }

  function redo(): void {
    if (canRedo.value) at.value += 1;
  }

  /** A stroke over regions, in the order in which they were touched. */
  function stroke(spots: readonly number[]): void {
    const [first] = spots;
    if (first === undefined) return;
    const last = current.value;
    current.value = spots.at(-1)!;
    const now = placing.value;
    if (now) {
      placing.value = null;
      change({ picks: strokes.place(picks.value, now.pick, now.lost, first) });
    } else if (dropping.value || brush.value === 'drop') {
      if (dropping.value) dropping.value = 'used';
      change({ picks: strokes.drop(picks.value, spots) });
    } else if (spots.length > 1) change({ picks: strokes.fuse(picks.value, spots) });
    else if (brush.value === 'fuse') fuseWith(last, first);
    else change({ picks: strokes.keep(picks.value, first) });
  }

  /** Joins a region to the piece of the dot that was in hand. */
  function fuseWith(last: number | null, spot: number): void {
    const before = last !== null && last !== spot ? [last] : [];
    change({ picks: strokes.fuse(picks.value, [...before, spot]) });
  }

  function paintPiece(fill: string | null): void {
    if (current.value !== null) change({ picks: strokes.paint(picks.value, current.value, fill) });
  }

  function forget(pick: Pick, region: PickedRegion): void {
    placing.value = null;
    change({ picks: strokes.place(picks.value, pick, region, null) });
  }

  /** The colour of a region as it would be painted; null for none. */
  function colourOf(spot: number): string | null {
    const pick = strokes.pickOf(picks.value, spot);
    if (pick?.dropped) return null;
    if (pick?.fill) return pick.fill;
    const { paint } = state.value!;
    if (pick && paint === 'new') return style.fill;
    const covers = (pick?.spots ?? [spot]).flatMap((each) => map.value!.spots[each]!.pick.cover);
    const order = map.value!.shapes.filter((key) => covers.includes(key));
    const by = pick && paint === 'lowest' ? order[0] : order.at(-1);
    const node = by ? selection.rowById.get(by)?.node : undefined;
    return node ? inkOf(paintOf(node).look.fill) : null;
  }

  async function apply(): Promise<void> {
    const { rest, paint } = state.value!;
    const stored = strokes.toStored(picks.value, map.value!);
    const how = {
      picks: stored,
      keep_rest: rest,
      paint,
      fill: paint === 'new' ? style.fill : null,
    };
    const id = build.value ?? newId();
    const { keep } = view.taking;
    const command = build.value
      ? commandOf('set-regions', { id, ...how })
      : commandOf('build-regions', { ids: [...ids.value], id, name: 'Regions', keep, ...how });
    applying = true;
    if (await drawing.run(command)) {
      const of = build.value ? [] : ids.value;
      leave();
      selection.made(id, of, true);
    }
    applying = false;
  }

  // What was picked is of the drawing as it was: a change from elsewhere ends it.
  let applying = false;
  watch([() => drawing.revision, () => selection.plate], () => {
    if (!open.value || applying) return;
    leave();
    notices.say(
      'The drawing has changed, so that picking regions was left; press R to begin again.',
    );
  });

  return {
    map,
    ids,
    build,
    open,
    state,
    picks,
    shapes,
    lost,
    brush,
    dropping,
    panned,
    current,
    placing,
    canUndo,
    canRedo,
    possible,
    begin,
    leave,
    change,
    undo,
    redo,
    stroke,
    paintPiece,
    forget,
    colourOf,
    apply,
  };
});
