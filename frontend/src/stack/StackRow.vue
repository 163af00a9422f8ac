<script setup lang="ts">
import { computed } from 'vue';

import type { Node } from '@/api/types';
import { childrenOf, holds, staysLive, kindOf, paintOf } from '@/marks/kinds';
import { matrixOf } from '@/marks/matrix';
import { cssOf } from '@/marks/paint';
import { ROW } from '@/stack/thread';
import { useActions } from '@/stores/actions';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';
import { useTwins } from '@/stores/twins';

/** One shape of the stack: its dot, its name, what it is, and what can be switched. */
const props = defineProps<{
  row: Row;
  indent: number;
  folded: boolean;
  renaming: boolean;
  drop: 'above' | 'below' | 'into' | null;
}>();
const emit = defineEmits<{
  pick: [event: MouseEvent];
  fold: [];
  rename: [];
  renamed: [name: string | null];
  set: [fields: { visible?: boolean; locked?: boolean }];
}>();

const selection = useSelection();
const actions = useActions();
const twins = useTwins();

const node = computed(() => props.row.node);
const isHolder = computed(() => holds(node.value) || childrenOf(node.value).length > 0);
const isLive = computed(() => staysLive(node.value));
/** What it does to the others, where it is the one that holds or cuts them. */
const part = computed(() => {
  const above = props.row.parent ? selection.rowById.get(props.row.parent)?.node : null;
  if (props.row.strand === 'pieces')
    return matrixOf(node.value.transform).isIdentity ? null : 'moved';
  if (above?.kind === 'clip' && above.holder.id === node.value.id) return 'holds them';
  if (above?.kind === 'compound' && above.bundled)
    return selection.figureById.get(above.id)?.holes?.includes(node.value.id) ? 'hole' : 'outer';
  return above?.kind === 'parts' && above.cutter.id === node.value.id ? 'cuts' : null;
});
const chosen = computed(() => selection.chosen.has(node.value.id));
const under = computed(() => selection.hovered === node.value.id);
/** Whether it is a twin of the one that the pointer is over. */
const alike = computed(() => twins.alike.includes(node.value.id));
const hidden = computed(() => node.value.visible === false);
/** What cannot be shown: the shape itself, or one of those folded into it. */
const faulty = computed(() => firstFaulty(node.value, props.folded));
const fault = computed(() => faulty.value && selection.faultById.get(faulty.value.id));

function firstFaulty(shape: Node, within: boolean): Node | undefined {
  if (selection.faultById.has(shape.id)) return shape;
  const inner = within ? childrenOf(shape) : [];
  return inner.map(({ node }) => firstFaulty(node, true)).find(Boolean);
}

const note = computed(() => {
  if (faulty.value === node.value) return 'cannot be shown';
  if (faulty.value) return `${faulty.value.name} cannot be shown`;
  const said: string[] = [];
  if (props.row.role) said.push(props.row.role);
  else if (part.value) said.push(part.value);
  else if (node.value.kind === 'parts') said.push(node.value.outcome);
  else if (node.value.kind === 'compound' && node.value.bundled) said.push('bundle');
  else if (node.value.kind !== 'twin' && kindOf(node.value).word)
    said.push(kindOf(node.value).word);
  if (node.value.kind === 'repeat')
    said.push(`${node.value.copies.length} × ${node.value.layout.kind}`);
  if (node.value.kind === 'twin' && !twins.isCopy(props.row))
    said.push(`of ${twins.nameOf(node.value.source)}`);
  if (twins.ownOf(props.row).length) said.push('own paint');
  const { length } = ['twin', 'repeat'].includes(node.value.kind) ? [] : childrenOf(node.value);
  if (length) said.push(String(length));
  if (node.value.refinements.some(({ on }) => on)) said.push('refined');
  if (node.value.guide) said.push('guide');
  return said.join(' · ');
});

/** Dots show the shape's own paint, of what is only a line as a ring. */
const paint = computed(() => {
  const { fill, lines } = paintOf(node.value).look;
  return cssOf(fill) ?? cssOf(lines[0]?.paint ?? null) ?? 'var(--card)';
});
const hollow = computed(() => props.row.role === 'cuts' || !paintOf(node.value).look.fill);
</script>

