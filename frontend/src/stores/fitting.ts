import type { Command } from '@/api/types';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';

/** So many times larger than the plate shapes are sized to it, if that is wanted. */
const MUCH = 1.25;
/** What of the plate they take then. */
const SHARE = 0.8;

/** Where what has just come on to the plate is much larger, offers to size it; answers whether. */
export function offerToFit(): boolean {
  const drawing = useDrawing();
  const selection = useSelection();
  const plate = drawing.heads[selection.plate];
  const box = selection.bounds;
  if (!plate || !box) return false;
  const [across, down] = [box.x1 - box.x0, box.y1 - box.y0];
  const over = Math.max(across / plate.width, down / plate.height);
  if (over <= MUCH) return false;
  const ids = [...selection.ids];
  const factor = SHARE / over;
  /** The point that stays where the middle of the box comes to the middle of the plate. */
  const still = (low: number, high: number, size: number) =>
    (size / 2 - (factor * (low + high)) / 2) / (1 - factor);
  const command: Command = {
    kind: 'stretch',
    ids,
    across: factor,
    down: factor,
    x: still(box.x0, box.x1, plate.width),
    y: still(box.y0, box.y1, plate.height),
  };
  useNotices().say('That is much larger than the plate.', {
    label: 'Fit to the plate',
    run: () => void drawing.run(command),
  });
  return true;
}
