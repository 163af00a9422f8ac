import type { Ref } from 'vue';
import { computed } from 'vue';

import type { AssetOnShelf, CollectionOnShelf } from '@/api/types';
import { useShelf } from '@/stores/shelf';

/**
 * What a search finds. Lists show all there is and hide the rest, for to draw a thousand assets
 * anew takes longer than one waits.
 */
export function useFound(
  search: Ref<string>,
  narrowed: (found: CollectionOnShelf[]) => CollectionOnShelf[] = (found) => found,
) {
  const shelf = useShelf();
  const found = computed(() => narrowed(shelf.found(search.value)));
  const assets = computed<AssetOnShelf[]>(() =>
    found.value.flatMap(({ sections }) => sections.flatMap((section) => section.assets)),
  );
  /** How many assets are found in each collection and section that is shown, and the assets. */
  const counts = computed(() => {
    const counted = new Map<string, number>();
    for (const collection of found.value) {
      counted.set(collection.id, collection.sections.length);
      for (const section of collection.sections) counted.set(section.id, section.assets.length);
    }
    for (const asset of assets.value) counted.set(asset.id, 1);
    return counted;
  });
  return { found, assets, counts };
}
