import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';

import type { Box, Figure, Node, Role } from '@/api/types';
import { useDrawing } from '@/stores/drawing';
import { shared } from '@/stores/sharing';

/** A node somewhere in the stack of the plate. */
export interface Row {
  node: Node;
  depth: number;
  /** The node directly on the plate that it is, or lies in. */
  top: string;
  parent: string | null;
  role: Role | null;
  /** Its own id and those of all that contain it. */
  chain: readonly string[];
  /** Whether it or something that contains it is hidden, locked, or a guide shape. */
  dimmed: boolean;
  held: boolean;
  guide: boolean;
  /** Whether it only shows in what holds it: the result of a compound, or a clip. */
  inside: boolean;
}

/** The shapes directly inside a node, the lowest first, with the roles they have there. */
export function childrenOf(node: Node): { node: Node; role: Role | null }[] {
  if (node.kind === 'compound')
    return node.members.map((member) => ({
      node: member.node as Node,
      role: node.bundled ? null : member.role,
    }));
  const inner =
    node.kind === 'group'
      ? node.nodes
      : node.kind === 'regions'
        ? node.members
        : node.kind === 'clip'
          ? [node.holder, ...(node.nodes ?? [])]
          : node.kind === 'parts'
            ? [...(node.nodes ?? []), node.cutter]
            : [];
  return inner.map((child) => ({ node: child as Node, role: null }));
}

/** Kinds that hold other shapes, and those of them that paint what comes of these together. */
export const HOLDING = ['group', 'compound', 'regions', 'clip', 'parts'];
export const LIVE_KINDS = ['compound', 'regions', 'clip', 'parts'];

/** What is made of shapes that can be taken as another outcome, if they are not very many. */
const RETAKEN = ['compound', 'regions', 'parts', 'group'];
const MOST_RETAKEN = 40;

/** The outcome that a live thing is, if it is any: of a compound by what its members do. */
export function outcomeOf(node: Node): string | null {
  if (node.kind === 'parts') return node.outcome;
  if (node.kind !== 'compound') return null;
  if (node.bundled) return 'bundle';
  const [role, ...others] = node.members.slice(1).map((member) => member.role);
  if (!role || others.some((other) => other !== role)) return null;
  return { adds: 'join', cuts: 'cut', limits: 'overlap', alternates: 'alternate' }[role];
}

/** The shape whose paint another shows: itself, of what holds several the topmost painted one. */
export function paintOf(node: Node): Node {
  if (node.kind === 'clip') return paintOf(node.holder as Node);
  const painted = node.kind === 'group' || node.kind === 'parts' ? node.nodes : [];
  return painted?.length ? paintOf(painted.at(-1) as Node) : node;
}

/** The box round several. */
export function boxRound(boxes: readonly Box[]): Box {
  return {
    x0: Math.min(...boxes.map((box) => box.x0)),
    y0: Math.min(...boxes.map((box) => box.y0)),
    x1: Math.max(...boxes.map((box) => box.x1)),
    y1: Math.max(...boxes.map((box) => box.y1)),
  };
}

/** Whether a shape takes part in outcomes, results and exports. */
export function isActive(node: Node): boolean {
  return node.visible !== false && !node.guide && node.kind !== 'image';
}

function rowsOf(
  node: Node,
  above: Row | null,
  role: Role | null,
  before: ReadonlyMap<string, Row>,
): Row[] {
  const fresh: Row = {
    node,
    depth: above ? above.depth + 1 : 0,
    top: above?.top ?? node.id,
    parent: above?.node.id ?? null,
    role,
    chain: [node.id, ...(above?.chain ?? [])],
    guide: (above?.guide ?? false) || node.guide === true,
    inside: above !== null && (above.inside || LIVE_KINDS.includes(above.node.kind)),
    dimmed: (above?.dimmed ?? false) || node.visible === false,
    held: (above?.held ?? false) || node.locked === true,
  };
  const row = shared(before.get(node.id), fresh);
  const inner = childrenOf(node).reverse();
  return [row, ...inner.flatMap((child) => rowsOf(child.node, row, child.role, before))];
}

/** Rows by the node on the plate: nodes that stay the same objects keep theirs. */
const known = new WeakMap<Node, Row[]>();
/** The last rows by that node's id: of nodes in it that stay the same they are used again. */
const last = new Map<string, Row[]>();

function rowsOnPlate(node: Node): Row[] {
  const kept = known.get(node);
  if (kept) return kept;
  const before = new Map((last.get(node.id) ?? []).map((row) => [row.node.id, row]));
  const rows = rowsOf(node, null, null, before);
  known.set(node, rows);
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

  /** All nodes of the plate, topmost first, those inside others after these. */
  const rows = computed<Row[]>(() => {
    const head = drawing.shown.heads[plate.value];
    if (!head) return [];
    return [...head.nodes]
      .reverse()
      .map((key) => drawing.shown.nodes[key])
      .filter((node) => node !== undefined)
      .flatMap(rowsOnPlate);
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
  const ids = computed(() => picked.value.filter((key) => rowById.value.has(key)));
  const chosen = computed(() => new Set(ids.value));
  const selected = computed(() => ids.value.map((key) => rowById.value.get(key)!));
  /** The selected shapes as they stand on the plate, and the box round them. */
  const figures = computed(() => ids.value.flatMap((key) => figureById.value.get(key) ?? []));
  const bounds = computed(() =>
    figures.value.length ? boxRound(figures.value.map((figure) => figure.bounds)) : null,
  );
  const only = computed(() => (selected.value.length === 1 ? selected.value[0]! : null));
  /** The selection, if it is two or more shapes side by side that take part in outcomes. */
  const combinable = computed(() => {
    const able = selected.value.filter((row) => isActive(row.node) && !row.held);
    const parents = new Set(selected.value.map((row) => row.parent));
    return able.length > 1 && parents.size === 1 ? able.map((row) => row.node.id) : [];
  });

  /** What outcomes are made of: shapes side by side, or those that one live thing is made of. */
  const operands = computed(() => {
    const node = only.value?.node;
    const count = node && RETAKEN.includes(node.kind) ? childrenOf(node).length : 0;
    const again = node && count > 1 && count <= MOST_RETAKEN && !only.value?.held;
    return again ? [node.id] : combinable.value;
  });

  /** What was made of which shapes: these are selected again where it is undone. */
  const origins = new Map<string, readonly string[]>();
  function made(key: string, of: readonly string[]): void {
    origins.set(key, of);
    pick(key);
  }
  watch(
    () => rowById.value,
    (rows) => {
      const gone = picked.value.find((key) => !rows.has(key) && origins.has(key));
      if (gone) pick(...origins.get(gone)!);
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
    return at > 0 ? chain[at - 1]! : null;
  }

  function pick(...keys: string[]): void {
    picked.value = keys;
  }

  function toggle(key: string): void {
    picked.value = ids.value.includes(key)
      ? ids.value.filter((other) => other !== key)
      : [...ids.value, key];
  }

  /** The shapes that can be picked where one works, topmost first. */
  const beside = computed(() =>
    rows.value.filter(
      (row) => row.parent === (focused.value?.node.id ?? null) && !row.held && !row.dimmed,
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

  /** Works inside a group or compound. */
  function enter(key: string): void {
    focus.value = key;
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
    focused,
    rows,
    rowById,
    figureById,
    faultById,
    selected,
    figures,
    bounds,
    only,
    combinable,
    operands,
    beside,
    chainOf,
    isMoved,
    pickable,
    pick,
    made,
    toggle,
    all,
    walk,
    enter,
    leave,
  };
});
