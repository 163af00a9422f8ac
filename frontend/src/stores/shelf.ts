import { defineStore } from 'pinia';
import { computed, ref, shallowReactive, shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type {
  AssetOnShelf,
  AssetPicture,
  AssetPictures,
  PutOnShelf,
  ShelfChange,
  ShelfState,
} from '@/api/types';
import { attempt } from '@/stores/attempt';

export const GROUNDS = ['card', 'dark', 'colour', 'checker'] as const;
export type Ground = (typeof GROUNDS)[number];

/** Pictures that are wanted at about the same time are asked for together. */
const GATHER_MS = 30;
const AT_ONCE = 100;
const GROUND = 'dotstack shelf ground';

/** What is kept to be used again: all heads at once, pictures as they come into sight. */
export const useShelf = defineStore('shelf', () => {
  const state = shallowRef<ShelfState>({ collections: [], undo: null, redo: null });
  const loaded = ref(false);
  const pictures = shallowReactive(new Map<string, AssetPicture>());
  const ground = ref<Ground>((localStorage.getItem(GROUND) as Ground | null) ?? 'card');
  /** The asset that the pointer draws on the desk, how large, and in which paint. */
  const inHand = shallowRef<AssetOnShelf | null>(null);
  const percent = ref(100);
  const ownPaint = ref(true);
  watch(ground, (to) => localStorage.setItem(GROUND, to));

  const collections = computed(() => state.value.collections);
  const sections = computed(() =>
    collections.value.flatMap((collection) =>
      collection.sections.map((section) => ({
        id: section.id,
        title: `${collection.name} · ${section.name}`,
        assets: section.assets,
      })),
    ),
  );
  const assets = computed(() => sections.value.flatMap((section) => section.assets));
  const tags = computed(() => [...new Set(assets.value.flatMap((asset) => asset.tags))].sort());

  let wanted = new Set<string>();
  let gathering: ReturnType<typeof setTimeout> | undefined;

  function take(fresh: ShelfState): void {
    state.value = fresh;
    loaded.value = true;
  }

  async function load(): Promise<void> {
    take(await answered<ShelfState>(client.GET('/api/shelf')));
  }

  async function change(does: ShelfChange): Promise<boolean> {
    const fresh = await attempt(() =>
      answered<ShelfState>(client.POST('/api/shelf/changes', { body: { change: does } })),
    );
    if (fresh) take(fresh);
    return fresh !== null;
  }

  async function walk(back: boolean): Promise<void> {
    if (!(back ? state.value.undo : state.value.redo)) return;
    const address = back ? '/api/shelf/undo' : '/api/shelf/redo';
    const fresh = await attempt(() => answered<ShelfState>(client.POST(address)));
    if (fresh) take(fresh);
  }

  /** Keeps shapes; raises what the server refuses. */
  async function put(body: PutOnShelf): Promise<void> {
    take(await answered<ShelfState>(client.POST('/api/shelf/assets', { body })));
  }

  async function update(asset: string, drawing: string, ids: string[]): Promise<void> {
    take(
      await answered<ShelfState>(
        client.POST('/api/shelf/assets/{asset_id}/update', {
          params: { path: { asset_id: asset } },
          body: { drawing, ids },
        }),
      ),
    );
  }

  async function fetchPictures(): Promise<void> {
    const ids = [...wanted];
    wanted = new Set();
    for (let at = 0; at < ids.length; at += AT_ONCE) {
      const body = { ids: ids.slice(at, at + AT_ONCE) };
      const found = await attempt(() =>
        answered<AssetPictures>(client.POST('/api/shelf/pictures', { body })),
      );
      for (const picture of found?.pictures ?? []) pictures.set(picture.id, picture);
    }
  }

  /** Sees to it that there is a picture of the asset as it is now. */
  function wantPicture({ id, revision }: AssetOnShelf): void {
    if (pictures.get(id)?.revision === revision || wanted.has(id)) return;
    wanted.add(id);
    clearTimeout(gathering);
    gathering = setTimeout(() => void fetchPictures(), GATHER_MS);
  }

  /** Whether every word of ``search`` begins or lies in the asset's name or tags. */
  function matches(asset: AssetOnShelf, search: string): boolean {
    const said = [asset.name, ...asset.tags].join('\n').toLowerCase();
    return search
      .toLowerCase()
      .split(/\s+/)
      .every((word) => said.includes(word));
  }

  /** The collections with only those assets that match; empty sections stay without a search. */
  function found(search: string): ShelfState['collections'] {
    const words = search.trim();
    if (!words) return collections.value;
    return collections.value.flatMap((collection) => {
      const kept = collection.sections.flatMap((section) => {
        const hits = section.assets.filter((asset) => matches(asset, words));
        return hits.length ? [{ ...section, assets: hits }] : [];
      });
      return kept.length ? [{ ...collection, sections: kept }] : [];
    });
  }

  return {
    state,
    loaded,
    collections,
    sections,
    assets,
    tags,
    pictures,
    ground,
    inHand,
    percent,
    ownPaint,
    load,
    take,
    change,
    undo: () => walk(true),
    redo: () => walk(false),
    put,
    update,
    wantPicture,
    found,
  };
});
