<script setup lang="ts">
import { nextTick, ref } from 'vue';

import type { CollectionOnShelf, ShelfChange } from '@/api/types';
import { useNotices } from '@/stores/notices';
import { useShelf } from '@/stores/shelf';

/** Collections and their sections: chosen, made, renamed, put in order, deleted. */
const props = defineProps<{ picked: readonly string[] }>();
const emit = defineEmits<{ moved: [] }>();
const chosen = defineModel<string>({ required: true });

const shelf = useShelf();
const notices = useNotices();
const renaming = ref('');
const tree = ref<HTMLElement>();

interface Row {
  what: 'collection' | 'section';
  id: string;
  name: string;
  count: number;
  collection: CollectionOnShelf;
  /** Its place among its like. */
  index: number;
}

function rows(): Row[] {
  return shelf.collections.flatMap((collection, index) => [
    {
      what: 'collection' as const,
      id: collection.id,
      name: collection.name,
      count: collection.sections.reduce((sum, section) => sum + section.assets.length, 0),
      collection,
      index,
    },
    ...collection.sections.map((section, place) => ({
      what: 'section' as const,
      id: section.id,
      name: section.name,
      count: section.assets.length,
      collection,
      index: place,
    })),
  ]);
}

/** Adds something and lets its name be typed. */
async function add(change: ShelfChange): Promise<void> {
  const before = new Set(rows().map((row) => row.id));
  if (!(await shelf.change(change))) return;
  const fresh = rows().find((row) => !before.has(row.id));
  if (fresh) await rename(fresh.id);
}

async function rename(id: string): Promise<void> {
  renaming.value = id;
  await nextTick();
  // After a menu has given the focus back.
  setTimeout(() => tree.value?.querySelector('input')?.select(), 50);
}

async function named(row: Row, event: Event): Promise<void> {
  if (renaming.value !== row.id) return;
  renaming.value = '';
  const name = (event.target as HTMLInputElement).value.trim();
  if (name && name !== row.name)
    await shelf.change({ kind: 'rename', what: row.what, id: row.id, name });
}

function move(row: Row, by: number): void {
  const into = row.what === 'section' ? row.collection.id : null;
  void shelf.change({ kind: 'move', what: row.what, ids: [row.id], into, index: row.index + by });
}

async function remove(row: Row): Promise<void> {
  if (!(await shelf.change({ kind: 'delete', what: row.what, ids: [row.id] }))) return;
  if (chosen.value === row.id) chosen.value = '';
  notices.say(
    `${row.name} was deleted, with ${row.count} ${row.count === 1 ? 'asset' : 'assets'}.`,
    {
      label: 'Undo',
      run: () => void shelf.undo(),
    },
  );
}

async function drop(row: Row): Promise<void> {
  const section = row.what === 'section' ? row.id : row.collection.sections[0]?.id;
  if (!section || !props.picked.length) return;
  const ids = [...props.picked];
  if (await shelf.change({ kind: 'move', what: 'asset', ids, into: section, index: 0 }))
    emit('moved');
}
</script>

<template>
  <nav ref="tree" class="tree" aria-label="Collections">
    <button class="row all" :class="{ on: !chosen }" @click="chosen = ''">
      Everything <span class="mono soft">{{ shelf.assets.length }}</span>
    </button>
    <div
      v-for="row in rows()"
      :key="row.id"
      class="line"
      :class="[row.what, { on: chosen === row.id }]"
      @dragover.prevent
      @drop.prevent="drop(row)"
    >
      <input
        v-if="renaming === row.id"
        :value="row.name"
        :aria-label="`Name of the ${row.what}`"
        maxlength="120"
        @keydown.enter="named(row, $event)"
        @keydown.esc.stop="renaming = ''"
        @blur="named(row, $event)"
      />
      <button
        v-else
        class="row"
        :title="`${row.name} (F2 renames)`"
        @click="chosen = row.id"
        @dblclick="rename(row.id)"
        @keydown.f2.prevent="rename(row.id)"
      >
        <i class="dot" />
        <span class="name">{{ row.name }}</span>
        <span class="mono soft">{{ row.count }}</span>
      </button>
      <v-menu location="bottom end">
        <template #activator="{ props: activator }">
          <button v-bind="activator" class="more" :aria-label="`More for ${row.name}`">⋮</button>
        </template>
        <v-list density="compact" rounded="lg">
          <v-list-item title="Rename" @click="rename(row.id)" />
          <v-list-item
            v-if="row.what === 'collection'"
            title="Add a section"
            @click="add({ kind: 'add-section', collection: row.id, name: 'New section' })"
          />
          <slot v-if="row.what === 'collection'" name="more" :collection="row.collection" />
          <v-list-item title="Move up" :disabled="row.index === 0" @click="move(row, -1)" />
          <v-list-item
            title="Move down"
            :disabled="
              row.index + 1 ===
              (row.what === 'section' ? row.collection.sections : shelf.collections).length
            "
            @click="move(row, 1)"
          />
          <v-list-item title="Delete" @click="remove(row)" />
        </v-list>
      </v-menu>
    </div>
    <button
      class="add"
      @click="add({ kind: 'add-collection', name: 'New collection', sections: ['All'] })"
    >
      + collection
    </button>
    <slot name="foot" />
  </nav>
</template>

<style scoped>
.tree {
  padding: 16px 10px;
  overflow-y: auto;
  background: var(--card);
  border-right: 1px solid var(--rule);
}
.line {
  display: flex;
  align-items: center;
  border-radius: 12px;
}
.line:hover,
.on {
  background: var(--chosen);
}
.row {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: center;
  min-width: 0;
  padding: 6px 8px;
  text-align: left;
}
.all {
  justify-content: space-between;
  width: 100%;
  border-radius: 12px;
}
.name {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.collection {
  margin-top: 8px;
}
.collection .name {
  font-weight: 600;
}
.dot {
  flex: none;
  width: 9px;
  height: 9px;
  border-radius: 50%;
  background: var(--tide);
}
.section .row {
  padding-left: 22px;
}
.section .dot {
  width: 6px;
  height: 6px;
  background: var(--soft);
}
input {
  flex: 1;
  min-width: 0;
  margin: 3px 4px;
  padding: 2px 8px;
  border: 1px solid var(--tide);
  border-radius: 10px;
  background: #fff;
  outline: none;
}
.more {
  width: 26px;
  height: 26px;
  border-radius: 50%;
  opacity: 0.5;
}
.line:hover .more,
.more:focus-visible {
  opacity: 1;
}
.add {
  display: block;
  margin: 12px 8px 8px;
  color: var(--tide);
}
</style>
