<script setup lang="ts">
import { computed, onMounted, onScopeDispose, ref } from 'vue';
import { RouterLink, useRouter } from 'vue-router';

import { bytes } from '@/api/bytes';
import client, { answered } from '@/api/client';
import type { DrawingCard as Card, DrawingCards, DrawingState, OpenedFile } from '@/api/types';
import DrawingCard from '@/home/DrawingCard.vue';
import PageHeader from '@/look/PageHeader.vue';
import AssetThumb from '@/shelf/AssetThumb.vue';
import { useKits } from '@/shelf/kits';
import { newId } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useShelf } from '@/stores/shelf';

/** All drawings as cards, and a start for new ones. */
const STARTS = [
  { name: 'Icon', side: 24 },
  { name: 'Pictogram', side: 64 },
  { name: 'Mark', side: 512 },
];
const PLAIN_SIDE = 256;
const RETRY_MS = 1000;
const MOST_ASSETS = 24;

const router = useRouter();
const notices = useNotices();
const kits = useKits();
const shelf = useShelf();
const cards = ref<Card[] | null>(null);
const away = ref(false);
const search = ref('');
let timer: ReturnType<typeof setTimeout> | undefined;

const found = computed(() => {
  const wanted = search.value.trim().toLowerCase();
  return (cards.value ?? []).filter((card) =>
    [card.name, ...card.plates.map((plate) => plate.name)].some((name) =>
      name.toLowerCase().includes(wanted),
    ),
  );
});

/** What of the shelf is found by the same words. */
const assets = computed(() =>
  search.value.trim()
    ? shelf
        .found(search.value)
        .flatMap((collection) => collection.sections)
        .flatMap((section) => section.assets)
        .slice(0, MOST_ASSETS)
    : [],
);

async function load(): Promise<void> {
  try {
    cards.value = (await answered<DrawingCards>(client.GET('/api/drawings'))).drawings;
    away.value = false;
  } catch {
    away.value = true;
    timer = setTimeout(() => void load(), RETRY_MS);
  }
}

/** Does something and shows the list anew; says what went wrong. */
async function act(does: () => Promise<unknown>): Promise<boolean> {
  try {
    await does();
    await load();
    return true;
  } catch (error) {
    notices.say((error as Error).message);
    return false;
  }
}

/** A name that no drawing has. */
function apart(name: string): string {
  const taken = new Set(cards.value?.map((card) => card.name));
  let fresh = name;
  for (let i = 2; taken.has(fresh); i += 1) fresh = `${name} ${i}`;
  return fresh;
}

async function create(name: string, side: number): Promise<void> {
  await act(async () => {
    // Who is quick asks before the list has come.
    if (!cards.value) await load();
    const body = { name: apart(name), width: side, height: side };
    const made = await answered<DrawingState>(client.POST('/api/drawings', { body }));
    await router.push(`/drawing/${made.id}`);
  });
}

const picker = ref<HTMLInputElement>();

/** Opens a drawing file as a new drawing. */
async function openFile(file: File | undefined): Promise<void> {
  if (!file) return;
  await act(async () => {
    const made = await answered<OpenedFile>(
      client.POST('/api/drawings/from-file', {
        ...bytes(file, 'application/zip'),
      }),
    );
    await router.push(`/drawing/${made.id}`);
    if (made.carried.length) offer(file, made);
  });
}

/** Offers the collections that a drawing carries to the shelf. */
function offer(file: File, { carried }: OpenedFile): void {
  const names = carried.map((each) => each.name).join(', ');
  notices.say(`This drawing carries ${names}.`, {
    label: 'Put on shelf',
    run: () => void kits.load(file),
  });
}

const at = (id: string) => ({ params: { path: { drawing_id: id } } });

function rename(card: Card, name: string): Promise<boolean> {
  return act(async () => {
    const { revision } = await answered<DrawingState>(
      client.GET('/api/drawings/{drawing_id}', at(card.id)),
    );
    const body = { revision, key: newId(), command: { kind: 'rename-drawing' as const, name } };
    await answered(client.POST('/api/drawings/{drawing_id}/commands', { ...at(card.id), body }));
  });
}

function duplicate(card: Card): Promise<boolean> {
  const body = { name: `${card.name} copy`.slice(0, 120) };
  return act(() =>
    answered(client.POST('/api/drawings/{drawing_id}/copy', { ...at(card.id), body })),
  );
}

