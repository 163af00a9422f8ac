import { ref, watch } from 'vue';

import type { Box } from '@/api/types';
import type { Desk, Gesture, Keys } from '@/desk/gestures';
import { moveGesture } from '@/desk/gestures';
import { snipGesture } from '@/desk/nodeGestures';
import { boxBetween, liesIn, shapesAt, touches } from '@/desk/picking';
import type { Point } from '@/marks/numbers';
import { useActions } from '@/stores/actions';
import { newId, useDrawing } from '@/stores/drawing';
import { useNodes } from '@/stores/nodes';
import { useSelection } from '@/stores/selection';
import { useTwins } from '@/stores/twins';
import { useView } from '@/stores/view';

const SAME_SPOT_PIXELS = 3;
/** So near to a stretch it is meant to be snipped off. */
const SNIP_PIXELS = 6;

/** Selecting on the desk, and moving what is selected. */
export function usePick({ hands, press, place, snapperFor, element }: Desk) {
  const selection = useSelection();
  const drawing = useDrawing();
  const actions = useActions();
  const nodes = useNodes();
  const twins = useTwins();
  const view = useView();
  const band = ref<Box | null>(null);
  const moved = ref<Point>({ x: 0, y: 0 });
  // What waits for the server is shown where it will be, and no more as in hand.
  watch(
    () => drawing.saveState === 'offline' && drawing.waiting,
    (waits) => {
      if (waits) moved.value = { x: 0, y: 0 };
    },
  );
  let lastClick: Point | null = null;

  function pressPick(event: PointerEvent): void {
    const here = [
      ...new Set(
        shapesAt(event.clientX, event.clientY).flatMap((key) => {
          const picked = selection.chainOf(key).find((each) => selection.ids.includes(each));
          return picked ?? selection.pickable(key) ?? [];
        }),
      ),
    ];
    const at = place(event);
    // As in the stack: one more, or one less.
    const adds = event.shiftKey || event.ctrlKey || event.metaKey;
    const held = here.find((key) => selection.ids.includes(key));
    if (!here.length) {
      press(
        event,
        (from) => bandGesture(from, adds ? [...selection.ids] : []),
        () => !adds && selection.pick(),
      );
      return;
    }
    if (adds) {
      // Held from the start Ctrl frees a drag of what is selected; a click adds or takes away.
      const ids = event.shiftKey || !held ? null : [...selection.ids];
      press(
        event,
        (from) => (ids ? movingGesture(ids, from) : null),
        () => selection.toggle(here[0]!),
      );
      return;
    }
    // A second click on the same spot steps to what lies beneath.
    const same = lastClick && Math.hypot(at.x - lastClick.x, at.y - lastClick.y) < SAME_SPOT_PIXELS;
    const beneath = held ? here[(here.indexOf(held) + 1) % here.length]! : here[0]!;
    if (!held) selection.pick(here[0]!);
    const ids = [...selection.ids];
    press(
      event,
      (from) => movingGesture(ids, from),
      () => {
        selection.pick(
          same && ids.length === 1 ? beneath : (here.find((k) => ids.includes(k)) ?? here[0]!),
        );
        lastClick = at;
      },
    );
  }

  function movingGesture(ids: string[], from: Point): Gesture {
    const free = ids.filter((key) => !selection.rowById.get(key)?.held);
    // What others are made of, or follow, is looked at; the rest the browser moves by itself.
    const live = free
      .flatMap((key) => selection.rowById.get(key) ?? [])
      .some((row) => row.inside || twins.roundOf(row));
    const seed = newId();
    return moveGesture(
      hands,
      free,
      live,
      from,
      snapperFor(free),
      (by) => (moved.value = by),
      (by, copies) => actions.remember({ e: by.x, f: by.y }, free, copies),
      seed,
    );
  }

  /** Selects what the box touches; with Alt what lies wholly inside. */
  function bandGesture(from: Point, kept: string[]): Gesture {
    return boxGesture(from, (box, keys) => {
      const found = selection.beside
        .map((row) => row.node.id)
        .filter((key) => {
          const figure = selection.figureById.get(key);
          if (!figure) return false;
          if (keys.alt) return liesIn(figure, box);
          const drawn_ = element().querySelector<SVGGeometryElement>(`path[data-node="${key}"]`);
          return touches(figure, drawn_, box);
        });
      selection.pick(...new Set([...kept, ...found.reverse()]));
      return `${selection.ids.length} selected`;
    });
  }

  /** Draws a box while it lasts; ``found`` takes what is in it, and says so. */
  function boxGesture(from: Point, found: (box: Box, keys: Keys) => string): Gesture {
    return {
      move(at, keys) {
        band.value = boxBetween(from, at);
        return { text: found(band.value, keys) };
      },
      async end() {
        band.value = null;
      },
      cancel: () => (band.value = null),
    };
  }

  /** Picks nodes by a box round them; a click beside all of them lets go. */
  function pressNodes(event: PointerEvent): void {
    if (nodes.snipping) {
      const reach = SNIP_PIXELS / view.zoom;
      const hand = { ...hands, run: nodes.take };
      const here = view.toPlate(place(event));
      press(
        event,
        (from) => snipGesture(hand, (at) => nodes.snip(at, reach), from, reach),
        () => void nodes.take(nodes.snip([here], reach)),
      );
      return;
    }
    const adds = event.shiftKey || event.ctrlKey || event.metaKey;
    const kept = adds ? [...nodes.picked] : [];
    press(
      event,
      (from) => boxGesture(from, (box) => (nodes.within(box, kept), `${nodes.picked.size} picked`)),
      () => !adds && nodes.pick(),
    );
  }

  return { band, moved, pressPick, pressNodes };
}
