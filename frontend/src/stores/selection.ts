import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';

import type { Figure, Node, Role } from '@/api/types';
import { useDrawing } from '@/stores/drawing';

/** A node somewhere in the stack of the plate. */
export interface Row {
  node: Node;
  depth: number;
  /** The node directly on the plate that it is, or lies in. */
  top: string;
  parent: string | null;
  role: Role | null;
}

function rowsOf(node: Node, depth: number, top: string, parent: string | null, role: Role | null) {
  const rows: Row[] = [{ node, depth, top, parent, role }];
  if (node.kind === 'compound')
    for (const member of [...node.members].reverse())
      rows.push(...rowsOf(member.node as Node, depth + 1, top, node.id, member.role));
  return rows;
}

/** The plate in hand, what is selected on it, and what the pointer is over. */
export const useSelection = defineStore('selection', () => {
  const drawing = useDrawing();
  const plate = ref('');
  const picked = ref<readonly string[]>([]);
  const hovered = ref<string | null>(null);

  /** All nodes of the plate, topmost first, members after their compound. */
  const rows = computed<Row[]>(() => {
    const head = drawing.shown.heads[plate.value];
    if (!head) return [];
    return [...head.nodes]
      .reverse()
      .map((key) => drawing.shown.nodes[key])
      .filter((node) => node !== undefined)
      .flatMap((node) => rowsOf(node, 0, node.id, null, null));
  });

  const rowById = computed(() => new Map(rows.value.map((row) => [row.node.id, row])));
  const figureById = computed(() => {
    const found = new Map<string, Figure>();
    for (const key of drawing.shown.heads[plate.value]?.nodes ?? [])
      for (const figure of drawing.shown.figures[key] ?? []) found.set(figure.id, figure);
    return found;
  });

  const ids = computed(() => picked.value.filter((key) => rowById.value.has(key)));
  const selected = computed(() => ids.value.map((key) => rowById.value.get(key)!));
  const only = computed(() => (selected.value.length === 1 ? selected.value[0]! : null));
  /** The selection, if it is two or more shapes directly on the plate. */
  const combinable = computed(() =>
    selected.value.length > 1 && selected.value.every((row) => row.depth === 0)
      ? selected.value.map((row) => row.node.id)
      : [],
  );

  function pick(...keys: string[]): void {
    picked.value = keys;
  }

  function toggle(key: string): void {
    picked.value = ids.value.includes(key)
      ? ids.value.filter((other) => other !== key)
      : [...ids.value, key];
  }

  function all(): void {
    picked.value = [...(drawing.heads[plate.value]?.nodes ?? [])];
  }

  watch(
    () => drawing.plates,
    (plates) => {
      if (!plates.includes(plate.value)) plate.value = plates[0] ?? '';
    },
    { immediate: true },
  );
  watch(plate, () => pick());

  return {
    plate,
    ids,
    hovered,
    rows,
    rowById,
    figureById,
    selected,
    only,
    combinable,
    pick,
    toggle,
    all,
  };
});
