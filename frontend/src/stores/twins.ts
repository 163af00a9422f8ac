import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';

import type { Command, Node } from '@/api/types';
import type { Fields } from '@/marks/commands';
import { commandOf } from '@/marks/commands';
import { useDrawing } from '@/stores/drawing';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';

type Own = Extract<Node, { kind: 'twin' }>['own_paint'][number];
/** What can be done in one twin alone. */
type Here = 'paint' | 'set-state';

/** The twins of the drawing, and whether what is done inside one is done in that one alone. */
export const useTwins = defineStore('twins', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const onlyHere = ref(false);

  /** Whether all that is selected lies inside twins. */
  const inside = computed(
    () => selection.ids.length > 0 && selection.selected.every((row) => roundOf(row) !== null),
  );
  watch(inside, (still) => (onlyHere.value &&= still));

  /** The outermost twin that a shape lies in. */
  function roundOf(row: Row): Row | null {
    const above = row.chain.slice(1).map((key) => selection.rowById.get(key)!);
    return above.reverse().find((each) => each.node.kind === 'twin') ?? null;
  }

  /** The twin, or the copy of a repeat, that a shape is or lies in. */
  function followerOf(row: Row): Row | null {
    const above = row.chain.map((key) => selection.rowById.get(key)!);
    return above.find((each) => each.node.kind === 'twin') ?? null;
  }

  /** The repeat of which a shape is a copy, or lies in one. */
  function repeatOf(row: Row): Row | null {
    const parent = followerOf(row)?.parent;
    const above = parent ? selection.rowById.get(parent) : null;
    return above?.node.kind === 'repeat' ? above : null;
  }

  function isCopy(row: Row): boolean {
    return row.node.kind === 'twin' && repeatOf(row) !== null;
  }

  /** The source that a shape follows: as a twin, or as what lies inside one. */
  function sourceOf(row: Row): string | null {
    const twin = followerOf(row)?.node;
    return twin?.kind === 'twin' && !repeatOf(row) ? twin.source : null;
  }

  /** What of a shape is its twin's own: of a twin all that is, or of a shape inside one. */
  function ownOf(row: Row): readonly Own[] {
    if (row.node.kind === 'twin') return row.node.own_paint;
    const twin = roundOf(row)?.node;
    if (twin?.kind !== 'twin') return [];
    return twin.own_paint.filter(({ node }) => row.node.id === `${twin.id}:${node}`);
  }

  function nameOf(source: string): string {
    return drawing.sources[source]?.name ?? '';
  }

  /** The twins of a source on this plate, the lowest first. */
  function of(source: string): Row[] {
    return selection.rows.filter(({ node }) => node.kind === 'twin' && node.source === source);
  }

  /** The twins beside the one that the pointer is over: all light up. */
  const alike = computed(() => {
    const node = selection.hovered ? selection.rowById.get(selection.hovered)?.node : null;
    return node?.kind === 'twin' && drawing.sources[node.source]
      ? of(node.source)
          .map((row) => row.node.id)
          .filter((key) => key !== node.id)
      : [];
  });

  /** A command, or the same of the twin in hand alone. */
  function here<K extends Here>(kind: K, fields: Fields<K>): Command {
    const command = commandOf(kind, fields) as Extract<Command, { kind: Here }>;
    return onlyHere.value && inside.value ? { kind: 'only-here', command } : command;
  }

  return { onlyHere, inside, alike, roundOf, repeatOf, isCopy, sourceOf, ownOf, nameOf, of, here };
});
