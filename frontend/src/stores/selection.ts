import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import type { ComputedRef } from 'vue';

import type { Figure, Node, Role } from '@/api/types';
import {
  childrenOf,
  comesInPieces,
  holds,
  isActive,
  staysLive,
  kindOf,
  piecesOf,
} from '@/marks/kinds';
import { boxRound } from '@/marks/matrix';
import { shared, steady } from '@/marks/sharing';
import { useDrawing } from '@/stores/drawing';

/** What comes in pieces shows these in one strand of the stack, what it is made from in another. */
export type Strand = 'pieces' | 'made from';

/** A node somewhere in the stack of the plate. */
export interface Row {
  node: Node;
  depth: number;
  /** The node directly on the plate that it is, or lies in. */
  top: string;
  parent: string | null;
  role: Role | null;
  /** The strand of its parent that it lies in, where that has strands. */
  strand: Strand | null;
  /** Its own id and those of all that contain it. */
  chain: readonly string[];
  /** Whether it or something that contains it is hidden, locked, or a guide shape. */
  dimmed: boolean;
  held: boolean;
  guide: boolean;
  /** Whether it only shows in what holds it: the result of a compound, or a clip. */
  inside: boolean;
}

/** Of more shapes than these, outcomes are not shown of what is made of them. */
const MOST_RETAKEN = 40;

/** What is known of the shapes of one node on the plate, by their ids. */
interface Known {
  rows: ReadonlyMap<string, Row>;
  figures: ReadonlyMap<string, Figure>;
}

function rowsOf(
  node: Node,
  above: Row | null,
  role: Role | null,
  strand: Strand | null,
  known: Known,
): Row[] {
  const fresh: Row = {
    node,
    depth: above ? above.depth + (strand ? 2 : 1) : 0,
    top: above?.top ?? node.id,
    parent: above?.node.id ?? null,
    role,
    strand,
    chain: [node.id, ...(above?.chain ?? [])],
    guide: (above?.guide ?? false) || node.guide,
    inside: above !== null && (above.inside || (strand !== 'pieces' && staysLive(above.node))),
    dimmed: (above?.dimmed ?? false) || !node.visible,
    held: (above?.held ?? false) || node.locked,
  };
  const row = shared(known.rows.get(node.id), fresh);
  const inner = [...childrenOf(node)].reverse();
  const inPieces = comesInPieces(node);
  const pieces = inPieces ? piecesOf(node.id, known.figures).reverse() : [];
  return [
    row,
    ...pieces.flatMap((piece) => rowsOf(piece, row, null, 'pieces', known)),
    ...inner.flatMap((child) =>
      rowsOf(child.node, row, child.role, inPieces ? 'made from' : null, known),
    ),
  ];
}

/** The id that a shape has in its source, where it lies inside a twin. */
function plainOf(key: string): string {
  return key.slice(key.lastIndexOf(':') + 1);
}

interface OnPlate {
  rows: Row[];
  figures: readonly Figure[];
  /** Whether any of it comes in pieces, which the figures tell. */
  inPieces: boolean;
}
/** Rows by the node on the plate: nodes that stay the same objects keep theirs. */
const kept = new WeakMap<Node, OnPlate>();
/** The last rows by that node's id: of nodes in it that stay the same they are used again. */
const last = new Map<string, Row[]>();

/** A computed list that tells of a change only where other things are in it. */
function listed<T>(found: () => T[]): ComputedRef<T[]> {
  return computed<T[]>((old) => steady(old, found()));
}

const NO_FIGURES: readonly Figure[] = [];

function rowsOnPlate(node: Node, figures: readonly Figure[]): Row[] {
  const before = kept.get(node);
  if (before && (!before.inPieces || before.figures === figures)) return before.rows;
  const rows = rowsOf(node, null, null, null, {
    rows: new Map((last.get(node.id) ?? []).map((row) => [row.node.id, row])),
    figures: new Map(figures.map((figure) => [figure.id, figure])),
  });
  const inPieces = rows.some((row) => comesInPieces(row.node));
  kept.set(node, { rows, figures, inPieces });
  last.set(node.id, rows);
  return rows;
}

