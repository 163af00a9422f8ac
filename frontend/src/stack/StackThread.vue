<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';

import type { Node } from '@/api/types';
import { holds, staysLive, kindOf } from '@/marks/kinds';
import RoleCard from '@/stack/RoleCard.vue';
import StackRow from '@/stack/StackRow.vue';
import StrandHead from '@/stack/StrandHead.vue';
import { entriesOf, entryOf, holderOf, ROW, strandKey, threadsOf, xOf } from '@/stack/thread';
import { useDrawing } from '@/stores/drawing';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';
import { useTwins } from '@/stores/twins';

/** The stack as a thread of dots: compounds and groups branch off it like river arms. */
const SEARCHED_FROM = 12;
const EDGE = 0.28;

const drawing = useDrawing();
const selection = useSelection();
const twins = useTwins();
const unfolded = ref(new Set<string>());
const renaming = ref<string | null>(null);
const sought = ref('');
const list = ref<HTMLElement>();
/** Where dragged shapes would go: above or below a row, or into it. */
const drop = ref<{ row: Row; where: 'above' | 'below' | 'into' } | null>(null);
let dragged: string[] = [];
/** Shapes that were dropped on another, whose role there is asked for. */
const asked = ref<{ ids: string[]; row: Row } | null>(null);
const askedAt = computed(
  () => ROW * (1 + visible.value.findIndex(({ key }) => key === asked.value?.row.node.id)),
);

/** Whether what is dropped into it can do one thing or another there. */
function asksForRole(node: Node): boolean {
  return !holds(node) || (node.kind === 'compound' && !node.bundled);
}

/** Lines whose holders are all unfolded, or those that are sought. */
const visible = computed(() => {
  const wanted = sought.value.trim().toLowerCase();
  if (!wanted) return entriesOf(selection.rows, unfolded.value);
  return selection.rows.filter((row) => row.node.name.toLowerCase().includes(wanted)).map(entryOf);
});
const threads = computed(() => (sought.value ? [] : threadsOf(visible.value)));

function onPick(row: Row, event: MouseEvent): void {
  const id = row.node.id;
  const last = selection.ids.at(-1);
  const adds = event.ctrlKey || event.metaKey;
  if (event.shiftKey && adds && last) {
    // From the shape picked last to this one, all that can be seen between.
    const order = visible.value.filter((each) => !each.strand).map((each) => each.key);
    const [from, to] = [order.indexOf(last), order.indexOf(id)].sort((a, b) => a - b);
    if (from! >= 0) {
      const between = order.slice(from, to! + 1);
      selection.pick(...new Set([...selection.ids, ...between]));
      return;
    }
  }
  if (adds || event.shiftKey) selection.toggle(id);
  else selection.pick(id);
}

function fold(key: string): void {
  const next = new Set(unfolded.value);
  if (!next.delete(key)) next.add(key);
  unfolded.value = next;
}

async function rename(id: string): Promise<void> {
  renaming.value = id;
  await nextTick();
  list.value?.querySelector<HTMLInputElement>('input.name')?.select();
}

async function finishRename(row: Row, name: string | null): Promise<void> {
  if (renaming.value !== row.node.id) return;
  renaming.value = null;
  const trimmed = name?.trim();
  if (trimmed && trimmed !== row.node.name)
    await drawing.run({ kind: 'rename', id: row.node.id, name: trimmed.slice(0, 120) });
}

function set(row: Row, fields: object): void {
  void drawing.run(twins.here('set-state', { ids: [row.node.id], ...fields }));
}

/** The row that an event on the list is about. */
function rowOf(event: Event): { row: Row; box: DOMRect } | null {
  const element = (event.target as Element).closest('[data-row]');
  const row = element && selection.rowById.get(element.getAttribute('data-row')!);
  return row ? { row, box: element.getBoundingClientRect() } : null;
}

function onDragStart(event: DragEvent): void {
  const row = rowOf(event)?.row;
  if (!row) return;
  dragged = selection.ids.includes(row.node.id) ? [...selection.ids] : [row.node.id];
  event.dataTransfer!.effectAllowed = 'move';
  event.dataTransfer!.setData('text/plain', row.node.name);
}

function onDragOver(event: DragEvent): void {
  const over = rowOf(event);
  if (!over) return;
  const { row, box } = over;
  if (!dragged.length || dragged.some((id) => selection.chainOf(row.node.id).includes(id))) {
    drop.value = null;
    return;
  }
  event.preventDefault();
  const share = (event.clientY - box.top) / box.height;
  const takes = !kindOf(row.node).open;
  const where =
    share < (takes ? EDGE : 0.5) ? 'above' : takes && share < 1 - EDGE ? 'into' : 'below';
  drop.value = canGo(row, where) ? { row, where } : null;
}

/** Only pieces go among those of their whole; and they can leave it, not go into what makes it. */
function canGo(row: Row, where: 'above' | 'below' | 'into'): boolean {
  const moving = dragged.flatMap((id) => selection.rowById.get(id) ?? []);
  const isPieceOf = (each: Row, whole: string | null) =>
    each.strand === 'pieces' && each.parent === whole;
  if (row.strand === 'pieces') return moving.every((each) => isPieceOf(each, row.parent));
  const holders = where === 'into' ? row.chain : row.chain.slice(1);
  return !moving.some((each) => holders.some((key) => isPieceOf(each, key)));
}

