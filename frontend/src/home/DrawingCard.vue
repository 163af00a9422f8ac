<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';
import { RouterLink } from 'vue-router';

import type { DrawingCard } from '@/api/types';
import CarryCollections from '@/home/CarryCollections.vue';
import PathPicture from '@/look/PathPicture.vue';
import { when } from '@/look/when';
import { useShelf } from '@/stores/shelf';

/** A drawing as a card: pictures of its first plates, its name, what can be done with it. */
const props = defineProps<{ card: DrawingCard }>();
const emit = defineEmits<{ rename: [name: string]; duplicate: []; remove: [] }>();

const SHOWN = 3;
const shelf = useShelf();
const renaming = ref(false);
const carrying = ref(false);
const input = ref<HTMLInputElement>();

const plates = computed(() => props.card.plates.slice(0, SHOWN));
async function startRename(): Promise<void> {
  renaming.value = true;
  await nextTick();
  // After the menu has given the focus back.
  setTimeout(() => input.value?.select(), 50);
}

function rename(): void {
  if (!renaming.value) return;
  renaming.value = false;
  const name = input.value?.value.trim();
  if (name && name !== props.card.name) emit('rename', name);
}
</script>

<template>
  <article class="card">
    <RouterLink class="plates" :to="`/drawing/${card.id}`" :aria-label="`Open ${card.name}`">
      <PathPicture
        v-for="plate in plates"
        :key="plate.id"
        :pieces="plate.pieces"
        :box="{ x0: 0, y0: 0, x1: plate.width, y1: plate.height }"
      />
    </RouterLink>
    <div class="foot">
      <input
        v-if="renaming"
        ref="input"
        :value="card.name"
        aria-label="New name"
        maxlength="120"
        @keydown.enter="rename"
        @keydown.esc="renaming = false"
        @blur="rename"
      />
      <b v-else :title="card.name">{{ card.name }}</b>
      <span class="mono soft">
        {{ card.plates.length }} {{ card.plates.length === 1 ? 'plate' : 'plates' }} ·
        {{ when(card.changed_at) }}
      </span>
      <v-menu location="top end">
        <template #activator="{ props: activator }">
          <button v-bind="activator" class="more" :aria-label="`More for ${card.name}`">⋮</button>
        </template>
        <v-list density="compact" rounded="lg">
          <v-list-item title="Rename" @click="startRename" />
          <v-list-item title="Duplicate" @click="emit('duplicate')" />
          <v-list-item title="Save to a file" :href="`/api/drawings/${card.id}/file`" download />
          <v-list-item
            v-if="shelf.collections.length"
            title="Save with collections…"
            @click="carrying = true"
          />
          <v-list-item title="Delete" @click="emit('remove')" />
        </v-list>
      </v-menu>
    </div>
    <v-dialog v-model="carrying">
      <CarryCollections :card="card" @close="carrying = false" />
    </v-dialog>
  </article>
</template>

<style scoped>
.card {
  border: 1px solid var(--rule);
  border-radius: 20px;
  background: var(--card);
  overflow: hidden;
}
.card:hover {
  border-color: var(--soft);
}
.plates {
  display: flex;
  align-items: center;
  justify-content: center;
  gap: 10px;
  height: 196px;
  padding: 18px;
  background: #fff;
  border-bottom: 1px solid var(--rule);
}
.plates:focus-visible {
  outline-offset: -4px;
}
.plates svg {
  flex: 0 1 150px;
  min-width: 0;
  height: 100%;
}
.foot {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 10px 10px 10px 18px;
}
b,
input {
  flex: 1;
  min-width: 0;
  font-size: 16px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
input {
  padding: 0 6px;
  border: 1px solid var(--tide);
  border-radius: 8px;
  background: #fff;
  outline: none;
}
.more {
  width: 28px;
  height: 28px;
  border-radius: 50%;
  font-size: 16px;
}
.more:hover {
  background: var(--chosen);
}
</style>
