import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

import client, { answered, RefusedError } from '@/api/client';
import type { Compared, PlatePicture } from '@/api/types';
import { commandOf } from '@/marks/commands';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';

/** What was before the last outcome, or a shape before its refinements, while a key is held. */
export const useCompare = defineStore('compare', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const notices = useNotices();
  const picture = shallowRef<PlatePicture | null>(null);
  const label = ref('');
  let held = false;
  let looking = false;

  async function hold(): Promise<void> {
    if (held) return;
    held = true;
    const node = selection.only?.node;
    if (node?.refinements.some((each) => each.on)) {
      const refinements = node.refinements.map((each) => ({ ...each, on: false }));
      drawing.look(commandOf('set-refinements', { id: node.id, refinements }));
      label.value = 'its refinements';
      looking = true;
      return;
    }
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
    label.value = '';
    if (looking) drawing.stopPreview();
    looking = false;
  }

  return { picture, label, hold, release };
});
