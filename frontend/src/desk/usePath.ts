import { computed, ref, watch } from 'vue';

import type { Desk } from '@/desk/gestures';
import { keysOf, landed } from '@/desk/gestures';
import type { PathNode } from '@/desk/pathTool';
import { pathData } from '@/desk/pathTool';
import type { Mark } from '@/desk/snapping';
import type { Point } from '@/marks/numbers';
import { pathOf } from '@/marks/shapes';
import { newId, useDrawing } from '@/stores/drawing';
import { useInto } from '@/stores/into';
import { useSelection } from '@/stores/selection';
import { useStyle } from '@/stores/style';
import { useView } from '@/stores/view';

const NEAR_PIXELS = 8;

/** A path while it is drawn: by clicks and drags, ended by a click on its start or a key. */
export function usePath({ hands, press, place, snapperFor }: Desk) {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const style = useStyle();
  const into = useInto();
  const path = ref<PathNode[]>([]);
  const pathAt = ref<Point | null>(null);
  const marks = ref<Mark[]>([]);

  function pressPath(event: PointerEvent): void {
    const at = pathPoint(event);
    const first = path.value[0];
    if (
      first &&
      path.value.length > 1 &&
      view.zoom * Math.hypot(at.x - first.x, at.y - first.y) < NEAR_PIXELS
    ) {
      void finishPath(true);
      return;
    }
    const node: PathNode = { ...at, out: null };
    path.value = [...path.value, node];
    const last = path.value.length - 1;
    press(
      event,
      () => ({
        move(to) {
          const out = { x: to.x - node.x, y: to.y - node.y };
          path.value = path.value.map((each, i) => (i === last ? { ...node, out } : each));
          return { text: 'a curve' };
        },
        end: async () => undefined,
        cancel: () => undefined,
      }),
      () => undefined,
    );
  }

  function pathPoint(event: PointerEvent): Point {
    const at = view.toPlate(place(event));
    const snapped = landed(hands, snapperFor([]), at, keysOf(event));
    marks.value = snapped.marks;
    return snapped.at;
  }

  /** Ends the path that is being drawn, open or closed; one of less than two nodes is dropped. */
  async function finishPath(closed: boolean): Promise<void> {
    const nodes = path.value;
    path.value = [];
    marks.value = [];
    if (nodes.length < 2) return;
    const id = newId();
    const data = pathData(nodes, closed);
    if (!(await drawing.run(pathOf(into.onto(), id, style.ink, data)))) return;
    selection.pick(id);
    into.drew(id);
  }

  /** Ends a path by key; answers whether one was being drawn. */
  function endPath(closed: boolean): boolean {
    if (!path.value.length) return false;
    // Two corners enclose nothing: they stay a line.
    const bounds = path.value.length > 2 || path.value.some((node) => node.out);
    void finishPath(closed && bounds);
    return true;
  }

  /** Takes the last node of the path back; answers whether there was one. */
  function takeBack(): boolean {
    if (!path.value.length) return false;
    path.value = path.value.slice(0, -1);
    return true;
  }

  /** Shows where the next node would go. */
  function follow(event: PointerEvent): void {
    pathAt.value = pathPoint(event);
  }

  /** Drops what was drawn; answers whether there was something. */
  function leave(): boolean {
    const something = path.value.length > 0;
    path.value = [];
    marks.value = [];
    return something;
  }

  const preview = computed(() => {
    const at = pathAt.value;
    return pathData(at ? [...path.value, { ...at, out: null }] : path.value, false);
  });

  watch(
    () => view.tool,
    () => (pathAt.value = null),
  );

  return { nodes: path, marks, preview, pressPath, follow, finishPath, endPath, takeBack, leave };
}
