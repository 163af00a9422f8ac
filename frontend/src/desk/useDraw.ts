import { computed, ref, watch } from 'vue';

import type { Desk, Gesture } from '@/desk/gestures';
import { betweenGesture, drawGesture, keysOf, landed } from '@/desk/gestures';
import type { Point } from '@/marks/numbers';
import type { ShapeKind } from '@/marks/shapes';
import { drawn, lineBetween, shapeWord } from '@/marks/shapes';
import { newId, useDrawing } from '@/stores/drawing';
import { useInto } from '@/stores/into';
import { useSelection } from '@/stores/selection';
import { useStyle } from '@/stores/style';
import { useView } from '@/stores/view';

/** The room that the card for typed sizes takes, in pixels. */
const CARD = { width: 208, height: 320 };

/** Drawing primitives: by a drag, or by one click and typed sizes. */
export function useDraw({ hands, press, place, snapperFor }: Desk) {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const style = useStyle();
  const into = useInto();
  /** Where sizes are typed: on the plate, and of the card on the desk. */
  const card = ref<{ at: Point; left: number; top: number } | null>(null);

  /** What was drawn last: it can be taken hold of at once, while the tool stays ready. */
  const last = ref<string | null>(null);
  const justDrawn = computed(() => last.value !== null && selection.only?.node.id === last.value);
  watch(
    () => view.tool,
    () => (last.value = null),
  );

  function drew(id: string): void {
    if (!selection.rowById.has(id)) return;
    selection.pick(id);
    into.drew(id);
    last.value = id;
  }

  /** A gesture that draws something, which is selected when it is there. */
  function selecting(id: string, made: Gesture): Gesture {
    return {
      ...made,
      async end() {
        await made.end();
        drew(id);
      },
    };
  }

  /** Opens the card for sizes beside a point of the plate. */
  function askSize(at: Point): void {
    const near = view.toDesk(at);
    card.value = {
      at,
      left: Math.max(8, Math.min(near.x + 12, view.size.width - CARD.width - 8)),
      top: Math.max(8, Math.min(near.y + 12, view.size.height - CARD.height - 8)),
    };
  }

  function pressDraw(event: PointerEvent): void {
    const kind = view.tool;
    if (kind === 'pick' || kind === 'path' || kind === 'text') return;
    const fresh = { onto: into.onto(), id: newId(), ink: style.ink };
    const { between } = shapeWord(kind);
    press(
      event,
      (from) => {
        const snapper = snapperFor([]);
        return selecting(
          fresh.id,
          between
            ? betweenGesture(hands, between, fresh, snapper, from)
            : drawGesture(hands, kind as ShapeKind, fresh, snapper, from),
        );
      },
      () => askSize(landed(hands, snapperFor([]), view.toPlate(place(event)), keysOf(event)).at),
    );
  }

  /** The shape that something is drawn into or beside, and its middle. */
  const beside = computed(() => {
    const node = into.target;
    const bounds = node && selection.figureById.get(node.id)?.bounds;
    if (!bounds) return null;
    const { x0, y0, x1, y1 } = bounds;
    return { name: node.name, middle: { x: (x0 + x1) / 2, y: (y0 + y1) / 2 } };
  });

  async function drawTyped(at: Point, values: Record<string, number>): Promise<void> {
    const kind = view.tool;
    if (kind === 'pick' || kind === 'path' || kind === 'text') return;
    const id = newId();
    card.value = null;
    const { rx = 0, length = 0, ...others } = values;
    const tall = kind === 'drop' ? rx * (1 + (values.tip ?? 1)) : 2 * rx;
    const [from, to] = [-length / 2, length / 2].map((by) => ({ x: at.x + by, y: at.y }));
    const command =
      kind === 'line'
        ? lineBetween(into.onto(), id, style.ink, from!, to!)
        : drawn(kind, into.onto(), id, style.ink, at, {
            width: 2 * rx,
            height: tall,
            ...others,
          });
    if (await drawing.run(command)) drew(id);
  }

  return { card, beside, justDrawn, pressDraw, askSize, drawTyped };
}
