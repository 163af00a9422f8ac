import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

import client, { answered, RefusedError } from '@/api/client';
import type { Compared, PlatePicture } from '@/api/types';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';

/** The plate as it was before the last outcome, shown while a key is held. */
export const useCompare = defineStore('compare', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const notices = useNotices();
  const picture = shallowRef<PlatePicture | null>(null);
  const label = ref('');
  let held = false;

  async function hold(): Promise<void> {
    if (held) return;
    held = true;
    try {
      const found = await answered<Compared>(
        client.POST('/api/drawings/{drawing_id}/before', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, plate: selection.plate },
        }),
      );
      if (!found.before)
        notices.say('Nothing to compare with: no outcome has been taken here yet.');
      else if (held) {
        picture.value = found.before;
        label.value = found.label ?? '';
      }
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      notices.say(error.message);
    }
  }

  function release(): void {
    held = false;
    picture.value = null;
  }

  return { picture, label, hold, release };
});
