<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useRoute } from 'vue-router';

import type { AssetOnShelf, CollectionOnShelf, SectionOnShelf } from '@/api/types';
import ExportDialog from '@/export/ExportDialog.vue';
import type { Exportable } from '@/export/formats';
import PageHeader from '@/look/PageHeader.vue';
import AssetButton from '@/shelf/AssetButton.vue';
import AssetFacts from '@/shelf/AssetFacts.vue';
import CollectionTree from '@/shelf/CollectionTree.vue';
import GroundPill from '@/shelf/GroundPill.vue';
import SharedShelf from '@/shelf/SharedShelf.vue';
import { useKits } from '@/shelf/kits';
import { useFound } from '@/shelf/useFound';
import { usePicked } from '@/shelf/usePicked';
import { useShelfKeys } from '@/shelf/useShelfKeys';
import { useNotices } from '@/stores/notices';
import { useShelf } from '@/stores/shelf';

/** The whole shelf: found, renamed, tagged, moved, deleted, saved as kits. */
const shelf = useShelf();
const kits = useKits();
const notices = useNotices();
const route = useRoute();
const search = ref(String(route.query.find ?? ''));
const field = ref<HTMLInputElement>();
/** A collection or section that is looked at alone; all if empty. */
const chosen = ref('');

const { found, assets, counts } = useFound(search, (collections) =>
  collections.flatMap((collection) => {
    if (!chosen.value || collection.id === chosen.value) return [collection];
    const sections = collection.sections.filter((section) => section.id === chosen.value);
    return sections.length ? [{ ...collection, sections }] : [];
  }),
);
const { ids, set, assets: picked, pick, all, none } = usePicked(() => assets.value);

onMounted(() => {
  document.title = 'Shelf · Dot Stack';
  shelf.load().catch((error: Error) => notices.say(error.message));
});

async function remove(): Promise<void> {
  if (!ids.value.length) return;
  const count = ids.value.length;
  if (await shelf.change({ kind: 'delete', what: 'asset', ids: [...ids.value] })) {
    none();
    notices.say(`${count} ${count === 1 ? 'asset was' : 'assets were'} deleted.`, {
      label: 'Undo',
      run: () => void shelf.undo(),
    });
  }
}
useShelfKeys({ remove, all, leave: none, find: () => field.value?.focus() });

const picker = ref<HTMLInputElement>();
const exporting = ref(false);
const sharing = ref(false);
const exportable = ref<Exportable[]>([]);

function exportCollection({ id, name }: CollectionOnShelf): void {
  exportable.value = [{ word: name, subject: { kind: 'collection', collection: id } }];
  exporting.value = true;
}

function exportAsset(): void {
  const { id, name } = picked.value[0]!;
  exportable.value = [{ word: name, subject: { kind: 'asset', asset: id } }];
  exporting.value = true;
}

function loadKit(event: Event): void {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  if (file) void kits.load(file);
  // The same file can be chosen again.
  input.value = '';
}

function dragStart(asset: AssetOnShelf, event: DragEvent): void {
  if (!set.value.has(asset.id)) pick(asset.id, new MouseEvent('click'));
  event.dataTransfer!.setData('text/plain', asset.name);
  event.dataTransfer!.effectAllowed = 'move';
}

/** Moves what is picked before the asset of a section on which it is let go, or to its end. */
async function drop(section: SectionOnShelf, event: DragEvent): Promise<void> {
  const moved = [...ids.value];
  const before = (event.target as Element).closest<HTMLElement>('[data-asset]')?.dataset.asset;
  if (!moved.length || (before && set.value.has(before))) return;
  const rest = section.assets.filter((asset) => !set.value.has(asset.id));
  const at = before ? rest.findIndex((asset) => asset.id === before) : rest.length;
  await shelf.change({ kind: 'move', what: 'asset', ids: moved, into: section.id, index: at });
}
</script>

