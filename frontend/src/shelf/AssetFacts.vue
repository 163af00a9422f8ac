<script setup lang="ts">
import { computed, ref, watch } from 'vue';

import type { AssetOnShelf } from '@/api/types';
import { shortNumber } from '@/marks/numbers';
import AssetThumb from '@/shelf/AssetThumb.vue';
import { useShelf } from '@/stores/shelf';

/** What is to be known of the picked assets, and what can be done with them. */
const props = defineProps<{ assets: readonly AssetOnShelf[] }>();
const emit = defineEmits<{ remove: [] }>();

const shelf = useShelf();
const only = computed(() => (props.assets.length === 1 ? props.assets[0]! : null));
const ids = computed(() => props.assets.map((asset) => asset.id));
const fresh = ref('');
/** Tags that any of them has; those of all are shown full. */
const tags = computed(() => {
  const every = props.assets.map((asset) => asset.tags);
  return [...new Set(every.flat())].map((tag) => ({
    tag,
    all: every.every((each) => each.includes(tag)),
  }));
});
const size = computed(() => {
  const box = only.value && shelf.pictures.get(only.value.id)?.box;
  return box ? `${shortNumber(box.x1 - box.x0)} × ${shortNumber(box.y1 - box.y0)}` : '';
});
watch(ids, () => (fresh.value = ''));

function rename(event: Event): void {
  const name = (event.target as HTMLInputElement).value.trim();
  if (only.value && name && name !== only.value.name)
    void shelf.change({ kind: 'rename', what: 'asset', id: only.value.id, name });
}

async function addTags(): Promise<void> {
  const add = fresh.value.split(/[\s,]+/).filter(Boolean);
  if (add.length && (await shelf.change({ kind: 'tag', ids: ids.value, add, remove: [] })))
    fresh.value = '';
}

function move(event: Event): void {
  const into = (event.target as HTMLSelectElement).value;
  void shelf.change({ kind: 'move', what: 'asset', ids: ids.value, into, index: 0 });
}
</script>

<template>
  <aside class="facts" aria-label="Facts">
    <p v-if="!assets.length" class="soft">
      Click an asset to name and tag it. Ctrl-click or Shift-click picks several; drag them to
      another section, or between others.
    </p>
    <template v-else>
      <AssetThumb v-if="only" :key="only.id" class="large" :asset="only" />
      <label v-if="only">
        name
        <input :key="only.id" :value="only.name" maxlength="120" @change="rename" />
      </label>
      <b v-else>{{ assets.length }} assets</b>
      <p v-if="size" class="mono soft">{{ size }}</p>
      <div class="tags">
        <button
          v-for="{ tag, all } in tags"
          :key="tag"
          class="tag"
          :class="{ some: !all }"
          :title="`Take the tag ${tag} off`"
          @click="shelf.change({ kind: 'tag', ids, add: [], remove: [tag] })"
        >
          {{ tag }} ×
        </button>
      </div>
      <form @submit.prevent="addTags">
        <label>
          add tags
          <input v-model="fresh" list="known-tags" maxlength="200" placeholder="sign, boat" />
        </label>
        <datalist id="known-tags">
          <option v-for="tag in shelf.tags" :key="tag" :value="tag" />
        </datalist>
      </form>
      <label>
        move to
        <select :key="ids.join()" @change="move">
          <option value="" selected disabled>choose a section</option>
          <option v-for="section in shelf.sections" :key="section.id" :value="section.id">
            {{ section.title }}
          </option>
        </select>
      </label>
      <div class="row">
        <slot :assets="assets" />
        <v-btn size="small" title="Delete (Del); it can be undone" @click="emit('remove')">
          Delete
        </v-btn>
      </div>
    </template>
  </aside>
</template>

<style scoped>
.facts {
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 18px 16px;
  overflow-y: auto;
  background: var(--card);
  border-left: 1px solid var(--rule);
}
p {
  margin: 0;
  line-height: 1.5;
}
.large {
  border: 1px solid var(--rule);
  border-radius: 18px;
}
label {
  display: grid;
  gap: 3px;
  font-size: 12px;
  color: var(--soft);
}
input,
select {
  width: 100%;
  padding: 5px 10px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
  color: var(--ink);
  font-size: 13px;
}
.tags {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.tag {
  padding: 2px 9px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: var(--chosen);
}
.some {
  border-style: dashed;
  background: none;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
