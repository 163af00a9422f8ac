<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { Outcome, Tile, Tiles } from '@/api/types';
import OutcomeTile from '@/strip/OutcomeTile.vue';
import { OUTCOME_WORDS } from '@/strip/outcomes';
import { latestWins } from '@/stores/latestWins';
import { newId, useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** What can be done now with what is selected, as pictures. */
const emit = defineEmits<{ keep: [] }>();

const drawing = useDrawing();
const selection = useSelection();
const view = useView();
const tiles = ref<Tiles | null>(null);
const row = ref<HTMLElement>();

const outcomes = latestWins(
  (ids: string[]) =>
    answered(
      client.POST('/api/drawings/{drawing_id}/outcomes', {
        params: { path: { drawing_id: drawing.id } },
        body: { revision: drawing.revision, plate: selection.plate, ids },
      }),
    ),
  (found) => (tiles.value = found),
);

watch(
  () => [selection.combinable.join(), drawing.revision],
  () => {
    outcomes.cancel();
    view.outcome = null;
    if (selection.combinable.length > 1) outcomes.ask(selection.combinable);
    else tiles.value = null;
  },
  { immediate: true },
);
onScopeDispose(() => outcomes.cancel());

const lonely = computed(() => (selection.only?.depth === 0 ? selection.only : null));

function show(tile: Tile): void {
  if (tile.path) view.outcome = { path: tile.path, fill: tile.fill ?? 'none' };
}

async function take(outcome: Outcome): Promise<void> {
  const tile = tiles.value?.tiles.find((other) => other.outcome === outcome);
  const ids = selection.combinable;
  if (ids.length < 2 || (tile && !tile.path)) return;
  view.outcome = null;
  const id = newId();
  const name = OUTCOME_WORDS[outcome].result;
  if (await drawing.run({ kind: 'combine', ids, outcome, id, name })) selection.pick(id);
}

async function sameCentre(): Promise<void> {
  const ids = [...selection.ids];
  if (ids.length > 1) await drawing.run({ kind: 'same-centre', ids });
}

function step(event: KeyboardEvent, by: number): void {
  const buttons = [...row.value!.querySelectorAll<HTMLButtonElement>('button.tile')];
  const at = buttons.indexOf(event.target as HTMLButtonElement);
  buttons[(at + by + buttons.length) % buttons.length]?.focus();
}

defineExpose({ take, sameCentre });
</script>

<template>
  <div class="strip" role="toolbar" aria-label="Action strip">
    <template v-if="selection.selected.length > 1">
      <div class="count soft">
        {{ selection.selected.length }} shapes<br />
        <template v-if="tiles">{{ tiles.nodes }} nodes</template>
      </div>
      <div
        ref="row"
        class="tiles"
        @keydown.right.prevent="step($event, 1)"
        @keydown.left.prevent="step($event, -1)"
        @pointerleave="view.outcome = null"
        @focusout="view.outcome = null"
      >
        <OutcomeTile
          v-for="tile in selection.combinable.length > 1 ? (tiles?.tiles ?? []) : []"
          :key="tile.outcome"
          :tile="tile"
          :box="tiles!.box"
          :words="OUTCOME_WORDS[tile.outcome]"
          @show="show(tile)"
          @hide="view.outcome = null"
          @take="take(tile.outcome)"
        />
        <button
          class="tile centre"
          title="Same centre on both axes; the shape picked first stays ( . )"
          @click="sameCentre"
        >
          <svg viewBox="0 0 62 58" fill="none" aria-hidden="true">
            <circle cx="31" cy="29" r="22" />
            <circle cx="31" cy="29" r="12" />
            <circle cx="31" cy="29" r="3" class="dot" />
          </svg>
          <b>Same centre</b>
          <small class="mono">key .</small>
        </button>
      </div>
    </template>
    <template v-else-if="lonely">
      <div class="count soft">
        {{ lonely.node.name }}<br />{{ selection.figureById.get(lonely.node.id)?.node_count }} nodes
      </div>
      <button class="tile keep" title="Keep this shape under a name" @click="emit('keep')">
        <svg viewBox="0 0 62 58" fill="none" aria-hidden="true">
          <path d="M9 46h44M17 46V31M31 46V18M45 46V34" />
          <circle cx="17" cy="27" r="4.5" class="dot" />
          <circle cx="31" cy="14" r="4.5" class="dot" />
          <circle cx="45" cy="30" r="4.5" class="dot" />
        </svg>
        <b>Put on shelf</b>
        <small class="mono">under a name</small>
      </button>
      <p class="soft advice">
        Shift-click a second shape, and every way to combine the two appears here as a picture.
      </p>
    </template>
    <p v-else-if="selection.only" class="soft advice">
      <b>{{ selection.only.node.name }}</b> is a member of
      <b>{{ selection.rowById.get(selection.only.parent!)?.node.name }}</b>. Drag it, or change its
      numbers and its role: the mark follows.
    </p>
    <p v-else class="soft advice">
      Click a shape to select it, Shift-click to select several: what they can become appears here.
    </p>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  gap: 9px;
  align-items: stretch;
  padding: 10px 14px;
  background: var(--card);
  border-top: 1px solid var(--rule);
  overflow-x: auto;
}
.count {
  flex: none;
  width: 62px;
  align-self: center;
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.tiles {
  display: flex;
  gap: 9px;
}
.advice {
  align-self: center;
  max-width: 46ch;
  margin: 0 12px;
  line-height: 1.5;
}
.advice b {
  color: var(--ink);
  font-weight: 500;
}
.centre svg,
.keep svg {
  stroke: var(--moss);
  stroke-width: 2;
}
.keep svg {
  stroke: var(--ink);
}
.centre .dot {
  fill: var(--moss);
  stroke: none;
}
.keep .dot {
  fill: var(--clay);
  stroke: none;
}
</style>

<style>
.strip .tile {
  flex: none;
  width: 90px;
  display: flex;
  flex-direction: column;
  align-items: center;
  padding: 6px 5px 5px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
}
.strip .tile svg {
  flex: 1;
  min-height: 0;
  width: 66px;
}
.strip .tile b {
  font-weight: 500;
  font-size: 12.5px;
  line-height: 1.25;
  white-space: nowrap;
}
.strip .tile small {
  color: var(--soft);
  font-size: 10px;
  line-height: 1.4;
  white-space: nowrap;
}
.strip .tile:hover:not(:disabled),
.strip .tile:focus-visible {
  border-color: var(--clay);
  box-shadow: 0 0 0 1.5px var(--clay);
  outline: none;
}
.strip .tile:disabled {
  background: transparent;
  border-style: dashed;
  color: var(--soft);
  cursor: default;
}
</style>
