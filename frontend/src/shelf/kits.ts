import { defineStore } from 'pinia';
import { shallowRef } from 'vue';

import { bytes } from '@/api/bytes';
import client, { answered } from '@/api/client';
import type { KitAnswer } from '@/api/types';
import { attempt } from '@/stores/attempt';
import { useNotices } from '@/stores/notices';
import { useShelf } from '@/stores/shelf';

export type WhenThere = 'replace' | 'keep both' | 'skip';

/** Loading kits, and drawings that carry collections; asks where a name is there already. */
export const useKits = defineStore('kits', () => {
  const shelf = useShelf();
  const notices = useNotices();
  /** A file that waits for an answer to what becomes of the collections that are there. */
  const asked = shallowRef<{ file: File; there: readonly string[] } | null>(null);

  async function load(file: File, whenThere: WhenThere | null = null): Promise<void> {
    asked.value = null;
    const carries = file.name.endsWith('.dotdrawing');
    const type = carries ? 'application/vnd.dotstack.drawing' : 'application/zip';
    const answer = await attempt(() =>
      answered<KitAnswer>(
        client.POST('/api/kits', {
          params: { query: { when_there: whenThere } },
          ...bytes(file, type),
        }),
      ),
    );
    if (!answer) return;
    if (!answer.loaded) {
      asked.value = { file, there: answer.there };
      return;
    }
    await attempt(shelf.load);
    const names = answer.collections.map((each) => each.name).join(', ');
    notices.say(whenThere === 'skip' ? `${names} was left as it is.` : `${names} is on the shelf.`);
  }

  return { asked, load };
});
