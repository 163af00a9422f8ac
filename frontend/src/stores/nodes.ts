import { defineStore } from 'pinia';
import { computed, reactive, ref, shallowRef, watch } from 'vue';

import client, { answered, RefusedError } from '@/api/client';
import type { Box, Command, NodeDot, NodeEdit, NodeMap, SideLine } from '@/api/types';
import type { Fields } from '@/marks/commands';
import { commandOf } from '@/marks/commands';
import { kindOf } from '@/marks/kinds';
import { ontoPlate } from '@/marks/matrix';
import type { Needs } from '@/marks/nodes';
import { NODE_ACTS } from '@/marks/nodes';
import type { Point } from '@/marks/numbers';
import { newId, useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** A node as it stands on the plate. */
export interface NodeSpot {
  key: string;
  id: string;
  number: number;
  dot: NodeDot;
  at: Point;
  on: boolean;
}

/** A side on the plate; its path is in its shape's own axes. */
export interface SideSpot {
  key: string;
  id: string;
  number: number;
  line: SideLine;
  matrix: string;
  on: boolean;
}

/** Places that differ by less, on the plate, are one. */
const SAME = 1e-4;

function isAmong(places: readonly Point[], { x, y }: Point, reach = 0): boolean {
  return places.some((each) => Math.hypot(each.x - x, each.y - y) <= reach + SAME);
}

/** Of which shape a key is, and which of its nodes or sides. */
function split(key: string): [string, number] {
  const [id, number] = key.split('/');
  return [id!, Number(number)];
}

/** The nodes of one or several shapes, worked on from E until Esc, and which are picked. */
export const useNodes = defineStore('nodes', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const notices = useNotices();
  /** The shapes in hand. */
  const of = ref<readonly string[]>([]);
  const known = shallowRef<Record<string, NodeMap>>({});
  /** What the last look told, until what came of it is known. */
  const lasting = shallowRef<Record<string, NodeMap>>({});
  const picked = ref<ReadonlySet<string>>(new Set());
  const pickedSides = ref<ReadonlySet<string>>(new Set());
  /** How ends are joined. */
  const joining = reactive<{ within: number; by: NonNullable<Fields<'join-ends'>['by']> }>({
    within: 1,
    by: 'middle',
  });
  /** Whether clicks and drags snip off what they touch. */
  const snipping = ref(false);
  /** What is to be picked of what a step makes. */
  let wanted: ((spot: NodeSpot, old: readonly Point[]) => boolean) | null = null;

  const possible = computed(
    () =>
      selection.selected.length > 0 &&
      selection.selected.every((row) => !row.held && kindOf(row.node).refined),
  );
  const open = computed(() => of.value.length > 0 && of.value.join() === selection.ids.join());
  watch(open, (is) => {
    if (!is) leave();
  });

  const asked = latestWins(
    (ids: readonly string[]) =>
      answered<{ maps: Record<string, NodeMap> }>(
        client.POST('/api/drawings/{drawing_id}/nodes', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, ids: [...ids] },
        }),
      ),
    ({ maps }) => taken(maps),
    {
      failed(error) {
        // What was changed elsewhere meanwhile is asked for again.
        if (!(error instanceof RefusedError) || error.problem.current) return;
        leave();
        notices.say(error.message);
      },
    },
  );
  watch([() => of.value, () => drawing.revision], ([ids]) =>
    ids.length ? asked.ask(ids) : asked.cancel(),
  );

  /** Goes on with other maps; what was picked stays picked as far as it is there. */
  function taken(maps: Record<string, NodeMap>): void {
    const before = known.value;
    const places = new Map(spots.value.map((spot) => [spot.key, spot.at]));
    known.value = maps;
    lasting.value = {};
    const changed = Object.keys(maps).filter(
      (id) => before[id] && before[id].nodes.length !== maps[id]!.nodes.length,
    );
    if (!changed.length && !wanted) return;
    const were = [...picked.value].flatMap((key) => places.get(key) ?? []);
    const old = [...places.values()];
    const chosen = wanted ?? (({ at }: NodeSpot) => isAmong(were, at));
    wanted = null;
    pick(...spots.value.filter((spot) => chosen(spot, old)).map(({ key }) => key));
  }

  const maps = computed<Record<string, NodeMap>>(() => ({
    ...known.value,
    ...lasting.value,
    ...drawing.lookedNodes,
  }));
  const spots = computed<NodeSpot[]>(() =>
    of.value.flatMap((id) => {
      const figure = selection.figureById.get(id);
      const map = maps.value[id];
      if (!figure || !map) return [];
      return map.nodes.map((dot, number) => {
        const key = `${id}/${number}`;
        const on = picked.value.has(key);
        return { key, id, number, dot, at: ontoPlate(figure.matrix, dot), on };
      });
    }),
  );
  const sides = computed<SideSpot[]>(() =>
    of.value.flatMap((id) => {
      const figure = selection.figureById.get(id);
      const map = maps.value[id];
      if (!figure || !map) return [];
      const { a, b, c, d, e, f } = figure.matrix;
      const matrix = `matrix(${a} ${b} ${c} ${d} ${e} ${f})`;
      return map.sides.map((line, number) => {
        const key = `${id}/${number}`;
        return { key, id, number, line, matrix, on: pickedSides.value.has(key) };
      });
    }),
  );
  /** Those that are picked, the first one first. */
  const inHand = computed(() => {
    const byKey = new Map(spots.value.map((spot) => [spot.key, spot]));
    return [...picked.value].flatMap((key) => byKey.get(key) ?? []);
  });
  /** The sides that are picked, and those between picked nodes. */
  const sidesInHand = computed(() =>
    sides.value.filter(
      ({ on, id, line }) =>
        on || (picked.value.has(`${id}/${line.first}`) && picked.value.has(`${id}/${line.last}`)),
    ),
  );
  const ends = computed(() => spots.value.filter(({ dot }) => dot.kind === 'end'));
  const live = computed(() => of.value.filter((id) => known.value[id]?.live));

  function begin(): void {
    leave();
    of.value = [...selection.ids];
    drawing.watched = of.value;
  }

  /** Answers whether there was something to leave. */
  function leave(): boolean {
    const was = of.value.length > 0;
    of.value = drawing.watched = [];
    known.value = lasting.value = {};
    wanted = null;
    snipping.value = false;
    pick();
    return was;
  }

  /** Picks these nodes, and no side. */
  function pick(...keys: string[]): void {
    picked.value = new Set(keys);
    pickedSides.value = new Set();
  }

  function toggled(set: ReadonlySet<string>, key: string): ReadonlySet<string> {
    const next = new Set(set);
    if (!next.delete(key)) next.add(key);
    return next;
  }

  function toggle(key: string): void {
    picked.value = toggled(picked.value, key);
  }

  function toggleSide(key: string): void {
    pickedSides.value = toggled(pickedSides.value, key);
  }

  function pickSide(key: string): void {
    pick();
    toggleSide(key);
  }

  function all(): void {
    pick(...spots.value.map(({ key }) => key));
  }

  /** Goes on to the next node, or back. */
  function walk(by: number): void {
    const count = spots.value.length;
    if (!count) return;
    const last = [...picked.value].at(-1);
    const from = last ? spots.value.findIndex(({ key }) => key === last) : by > 0 ? -1 : count;
    pick(spots.value[(from + by + count) % count]!.key);
  }

  /** Picks all nodes on the contours of those in hand. */
  function wholeContours(): void {
    const contours = new Set(inHand.value.map(({ id, dot }) => `${id}/${dot.contour}`));
    pick(
      ...spots.value
        .filter(({ id, dot }) => contours.has(`${id}/${dot.contour}`))
        .map(({ key }) => key),
    );
  }

  /** Picks all nodes that are what those in hand are: corners, smooth ones, ends. */
  function similar(): void {
    const kinds = new Set(inHand.value.map(({ dot }) => dot.kind));
    pick(...spots.value.filter(({ dot }) => kinds.has(dot.kind)).map(({ key }) => key));
  }

  /** Picks the nodes in a box, beside those that are kept. */
  function within({ x0, y0, x1, y1 }: Box, kept: readonly string[]): void {
    const found = spots.value.filter(
      ({ at }) => at.x >= x0 && at.x <= x1 && at.y >= y0 && at.y <= y1,
    );
    pick(...new Set([...kept, ...found.map(({ key }) => key)]));
  }

  function has(needs: Needs): boolean {
    if (needs === 'sides') return sidesInHand.value.length > 0;
    if (needs === 'ends') return inHand.value.some(({ dot }) => dot.kind === 'end');
    return inHand.value.length > 0;
  }

  /** The command that does an edit to what is picked, or to these. */
  function editing(
    edit: NodeEdit,
    nodes: Iterable<string> = picked.value,
    lines: Iterable<string> = pickedSides.value,
  ): Command {
    const by = new Map<string, { id: string; nodes: number[]; sides: number[] }>();
    const shape = (id: string) => {
      if (!by.has(id)) by.set(id, { id, nodes: [], sides: [] });
      return by.get(id)!;
    };
    for (const [id, number] of [...nodes].map(split)) shape(id).nodes.push(number);
    for (const [id, number] of [...lines].map(split)) shape(id).sides.push(number);
    return commandOf('edit-nodes', { of: [...by.values()], edit });
  }

  /** Does a command to nodes; what is live is settled first, as a step of its own. */
  async function take(command: Command): Promise<boolean> {
    lasting.value = drawing.lookedNodes;
    if (command.kind === 'edit-nodes' && command.edit.do === 'add')
      wanted = ({ at }, old) => !isAmong(old, at);
    const shapes = live.value;
    if (shapes.length) {
      const names = shapes.map((id) => selection.rowById.get(id)!.node.name).join(', ');
      const keep = view.taking.keep ? { keep: newId() } : {};
      if (!(await drawing.do('settle', { ids: [...shapes], ...keep }))) return false;
      notices.say(`${names} was live and is settled now, as a step of its own.`);
    }
    const done = await drawing.run(command);
    if (!done) {
      lasting.value = {};
      wanted = null;
    }
    return done;
  }

  /** Does one of the edits that need no more than what is picked. */
  function act(name: string): void {
    const found = NODE_ACTS.find((each) => each.name === name)!;
    if (has(found.needs)) void take(editing(found.edit));
  }

  /** The command that snips off what lies near these points, of any shape in hand. */
  function snip(at: readonly Point[], reach: number): Command {
    const edit = { do: 'snip' as const, at: at.map(({ x, y }) => [x, y] as const), reach };
    const all = of.value.map((id) => ({ id, nodes: [], sides: [] }));
    return commandOf('edit-nodes', { of: all, edit } as unknown as Fields<'edit-nodes'>);
  }

  function edit(made: NodeEdit): Promise<boolean> {
    return take(editing(made));
  }

  /** Joins the two ends that are picked, or all that lie near each other. */
  async function joinEnds(): Promise<void> {
    const two = inHand.value.filter(({ dot }) => dot.kind === 'end');
    const between =
      two.length === 2
        ? { ends: two.map(({ id, number }) => ({ id, nodes: [number] })) }
        : { within: joining.within };
    const [one, other] = two;
    const reach = between.within ?? Math.hypot(one!.at.x - other!.at.x, one!.at.y - other!.at.y);
    const places = (two.length === 2 ? two : ends.value).map(({ at }) => at);
    // What the ends have become.
    const made = ({ at, dot }: NodeSpot) => dot.kind !== 'end' && isAmong(places, at, reach);
    const ids = [...selection.ids];
    const was = open.value;
    if (was) wanted = made;
    const done = await take(commandOf('join-ends', { ids, by: joining.by, ...between }));
    // Shapes that became part of others are no more.
    const left = ids.filter((id) => selection.rowById.has(id));
    if (!done || left.length === ids.length) return;
    selection.pick(...left);
    if (!was) return;
    begin();
    wanted = made;
  }

  return {
    of,
    joining,
    snipping,
    snip,
    picked,
    possible,
    open,
    live,
    spots,
    sides,
    inHand,
    sidesInHand,
    ends,
    begin,
    leave,
    pick,
    toggle,
    toggleSide,
    pickSide,
    all,
    walk,
    wholeContours,
    similar,
    within,
    has,
    editing,
    take,
    act,
    edit,
    joinEnds,
  };
});