async function onDrop(): Promise<void> {
  const to = drop.value;
  const ids = dragged;
  onDragEnd();
  if (!to) return;
  const inside = ids.every((id) => selection.rowById.get(id)?.parent === to.row.node.id);
  if (to.where === 'into' && !inside && asksForRole(to.row.node)) {
    asked.value = { ids, row: to.row };
    return;
  }
  const parent = to.where === 'into' ? to.row.node.id : (to.row.parent ?? selection.plate);
  await drawing.do('move-in-stack', { ids, parent, above: aboveOf(to, ids) });
  selection.pick(...ids);
}

/** The shape that the dropped ones come to lie on; the list has the topmost first. */
function aboveOf(to: { row: Row; where: string }, ids: string[]): string | null {
  const inner = (parent: string | null) =>
    selection.rows.filter((row) => row.parent === parent && !ids.includes(row.node.id));
  if (to.where === 'into') return inner(to.row.node.id)[0]?.node.id ?? null;
  if (to.where === 'above') return to.row.node.id;
  const stack = inner(to.row.parent);
  const at = stack.findIndex((row) => row.node.id === to.row.node.id);
  return stack[at + 1]?.node.id ?? null;
}

function onDragEnd(): void {
  dragged = [];
  drop.value = null;
}

function unfold(keys: readonly string[]): void {
  if (keys.some((key) => !unfolded.value.has(key)))
    unfolded.value = new Set([...unfolded.value, ...keys]);
}

// What is selected or worked on must be seen: what holds it unfolds.
watch([() => selection.selected, () => selection.focused], ([rows, focused]) => {
  const inHand = focused ? [...rows, focused] : rows;
  const open = inHand.flatMap((row) => row.chain.slice(1));
  const alone = focused ?? (rows.length === 1 ? rows[0]! : null);
  if (alone && staysLive(alone.node)) open.push(alone.node.id);
  unfold(open);
});
// A strand does only where one goes to it, not where shapes that are selected come to lie in it.
watch(
  [() => selection.picked, () => selection.focus, () => selection.strand],
  ([, focus, strand]) => {
    const inner = selection.selected.flatMap((row) => row.chain);
    const holders = inner.flatMap((key) => holderOf(selection.rowById.get(key)!) ?? []);
    unfold(focus ? [...holders, strandKey(focus, strand)] : holders);
    void nextTick(() => {
      const row = list.value?.querySelector(`[data-row="${selection.picked.at(-1)}"]`);
      row?.scrollIntoView({ block: 'nearest' });
    });
  },
);

defineExpose({ rename });
</script>

<template>
  <div ref="list">
    <button v-if="selection.focused" class="out" @click="selection.leave()">
      ← out of {{ selection.focused.node.name }} <kbd>Esc</kbd>
    </button>
    <input
      v-if="visible.length >= SEARCHED_FROM || sought"
      v-model="sought"
      class="seek"
      type="search"
      placeholder="Find a shape"
      aria-label="Find a shape"
      @keydown.esc.stop="sought = ''"
    />
    <div
      class="thread"
      role="list"
      aria-label="Stack, topmost first"
      @dragstart="onDragStart"
      @dragover="onDragOver"
      @drop.prevent="onDrop"
      @dragend="onDragEnd"
    >
      <svg :height="visible.length * ROW" width="100%" aria-hidden="true">
        <path
          v-for="(thread, i) in threads"
          :key="i"
          :d="thread.d"
          :class="thread.live ? 'branch' : 'main'"
        />
      </svg>
      <template v-for="{ key, row, depth, strand, count } in visible" :key="key">
        <StrandHead
          v-if="strand"
          :whole="row"
          :strand="strand"
          :count="count"
          :indent="xOf(depth) - xOf(0)"
          :folded="!unfolded.has(key)"
          @fold="fold(key)"
        />
        <StackRow
          v-else
          :row="row"
          :indent="sought ? 0 : xOf(depth) - xOf(0)"
          :folded="!unfolded.has(key)"
          :renaming="renaming === key"
          :drop="drop?.row.node.id === key ? drop.where : null"
          @pick="onPick(row, $event)"
          @fold="fold(key)"
          @rename="rename(key)"
          @renamed="finishRename(row, $event)"
          @set="set(row, $event)"
        />
      </template>
      <RoleCard
        v-if="asked"
        :key="asked.row.node.id"
        :ids="asked.ids"
        :target="asked.row.node"
        :style="{ top: `${askedAt}px` }"
        @done="asked = null"
      />
      <p v-if="!visible.length" class="empty soft">
        <template v-if="sought">No shape has “{{ sought }}” in its name.</template>
        <template v-else>
          Nothing here yet. Choose a shape above and drag on the plate, or press <kbd>1</kbd> to
          <kbd>8</kbd>.
        </template>
      </p>
    </div>
  </div>
</template>

<style scoped>
.thread {
  position: relative;
  padding-bottom: 12px;
}
svg {
  position: absolute;
  inset: 0 0 auto;
  pointer-events: none;
  z-index: 1;
}
.main,
.branch {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2;
}
.branch {
  stroke: var(--tide);
}
.seek {
  width: calc(100% - 32px);
  margin: 0 16px 6px;
  padding: 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 14px;
  background: #fff;
}
.out {
  margin: 0 16px 6px;
  color: var(--tide);
}
.empty {
  margin: 6px 20px;
  line-height: 1.5;
}
</style>
