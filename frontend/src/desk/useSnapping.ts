import type { Snapping } from '@/desk/snapping';
import { Snapper } from '@/desk/snapping';
import { boxRound } from '@/marks/matrix';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useSnaps } from '@/stores/snaps';
import { useView } from '@/stores/view';

const NEAR_PIXELS = 6;

/** What gestures snap to on the plate in hand. */
export function useSnapping() {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const snaps = useSnaps();

  /** What to snap to, for a gesture that begins now with these shapes in hand. */
  function snapperFor(ids: string[]): Snapping {
    // Of a piece its whole too: the place that it comes from is part of that.
    const moving = new Set(
      selection.rows
        .filter((row) => row.chain.some((key) => ids.includes(key)))
        .flatMap((row) => (row.strand === 'pieces' ? [row.node.id, row.parent!] : [row.node.id])),
    );
    const shapes = selection.rows
      .filter((row) => !row.dimmed)
      .flatMap(({ node }) => {
        const bounds = selection.figureById.get(node.id)?.bounds;
        return bounds ? [{ id: node.id, name: node.name, guide: Boolean(node.guide), bounds }] : [];
      });
    const boxes = ids.flatMap((key) => selection.figureById.get(key)?.bounds ?? []);
    const box = boxes.length ? boxRound(boxes) : null;
    const around = {
      shapes: snaps.all ? shapes : [],
      plate: drawing.shown.heads[selection.plate]!,
      grid: snaps.grid,
      on: snaps.all ? snaps.on : { ...snaps.on, plate: false, grid: false },
      reach: NEAR_PIXELS / view.zoom,
    };
    // The key points may still be on their way when a quick hand sets out.
    let targets = snaps.all ? snaps.targets : null;
    let snapper = new Snapper({ ...around, targets }, moving, box);
    const latest = () => {
      if (snaps.all && snaps.targets && snaps.targets !== targets) {
        targets = snaps.targets;
        snapper = new Snapper({ ...around, targets }, moving, box);
      }
      return snapper;
    };
    return { point: (at) => latest().point(at), move: (by) => latest().move(by) };
  }

  return { snapperFor };
}