async function remove(card: Card): Promise<void> {
  const done = await act(() => answered(client.DELETE('/api/drawings/{drawing_id}', at(card.id))));
  if (!done) return;
  const restore = () =>
    void act(() => answered(client.POST('/api/drawings/{drawing_id}/restore', at(card.id))));
  notices.say(`${card.name} was deleted.`, { label: 'Undo', run: restore });
}

onMounted(() => {
  document.title = 'Dot Stack';
  // Which collections a drawing's file can carry.
  shelf.load().catch(() => undefined);
  void load();
});
onScopeDispose(() => clearTimeout(timer));
</script>

<template>
  <div class="home">
    <PageHeader here="Drawings">
      <input
        v-model="search"
        class="find"
        type="search"
        placeholder="Find a drawing, a plate or an asset"
        aria-label="Find a drawing, a plate or an asset"
      />
    </PageHeader>
    <main @dragover.prevent @drop.prevent="openFile($event.dataTransfer?.files[0])">
      <div class="starts">
        <button class="start plain" @click="create('New drawing', PLAIN_SIDE)">New drawing</button>
        <button
          v-for="start in STARTS"
          :key="start.name"
          class="start"
          @click="create(start.name, start.side)"
        >
          <span>
            <b>{{ start.name }}</b><br />
            <span class="mono soft">{{ start.side }} × {{ start.side }} px</span>
          </span>
        </button>
        <button
          class="start"
          title="A drawing that was saved to a file; it can also be dropped here"
          @click="picker!.click()"
        >
          <span>
            <b>Open a file</b><br />
            <span class="mono soft">.dotdrawing</span>
          </span>
        </button>
        <input
          ref="picker"
          class="picker"
          type="file"
          accept=".dotdrawing"
          aria-label="A drawing file to open"
          tabindex="-1"
          @change="openFile(($event.target as HTMLInputElement).files?.[0])"
        />
      </div>
      <h2>Your drawings</h2>
      <p v-if="away" role="status">Dot Stack cannot be reached; trying again…</p>
      <p v-else-if="cards && !found.length" class="soft">
        {{
          search ? `No drawing or plate is called “${search}”.` : 'None yet. Start with one above.'
        }}
      </p>
      <div class="grid">
        <DrawingCard
          v-for="card in found"
          :key="card.id"
          :card="card"
          @rename="rename(card, $event)"
          @duplicate="duplicate(card)"
          @remove="remove(card)"
        />
      </div>
      <template v-if="assets.length">
        <h2 class="shelf">On the shelf</h2>
        <div class="assets">
          <RouterLink
            v-for="asset in assets"
            :key="asset.id"
            class="asset"
            :to="{ path: '/shelf', query: { find: asset.name } }"
            :title="`${asset.name}: on the shelf page`"
          >
            <AssetThumb :asset="asset" />
            {{ asset.name }}
          </RouterLink>
        </div>
      </template>
    </main>
  </div>
</template>

<style scoped>
.picker {
  display: none;
}
.home {
  height: 100vh;
  overflow-y: auto;
  background:
    radial-gradient(circle, var(--dot) 1px, transparent 1.2px) 0 0/20px 20px,
    var(--desk);
  font-size: 14px;
}
.find {
  width: 280px;
  padding: 7px 14px;
  border: 1px solid var(--rule);
  border-radius: 18px;
  background: #fff;
}
.find::placeholder {
  color: var(--soft);
  opacity: 1;
}
main {
  max-width: 1320px;
  padding: 30px 40px;
}
.starts {
  display: flex;
  gap: 18px;
  margin-bottom: 34px;
}
.start {
  width: 150px;
  height: 96px;
  border: 1.5px dashed var(--soft);
  border-radius: 18px;
  background: var(--card);
  line-height: 1.4;
}
.start b {
  font-weight: 500;
}
.start:hover {
  border-color: var(--clay);
}
.plain {
  border: 0;
  background: var(--clay);
  color: #fff;
  font-weight: 500;
}
.plain:hover {
  background: #a53d28;
}
h2 {
  margin-bottom: 14px;
  font-size: 15px;
}
.shelf {
  margin-top: 34px;
}
.assets {
  display: grid;
  grid-template-columns: repeat(auto-fill, 116px);
  gap: 14px;
}
.asset {
  padding: 6px;
  border: 1px solid var(--rule);
  border-radius: 16px;
  background: var(--card);
  color: var(--ink);
  font-size: 12px;
  text-align: center;
  text-decoration: none;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.asset:hover {
  border-color: var(--clay);
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(340px, 1fr));
  gap: 26px;
}
</style>
