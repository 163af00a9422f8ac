<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';

import { useDrawing } from '@/stores/drawing';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';

/** The stack as a thread of dots: a compound branches off it like a river arm. */
const ROW = 36;
const LEFT = 28;
const INDENT = 24;

const drawing = useDrawing();
const selection = useSelection();
const unfolded = ref(new Set<string>());
const renaming = ref<string | null>(null);
const renameInput = ref<HTMLInputElement[]>([]);

const x = (depth: number) => LEFT + INDENT * depth;

/** Rows whose compounds are all unfolded. */
const visible = computed(() => {
  const hidden = new Set<string>();
  return selection.rows.filter((row) => {
    const inFolded =
      row.parent !== null && (hidden.has(row.parent) || !unfolded.value.has(row.parent));
    if (inFolded) hidden.add(row.node.id);
    return !inFolded;
  });
});

interface Thread {
  d: string;
  live: boolean;
}

/** The main line, and a branch from each unfolded compound to its lowest member. */
const threads = computed<Thread[]>(() => {
  const middle = (i: number) => i * ROW + ROW / 2;
  const tops = visible.value.flatMap((row, i) => (row.depth === 0 ? [i] : []));
  const found: Thread[] = [];
  if (tops.length > 1)
    found.push({ d: `M${LEFT} ${middle(tops[0]!)}V${middle(tops.at(-1)!)}`, live: false });
  visible.value.forEach((row, i) => {
    const inside = visible.value.flatMap((other, j) => (other.parent === row.node.id ? [j] : []));
    if (!inside.length) return;
    const [from, to] = [x(row.depth), x(row.depth + 1)];
    const [begin, first, last] = [middle(i), middle(inside[0]!), middle(inside.at(-1)!)];
    const branch = `C${from} ${begin + 26} ${to} ${first - 26} ${to} ${first}`;
    found.push({ d: `M${from} ${begin}${branch}V${last}`, live: true });
  });
  return found;
});

function note(row: Row): string {
  if (row.node.kind === 'compound')
    return row.role
      ? `${row.role} · ${row.node.members.length}`
      : `live · ${row.node.members.length}`;
  return row.role ?? '';
}

function onClick(row: Row, event: MouseEvent): void {
  if (event.shiftKey || event.ctrlKey || event.metaKey) selection.toggle(row.node.id);
  else selection.pick(row.node.id);
}

function fold(row: Row): void {
  const next = new Set(unfolded.value);
  if (!next.delete(row.node.id)) next.add(row.node.id);
  unfolded.value = next;
}

async function rename(id: string): Promise<void> {
  renaming.value = id;
  await nextTick();
  renameInput.value[0]?.select();
}

async function finishRename(row: Row, event: Event): Promise<void> {
  if (renaming.value !== row.node.id) return;
  renaming.value = null;
  const name = (event.target as HTMLInputElement).value.trim();
  if (name && name !== row.node.name)
    await drawing.run({ kind: 'rename', id: row.node.id, name: name.slice(0, 120) });
}

// What is selected must be seen: its compounds unfold.
watch(
  () => selection.selected,
  (rows) => {
    const open = rows.flatMap((row) => {
      const chain: string[] = [];
      for (let at = row.parent; at; at = selection.rowById.get(at)?.parent ?? null) chain.push(at);
      if (row.node.kind === 'compound' && rows.length === 1) chain.push(row.node.id);
      return chain;
    });
    if (open.some((id) => !unfolded.value.has(id)))
      unfolded.value = new Set([...unfolded.value, ...open]);
  },
);

defineExpose({ rename });
</script>

<template>
  <div class="thread" role="list" aria-label="Stack, topmost first">
    <svg :height="visible.length * ROW" width="100%" aria-hidden="true">
      <path
        v-for="(thread, i) in threads"
        :key="i"
        :d="thread.d"
        :class="thread.live ? 'branch' : 'main'"
      />
    </svg>
    <div
      v-for="row in visible"
      :key="row.node.id"
      class="row"
      role="listitem"
      :class="{ on: selection.ids.includes(row.node.id), under: selection.hovered === row.node.id }"
      :style="{ paddingLeft: `${x(row.depth) - 24}px`, height: `${ROW}px` }"
      @pointerenter="selection.hovered = row.node.id"
      @pointerleave="selection.hovered = null"
    >
      <button
        class="dot"
        :class="{ small: row.depth, hollow: row.role === 'cuts' || !row.node.fill }"
        :style="{
          '--paint':
            row.node.kind === 'compound' && !row.role ? 'var(--tide)' : (row.node.fill ?? '#fff'),
        }"
        :aria-label="
          row.node.kind === 'compound'
            ? `${unfolded.has(row.node.id) ? 'Fold' : 'Unfold'} ${row.node.name}`
            : `Select ${row.node.name}`
        "
        :aria-expanded="row.node.kind === 'compound' ? unfolded.has(row.node.id) : undefined"
        @click="row.node.kind === 'compound' ? fold(row) : onClick(row, $event)"
      />
      <input
        v-if="renaming === row.node.id"
        ref="renameInput"
        class="name"
        :value="row.node.name"
        :aria-label="`New name of ${row.node.name}`"
        maxlength="120"
        @keydown.enter="finishRename(row, $event)"
        @keydown.esc.stop="renaming = null"
        @blur="finishRename(row, $event)"
      />
      <button
        v-else
        class="name"
        :aria-pressed="selection.ids.includes(row.node.id)"
        :title="`${row.node.name} (double-click or F2 to rename)`"
        @click="onClick(row, $event)"
        @dblclick="rename(row.node.id)"
      >
        {{ row.node.name }}
      </button>
      <span
        class="note"
        :class="{ cuts: row.role === 'cuts', live: row.node.kind === 'compound' && !row.role }"
      >
        {{ note(row) }}
      </span>
    </div>
    <p v-if="!visible.length" class="empty soft">
      Nothing here yet. Choose a shape above and drag on the plate, or press <kbd>1</kbd> to
      <kbd>4</kbd>.
    </p>
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
.row {
  position: relative;
  display: flex;
  align-items: center;
  margin: 0 8px;
  padding-right: 14px;
  border-block: 1px solid transparent;
  border-radius: 18px;
  background-clip: padding-box;
}
.row.under {
  background-color: #f5eee1;
}
.row.on {
  background-color: var(--chosen);
}
.dot {
  position: relative;
  z-index: 2;
  flex: none;
  width: 16px;
  height: 16px;
  margin: 0 6px 0 8px;
  border-radius: 50%;
  background: var(--paint);
  box-shadow: inset 0 0 0 1px rgb(34 48 60 / 25%);
}
.dot.small {
  width: 14px;
  height: 14px;
  margin: 0 7px 0 9px;
}
.dot.hollow {
  background: var(--card);
  box-shadow: inset 0 0 0 2px var(--ink);
}
.name {
  flex: 1;
  min-width: 0;
  height: 100%;
  padding: 0 8px;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
input.name {
  height: 26px;
  background: #fff;
  border: 1px solid var(--tide);
  border-radius: 8px;
  outline: none;
}
.on button.name {
  font-weight: 600;
}
.note {
  flex: none;
  font-size: 11px;
  color: var(--soft);
}
.note.live {
  color: var(--tide);
}
.note.cuts {
  color: var(--clay);
}
.empty {
  margin: 6px 20px;
  line-height: 1.5;
}
</style>