/** The plate in hand, what is selected on it, and what the pointer is over. */
export const useSelection = defineStore('selection', () => {
  const drawing = useDrawing();
  const plate = ref('');
  const picked = ref<readonly string[]>([]);
  const hovered = ref<string | null>(null);
  /** The group or compound that is worked in; the rest pales. */
  const focus = ref<string | null>(null);
  /** Which of its shapes are worked on, where it comes in pieces. */
  const strand = ref<Strand>('pieces');

  /** All nodes of the plate, topmost first, those inside others after these. */
  const rows = computed<Row[]>(() => {
    const head = drawing.shown.heads[plate.value];
    if (!head) return [];
    return [...head.nodes]
      .reverse()
      .map((key) => drawing.shown.nodes[key])
      .filter((node) => node !== undefined)
      .flatMap((node) => rowsOnPlate(node, drawing.shown.figures[node.id] ?? NO_FIGURES));
  });

  const rowById = computed(() => new Map(rows.value.map((row) => [row.node.id, row])));
  function* everyFigure(): Iterable<Figure> {
    for (const key of drawing.shown.heads[plate.value]?.nodes ?? [])
      yield* drawing.shown.figures[key] ?? [];
  }
  /** The shapes that can be shown. */
  const figureById = computed(() => {
    const found = new Map<string, Figure>();
    for (const figure of everyFigure()) if (!figure.fault) found.set(figure.id, figure);
    return found;
  });
  /** Why others cannot. */
  const faultById = computed(() => {
    const found = new Map<string, string>();
    for (const { id, fault } of everyFigure()) if (fault) found.set(id, fault);
    return found;
  });

  const focused = computed(() => (focus.value ? rowById.value.get(focus.value) : undefined));
  const ids = listed(() => picked.value.filter((key) => rowById.value.has(key)));
  const chosen = computed(() => new Set(ids.value));
  const selected = listed(() => ids.value.map((key) => rowById.value.get(key)!));
  /** The selected shapes as they stand on the plate, and the box round them. */
  const figures = listed(() => ids.value.flatMap((key) => figureById.value.get(key) ?? []));
  const bounds = computed(() =>
    figures.value.length ? boxRound(figures.value.map((figure) => figure.bounds)) : null,
  );
  const only = computed(() => (selected.value.length === 1 ? selected.value[0]! : null));
  /** What comes in pieces and is selected, or has one that is, or is worked in. */
  const wholeInHand = computed(() => {
    if (selected.value.length > 1) return null;
    const above = only.value?.strand === 'pieces' ? rowById.value.get(only.value.parent!) : null;
    const found = [above, only.value, focused.value].find((row) => row && comesInPieces(row.node));
    return found?.node ?? null;
  });
  /** The selection, if it is two or more shapes side by side that take part in outcomes. */
  const combinable = listed(() => {
    const able = selected.value.filter((row) => isActive(row.node) && !row.held);
    const parents = new Set(selected.value.map((row) => `${row.parent} ${row.strand}`));
    return able.length > 1 && parents.size === 1 ? able.map((row) => row.node.id) : [];
  });

  /** What outcomes are made of: shapes side by side, or those that one live thing is made of. */
  const operands = listed(() => {
    const node = only.value?.node;
    const count = node && kindOf(node).retaken ? childrenOf(node).length : 0;
    const again = node && count > 1 && count <= MOST_RETAKEN && !only.value?.held;
    return again ? [node.id] : combinable.value;
  });

  /** What was made of which shapes: these are selected again where it is undone. */
  const origins = new Map<string, readonly string[]>();
  /** Selects what was made; ``inPieces`` takes hold of its pieces instead. */
  function made(named: string, of: readonly string[], inPieces = false): void {
    const key = shownAs(named);
    if (of.length) origins.set(key, of);
    const row = rowById.value.get(key);
    if (inPieces && row && holds(row.node)) enter(key);
    else pick(key);
  }
  watch(
    () => rowById.value,
    (rows) => {
      const inHand = focus.value ? [focus.value, ...picked.value] : picked.value;
      const gone = inHand.find((key) => !rows.has(key) && origins.has(key));
      if (!gone) return;
      if (gone === focus.value) focus.value = null;
      pick(...origins.get(gone)!);
    },
  );

  /** The ids of a node and of all that contain it, itself first. */
  function chainOf(key: string): readonly string[] {
    return rowById.value.get(key)?.chain ?? [];
  }

  /** Whether a node moves with the selection: it is selected, or lies in something that is. */
  function isMoved(row: Row): boolean {
    return row.chain.some((key) => chosen.value.has(key));
  }

  /** What a click on a shape picks: it, or what contains it, beside each other in the focus. */
  function pickable(key: string): string | null {
    const chain = chainOf(key);
    if (!focused.value) return chain.at(-1) ?? null;
    const at = chain.indexOf(focus.value!);
    const inner = at > 0 ? rowById.value.get(chain[at - 1]!)! : null;
    return inner && isWorkedOn(inner) ? inner.node.id : null;
  }

  /** Whether a shape of what is worked in lies in the strand that is worked on. */
  function isWorkedOn(row: Row): boolean {
    return !row.strand || row.strand === strand.value;
  }

  /** The copies that were made under a seed, directly in their stacks. */
  function copiesOf(seed: string): string[] {
    const isCopy = (key: string | null) => plainOf(key ?? '').startsWith(`${seed}-`);
    const made = rows.value.filter((row) => isCopy(row.node.id) && !isCopy(row.parent));
    return nearest(made)
      .map((row) => row.node.id)
      .reverse();
  }

  /** Of rows that are one shape in several twins those in the one that is worked in, or the first. */
  function nearest(found: Row[]): Row[] {
    const twin = (row: Row) => row.node.id.split(':').slice(0, -1).join(':');
    const here = found.find((row) => row.chain.includes(focus.value ?? '')) ?? found[0];
    return here ? found.filter((row) => twin(row) === twin(here)) : [];
  }

  /** What is made inside a twin is shown in each, under an id that begins with that one's. */
  function shownAs(key: string): string {
    if (rowById.value.has(key)) return key;
    const found = rows.value.filter((row) => plainOf(row.node.id) === key);
    return nearest(found)[0]?.node.id ?? key;
  }

  function pick(...named: string[]): void {
    const keys = named.map(shownAs);
    picked.value = keys;
    const rows = keys.flatMap((key) => rowById.value.get(key) ?? []);
    // Who picks something elsewhere has left what was worked in; in it, the strand follows.
    if (rows.some((row) => !row.chain.includes(focus.value ?? ''))) focus.value = null;
    const on = rows.find((row) => row.strand && row.parent === focus.value);
    if (on) strand.value = on.strand!;
  }

  function toggle(key: string): void {
    if (ids.value.includes(key)) pick(...ids.value.filter((other) => other !== key));
    else pick(...ids.value, key);
  }

  /** The shapes that can be picked where one works, topmost first. */
  const beside = listed(() =>
    rows.value.filter(
      (row) =>
        row.parent === (focused.value?.node.id ?? null) &&
        isWorkedOn(row) &&
        !row.held &&
        !row.dimmed,
    ),
  );

  function all(): void {
    picked.value = beside.value.map((row) => row.node.id).reverse();
  }

  /** Goes on to the next shape of the stack, or back. */
  function walk(by: number): void {
    const order = beside.value.map((row) => row.node.id);
    if (!order.length) return;
    const at = order.indexOf(ids.value.at(-1) ?? '');
    pick(
      order[at < 0 ? (by > 0 ? 0 : order.length - 1) : (at + by + order.length) % order.length]!,
    );
  }

  /** Works inside a group or compound, or on a strand of what comes in pieces. */
  function enter(key: string, on: Strand = 'pieces'): void {
    focus.value = key;
    strand.value = on;
    pick();
  }

  /** Steps out of what is worked in; answers whether there was something. */
  function leave(): boolean {
    const left = focused.value;
    if (!left) return false;
    focus.value = left.parent;
    pick(left.node.id);
    return true;
  }

  /** What is seen with all that it is made of: what holds the shapes in hand, and the live one. */
  const opened = listed(() => {
    const live = only.value && staysLive(only.value.node) ? [only.value.node.id] : [];
    const above = selected.value.flatMap((row) => row.chain.slice(1));
    return [...new Set([...live, ...above, ...(focused.value?.chain ?? [])])];
  });
  watch(opened, (ids) => (drawing.opened = ids), { immediate: true });

  watch(
    () => drawing.plates,
    (plates) => {
      if (!plates.includes(plate.value)) plate.value = plates[0] ?? '';
    },
    { immediate: true },
  );
  watch(plate, () => {
    focus.value = null;
    pick();
  });

  return {
    plate,
    picked,
    ids,
    chosen,
    hovered,
    focus,
    strand,
    focused,
    rows,
    rowById,
    figureById,
    faultById,
    selected,
    figures,
    bounds,
    only,
    wholeInHand,
    combinable,
    operands,
    beside,
    chainOf,
    isMoved,
    pickable,
    isWorkedOn,
    pick,
    made,
    copiesOf,
    toggle,
    all,
    walk,
    enter,
    leave,
  };
});
