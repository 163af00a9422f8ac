import type { Point } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { offerToFit } from '@/stores/fitting';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';
import { useStyle } from '@/stores/style';

/** What an asset is called while it is dragged from the shelf. */
export const ASSET = 'application/x-dotstack-asset';

/** Puts a copy of an asset on the plate in hand, in the paint that is chosen, and selects it. */
export async function placeAsset(asset: string, centre: Point, scale: number): Promise<void> {
  const drawing = useDrawing();
  const selection = useSelection();
  const { fill, ink } = useStyle();
  const paint = useShelf().ownPaint ? null : { fill, lines: ink.lines };
  const before = new Set(drawing.heads[selection.plate]?.nodes);
  const done = await drawing.placeAsset(selection.plate, asset, centre, scale, paint);
  const fresh = drawing.heads[selection.plate]?.nodes.find((key) => !before.has(key));
  if (!done || !fresh) return;
  selection.pick(fresh);
  offerToFit();
}