<template>
  <div class="page">
    <PageHeader here="Shelf">
      <button
        class="step"
        :disabled="!shelf.state.undo"
        :title="shelf.state.undo ? `Undo ${shelf.state.undo} (Ctrl+Z)` : 'Nothing to undo'"
        @click="shelf.undo()"
      >
        ↶ {{ shelf.state.undo }}
      </button>
      <button
        class="step"
        :disabled="!shelf.state.redo"
        :title="shelf.state.redo ? `Redo ${shelf.state.redo} (Ctrl+Shift+Z)` : 'Nothing to redo'"
        aria-label="Redo"
        @click="shelf.redo()"
      >
        ↷
      </button>
      <GroundPill />
      <input
        ref="field"
        v-model="search"
        class="find"
        type="search"
        placeholder="Find by name or tag ( / )"
        aria-label="Find by name or tag"
      />
    </PageHeader>
    <div class="body">
      <CollectionTree v-model="chosen" :picked="ids" @moved="none">
        <template #more="{ collection }">
          <v-list-item title="Save as a kit" :href="`/api/kits/${collection.id}`" download />
          <v-list-item title="Export…" @click="exportCollection(collection)" />
        </template>
        <template #foot>
          <button
            class="load"
            title="A collection that was saved to a file"
            @click="picker!.click()"
          >
            load a kit
          </button>
          <button class="load" title="Collections that a studio shares" @click="sharing = true">
            shared shelf
          </button>
          <input
            ref="picker"
            class="picker"
            type="file"
            accept=".dotkit,.dotdrawing"
            aria-label="A kit to load"
            tabindex="-1"
            @change="loadKit"
          />
        </template>
      </CollectionTree>
      <main @click.self="none">
        <p v-if="shelf.loaded && !shelf.collections.length" class="soft">
          The shelf is empty. Make a collection, or load a kit, at the left.
        </p>
        <p v-else-if="shelf.loaded && !found.length" class="soft">
          Nothing {{ chosen ? 'here' : 'on the shelf' }} is called “{{ search }}”.
        </p>
        <section
          v-for="collection in shelf.collections"
          v-show="counts.has(collection.id)"
          :key="collection.id"
          :aria-label="collection.name"
          @click.self="none"
        >
          <h2>{{ collection.name }}</h2>
          <div
            v-for="section in collection.sections"
            v-show="counts.has(section.id)"
            :key="section.id"
            class="section"
            @dragover.prevent
            @drop.prevent="drop(section, $event)"
            @click.self="none"
          >
            <h3>
              {{ section.name }} <span class="mono soft">{{ counts.get(section.id) }}</span>
            </h3>
            <p v-if="!section.assets.length" class="soft none">
              Empty. Drag assets here, or put shapes here from a drawing.
            </p>
            <div
              v-else
              class="grid"
              role="listbox"
              :aria-label="section.name"
              aria-multiselectable="true"
            >
              <AssetButton
                v-for="asset in section.assets"
                :key="asset.id"
                :asset="asset"
                :on="set.has(asset.id)"
                :shown="counts.has(asset.id)"
                :data-asset="asset.id"
                role="option"
                :aria-selected="set.has(asset.id)"
                @carry="dragStart(asset, $event)"
                @pick="pick(asset.id, $event)"
              />
            </div>
          </div>
        </section>
      </main>
      <AssetFacts :assets="picked" @remove="remove">
        <v-btn v-if="picked.length === 1" size="small" variant="outlined" @click="exportAsset">
          Export…
        </v-btn>
      </AssetFacts>
    </div>
    <v-dialog v-model="sharing"><SharedShelf @close="sharing = false" /></v-dialog>
    <v-dialog v-model="exporting">
      <ExportDialog :subjects="exportable" @close="exporting = false" />
    </v-dialog>
  </div>
</template>

<style scoped>
.page {
  display: flex;
  flex-direction: column;
  height: 100vh;
}
.body {
  display: grid;
  grid-template-columns: 252px minmax(0, 1fr) 264px;
  flex: 1;
  min-height: 0;
}
main {
  padding: 18px 26px 40px;
  overflow-y: auto;
  background:
    radial-gradient(circle, var(--dot) 1px, transparent 1.2px) 0 0/20px 20px,
    var(--desk);
}
.find {
  width: 230px;
  padding: 7px 14px;
  border: 1px solid var(--rule);
  border-radius: 18px;
  background: #fff;
}
.find::placeholder {
  color: var(--soft);
  opacity: 1;
}
.step {
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.step:disabled {
  color: #8a8373;
  cursor: default;
}
h2 {
  font-size: 17px;
  margin: 6px 0 4px;
}
h3 {
  margin: 14px 0 8px;
  font-size: 13px;
}
.section {
  content-visibility: auto;
  contain-intrinsic-size: auto 300px;
  /* Its containment would cut off the marks of what is picked. */
  padding: 0 2px 8px;
  margin: 0 -2px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(104px, 1fr));
  gap: 12px;
}
.none {
  margin: 0;
}
.load {
  display: block;
  margin: 0 8px 8px;
  color: var(--tide);
}
.picker {
  display: none;
}
</style>
