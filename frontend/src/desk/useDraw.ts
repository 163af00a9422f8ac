import { ref } from 'vue';

import type { Gesture, Hands, Press } from '@/desk/gestures';
import { drawGesture, lineGesture } from '@/desk/gestures';
import type { Snapping } from '@/desk/snapping';
import { drawn, lineBetween } from '@/editor/shapes';
import { newId, useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import type { Point } from '@/stores/view';
import { useView } from '@/stores/view';

/** The room that the card for typed sizes takes, in pixels. */
const CARD = { width: 208, height: 230 };

/** Drawing primitives: by a drag, or by one click and typed sizes. */
export function useDraw(
  hands: Hands,
  press: Press,
  place: (event: PointerEvent) => Point,
  snapperFor: (ids: string[]) => Snapping,
) {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  /** Where sizes are typed: on the plate, and of the card on the desk. */
  const card = ref<{ at: Point; left: number; top: number } | null>(null);

  /** A gesture that draws something, which is selected when it is there. */
  function selecting(id: string, made: Gesture): Gesture {
    return {
      ...made,
      async end() {
        await made.end();
        if (drawing.nodes[id]) selection.pick(id);
      },
    };
  }

  function pressDraw(event: PointerEvent): void {
    const kind = view.tool;
    if (kind === 'pick' || kind === 'path') return;
    const fresh = { plate: selection.plate, id: newId(), ink: view.ink };
    press(
      event,
      (from) => {
        const snapper = snapperFor([]);
        return selecting(
          fresh.id,
          kind === 'line'
            ? lineGesture(hands, fresh, snapper, from)
            : drawGesture(hands, kind, fresh, snapper, from),
        );
      },
      () => {
        const at = place(event);
        card.value = {
          at: view.toPlate(at),
          left: Math.min(at.x + 12, view.size.width - CARD.width - 8),
          top: Math.max(8, Math.min(at.y + 12, view.size.height - CARD.height - 8)),
        };
      },
    );
  }

  async function drawTyped(values: Record<string, number>): Promise<void> {
    const kind = view.tool;
    if (kind === 'pick' || kind === 'path' || !card.value) return;
    const at = { x: view.rounded(card.value.at.x), y: view.rounded(card.value.at.y) };
    const id = newId();
    card.value = null;
    const { rx = 0, length = 0, ...others } = values;
    const tall = kind === 'drop' ? rx * (1 + (values.tip ?? 1)) : 2 * rx;
    const [from, to] = [-length / 2, length / 2].map((by) => ({ x: at.x + by, y: at.y }));
    const command =
      kind === 'line'
        ? lineBetween(selection.plate, id, view.ink, from!, to!)
        : drawn(kind, selection.plate, id, view.ink, at, {
            width: 2 * rx,
            height: tall,
            ...others,
          });
    if (await drawing.run(command)) selection.pick(id);
  }

  return { card, pressDraw, drawTyped };
}
