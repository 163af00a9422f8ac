import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

import client, { answered } from '@/api/client';
import type { ColourAnswer, ContrastAnswer } from '@/api/types';
import type { Point } from '@/marks/numbers';
import { attempt } from '@/stores/attempt';
import { useDrawing } from '@/stores/drawing';

/** Half a pixel takes one, and this a small disc round it. */
const ONE = 0.5;
const SOME = 4;

/** Colours as they are read, taken from the desk, and told apart. */
export const useColours = defineStore('colours', () => {
  const drawing = useDrawing();
  /** What waits for a colour from the desk. */
  const waiting = shallowRef<((colour: string) => void) | null>(null);
  const refused = ref('');
  /** Which line's paint was touched last in Facts, null for the fill. */
  const touched = ref<number | null>(null);

  /** A colour by its name, hex digits or CSS; null, with the reason in ``refused``. */
  async function tell(text: string): Promise<ColourAnswer | null> {
    refused.value = '';
    try {
      return await answered<ColourAnswer>(client.POST('/api/colour', { body: { text } }));
    } catch (error) {
      refused.value = error instanceof Error ? error.message : 'This is no colour.';
      return null;
    }
  }

  /** Takes the next colour that is clicked on the desk. */
  function takeFrom(then: (colour: string) => void): void {
    waiting.value = then;
  }

  function leave(): boolean {
    const was = waiting.value !== null;
    waiting.value = null;
    return was;
  }

  /** Gives what waits the colour at a point of a plate; ``mean`` that of a small disc. */
  async function sample(plate: string, at: Point, mean: boolean): Promise<void> {
    const then = waiting.value;
    waiting.value = null;
    const found = await attempt(() =>
      answered<ColourAnswer>(
        client.POST('/api/drawings/{drawing_id}/sample', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, plate, ...at, radius: mean ? SOME : ONE },
        }),
      ),
    );
    if (found) then?.(found.colour);
  }

  /** The contrast of a shape's fill against what lies beneath it; null where there is none. */
  async function contrast(id: string): Promise<ContrastAnswer | null> {
    try {
      return await answered<ContrastAnswer>(
        client.POST('/api/drawings/{drawing_id}/contrast', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, id },
        }),
      );
    } catch {
      return null;
    }
  }

  return { waiting, refused, touched, tell, takeFrom, leave, sample, contrast };
});
