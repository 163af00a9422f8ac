import { defineStore } from 'pinia';
import { computed, ref } from 'vue';

import client, { answered } from '@/api/client';
import type { Shelf } from '@/api/types';

/** What is kept to be used again. */
export const useShelf = defineStore('shelf', () => {
  const collections = ref<Shelf['collections']>([]);
  const sections = computed(() =>
    collections.value.flatMap((collection) =>
      collection.sections.map((section) => ({
        id: section.id,
        title: `${collection.name} · ${section.name}`,
      })),
    ),
  );

  async function load(): Promise<void> {
    collections.value = (await answered(client.GET('/api/shelf'))).collections;
  }

  async function put(drawing: string, node: string, section: string, name: string) {
    await answered(client.POST('/api/shelf/assets', { body: { drawing, node, section, name } }));
    await load();
  }

  return { collections, sections, load, put };
});
