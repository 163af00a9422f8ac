import { computed, ref } from 'vue';

import type { AssetOnShelf } from '@/api/types';

/** Which assets of a list are picked: one by a click, more with Ctrl, a stretch with Shift. */
export function usePicked(shown: () => readonly AssetOnShelf[]) {
  const ids = ref<readonly string[]>([]);
  const lead = ref('');
  const set = computed(() => new Set(ids.value));
  const assets = computed(() => shown().filter((asset) => set.value.has(asset.id)));

  function pick(id: string, event: MouseEvent | KeyboardEvent): void {
    if (event.shiftKey && lead.value) {
      const order = shown().map((asset) => asset.id);
      const [from, to] = [order.indexOf(lead.value), order.indexOf(id)].sort((a, b) => a - b);
      ids.value = order.slice(Math.max(from!, 0), to! + 1);
      return;
    }
    lead.value = id;
    if (!(event.ctrlKey || event.metaKey))
      ids.value = set.value.has(id) && ids.value.length === 1 ? [] : [id];
    else if (set.value.has(id)) ids.value = ids.value.filter((each) => each !== id);
    else ids.value = [...ids.value, id];
  }

  return {
    ids,
    set,
    assets,
    pick,
    all: () => (ids.value = shown().map((asset) => asset.id)),
    none: () => (ids.value = []),
  };
}