<template>
  <div
    class="row"
    role="listitem"
    :data-row="node.id"
    draggable="true"
    :class="[
      drop,
      {
        on: chosen,
        under,
        alike,
        takes: drop === 'into',
        dim: row.dimmed,
      },
    ]"
    :style="{ paddingLeft: `${indent + 4}px`, height: `${ROW}px` }"
    @pointerenter="selection.hovered = node.id"
    @pointerleave="selection.hovered = null"
  >
    <button
      class="dot"
      :class="{
        small: row.depth,
        hollow,
        guide: node.guide,
        twin: node.kind === 'twin' && !twins.isCopy(row),
      }"
      :style="{ '--paint': paint }"
      :aria-label="isHolder ? `${folded ? 'Unfold' : 'Fold'} ${node.name}` : `Select ${node.name}`"
      :aria-expanded="isHolder ? !folded : undefined"
      @click="isHolder ? emit('fold') : emit('pick', $event)"
    />
    <input
      v-if="renaming"
      class="name"
      :value="node.name"
      :aria-label="`New name of ${node.name}`"
      maxlength="120"
      @keydown.enter="emit('renamed', ($event.target as HTMLInputElement).value)"
      @keydown.esc.stop="emit('renamed', null)"
      @blur="emit('renamed', ($event.target as HTMLInputElement).value)"
    />
    <button
      v-else
      class="name"
      :aria-pressed="chosen"
      :title="`${node.name} (double-click or F2 to rename)`"
      @click="emit('pick', $event)"
      @dblclick="emit('rename')"
    >
      {{ node.name }}
    </button>
    <button
      v-if="row.role && !fault"
      class="note role"
      :class="{ cuts: row.role === 'cuts' }"
      :aria-label="`${node.name} ${row.role}: change its role`"
      title="what it does to all below it; click for the next role (Shift+R)"
      @click="actions.nextRole([row])"
    >
      {{ note }}
    </button>
    <span
      v-else
      class="note"
      :class="{ live: isLive, guide: node.guide, fault }"
      :title="fault ?? undefined"
    >
      {{ note }}
    </span>
    <span class="switches">
      <button
        :class="{ set: hidden }"
        :aria-label="`${hidden ? 'Show' : 'Hide'} ${node.name}`"
        :title="hidden ? 'hidden: click to show (H)' : 'hide (H)'"
        @click="emit('set', { visible: hidden })"
      >
        <svg viewBox="0 0 16 16" aria-hidden="true">
          <path d="M1.5 8C4 4.2 12 4.2 14.5 8 12 11.8 4 11.8 1.5 8z" />
          <circle cx="8" cy="8" r="1.8" />
          <path v-if="hidden" d="M2.5 13.5l11-11" />
        </svg>
      </button>
      <button
        :class="{ set: node.locked }"
        :aria-label="`${node.locked ? 'Unlock' : 'Lock'} ${node.name}`"
        :title="node.locked ? 'locked: click to unlock (L)' : 'lock (L)'"
        @click="emit('set', { locked: !node.locked })"
      >
        <svg viewBox="0 0 16 16" aria-hidden="true">
          <rect x="3" y="7" width="10" height="7" rx="2" />
          <path
            :d="node.locked ? 'M5.2 7V5a2.8 2.8 0 0 1 5.6 0v2' : 'M5.2 7V4.4a2.8 2.8 0 0 1 5.4-1'"
          />
        </svg>
      </button>
    </span>
  </div>
</template>

<style scoped>
.row {
  position: relative;
  display: flex;
  align-items: center;
  margin: 0 8px;
  padding-right: 10px;
  border-block: 1px solid transparent;
  border-radius: 18px;
  background-clip: padding-box;
}
.row.under,
.row.alike {
  background-color: #f5eee1;
}
.row.on {
  background-color: var(--chosen);
}
.row.above {
  box-shadow: 0 -2px 0 var(--clay);
}
.row.below {
  box-shadow: 0 2px 0 var(--clay);
}
.row.into {
  box-shadow: inset 0 0 0 2px var(--clay);
}
.row.takes::after {
  content: 'into it';
  position: absolute;
  right: 12px;
  padding: 1px 8px;
  border-radius: 9px;
  background: var(--clay);
  color: #fff;
  font-size: 11px;
}
.dim .name,
.dim .dot {
  opacity: 0.45;
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
  background: radial-gradient(circle closest-side, var(--card) 56%, transparent 64%), var(--paint);
}
.dot.guide {
  background: var(--card);
  box-shadow: none;
  border: 1.5px dashed var(--moss);
}
/* A second dot that goes along. */
.dot.twin::after {
  content: '';
  position: absolute;
  right: -4px;
  bottom: -3px;
  width: 8px;
  height: 8px;
  border: 1.5px solid var(--card);
  border-radius: 50%;
  background: var(--tide);
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
.role:hover {
  text-decoration: underline;
}
.note.live {
  color: var(--tide);
}
.note.guide {
  color: var(--moss);
}
.note.cuts,
.note.fault {
  color: var(--clay);
}
.switches {
  display: flex;
  flex: none;
}
.switches button {
  width: 0;
  overflow: hidden;
  opacity: 0;
}
.row:hover .switches button,
.row:focus-within .switches button,
.switches button.set {
  width: 21px;
  padding-left: 5px;
  opacity: 1;
}
.switches svg {
  display: block;
  width: 16px;
  height: 16px;
  fill: none;
  stroke: var(--soft);
  stroke-width: 1.3;
}
.switches button:hover svg,
.switches .set svg {
  stroke: var(--ink);
}
</style>
