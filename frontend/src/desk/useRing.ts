import { computed, watch } from 'vue';

import type { Desk } from '@/desk/gestures';
import { turnGesture } from '@/desk/gestures';
import { useActions } from '@/stores/actions';
import { newId } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** Beyond the brackets, further out ones too. */
const RING_ROOM = 48;
const RING_LEAST = 58;

/** The compass ring, its turning point, and what is done by them. */
export function useRing({ hands, press, snapperFor }: Desk) {
  const selection = useSelection();
  const view = useView();
  const actions = useActions();

  /** The compass ring: round the selection, as far out as it has room on the desk. */
  const ring = computed(() => {
    const { figures, bounds } = selection;
    if (!bounds || selection.selected.some((row) => row.held)) return null;
    const single = figures.length === 1 ? figures[0]! : null;
    const { x0, y0, x1, y1 } = bounds;
    const middle = single ? { x: single.x, y: single.y } : { x: (x0 + x1) / 2, y: (y0 + y1) / 2 };
    const reach = (Math.hypot(x1 - x0, y1 - y0) / 2) * view.zoom + RING_ROOM;
    const room = Math.min(view.size.width, view.size.height) / 2 - 18;
    return {
      centre: view.pivot ?? middle,
      radius: Math.max(RING_LEAST, Math.min(reach, room)),
      degrees: single ? Number(single.angle_deg.toFixed(2)) : 0,
      before: single ? single.angle_deg : null,
    };
  });

  watch(
    () => selection.ids.join(),
    () => (view.pivot = null),
  );

  function grabRing(event: PointerEvent): void {
    const round = ring.value;
    if (!round || event.button !== 0) return;
    const ids = [...selection.ids];
    const about = { ...round, ring: round.radius / view.zoom };
    const seed = newId();
    press(
      event,
      (from) =>
        turnGesture(
          hands,
          ids,
          about,
          from,
          (by, copies) => actions.remember(by, ids, copies),
          seed,
        ),
      () => undefined,
    );
  }

  function grabPivot(event: PointerEvent): void {
    if (event.button !== 0) return;
    const snapper = snapperFor([]);
    press(
      event,
      () => ({
        move(at, keys) {
          const snapped = keys.free ? { at, marks: [] } : snapper.point(at);
          view.pivot = snapped.at;
          return { text: 'turning point', marks: snapped.marks };
        },
        end: async () => undefined,
        cancel: () => (view.pivot = null),
      }),
      () => undefined,
    );
  }

  return { ring, grabRing, grabPivot };
}
