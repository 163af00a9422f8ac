import type { Point } from '@/marks/numbers';
import { spelled } from '@/marks/spelled';
import { useDrawing } from '@/stores/drawing';
import { BRUSHES, PAINTS, useRegions } from '@/stores/regions';
import { useView } from '@/stores/view';

/** Dots that lie so little below the first of a row are in it. */
const ROW_PIXELS = 20;
const WAYS: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** What keys do while regions are picked; answers whether a key stands for something. */
export function useRegionKeys() {
  const regions = useRegions();
  const drawing = useDrawing();
  const view = useView();
  let before: number | null = null;

  function hold(spot: number): void {
    before = regions.current;
    regions.current = spot;
  }

  /** From dot to dot as one reads: by rows, and along each. */
  function walk(by: number): void {
    const spots = regions.map!.spots;
    const order = spots.map((_, i) => i).sort((a, b) => spots[a]!.y - spots[b]!.y);
    const line: number[] = [];
    let top = -Infinity;
    for (const i of order) {
      if (spots[i]!.y - top > ROW_PIXELS / view.zoom) top = spots[i]!.y;
      line[i] = top;
    }
    order.sort((a, b) => line[a]! - line[b]! || spots[a]!.x - spots[b]!.x);
    const now = regions.current === null ? (by > 0 ? -1 : 0) : order.indexOf(regions.current);
    hold(order[(now + by + order.length) % order.length]!);
  }

  /** The dot that lies nearest in a direction, and rather straight ahead. */
  function towards([dx, dy]: readonly [number, number]): void {
    if (regions.current === null) return walk(1);
    const from = regions.map!.spots[regions.current]!;
    const reach = (to: Point) => {
      const along = (to.x - from.x) * dx + (to.y - from.y) * dy;
      const aside = Math.abs((to.x - from.x) * dy) + Math.abs((to.y - from.y) * dx);
      return along > 1e-9 ? along + 2 * aside : Infinity;
    };
    const spots = regions.map!.spots;
    const best = spots.reduce((best, spot, i) => (reach(spot) < reach(spots[best]!) ? i : best), 0);
    if (reach(spots[best]!) < Infinity) hold(best);
  }

  function use(fuse: boolean): void {
    const spot = regions.current;
    if (spot === null) return walk(1);
    if (fuse && before !== null && before !== spot) regions.stroke([before, spot]);
    else regions.stroke([spot]);
  }

  function nextColour(): void {
    const spot = regions.current;
    if (spot === null) return;
    const colours = drawing.swatches.flatMap(({ paint }) =>
      typeof paint === 'string' ? paint : [],
    );
    const at = colours.indexOf(regions.colourOf(spot) ?? '');
    regions.paintPiece(colours[(at + 1) % colours.length] ?? null);
  }

  function press(event: KeyboardEvent): boolean {
    const said = spelled(event);
    const key = said.length === 1 ? said.toLowerCase() : said;
    if (event.ctrlKey || event.metaKey) {
      if (key === 'z') (event.shiftKey ? regions.redo : regions.undo)();
      return key === 'z';
    }
    const { rest, paint } = regions.state!;
    if (key === 'Tab') walk(event.shiftKey ? -1 : 1);
    else if (WAYS[key]) towards(WAYS[key]);
    else if (key === ' ') regions.panned &&= event.repeat;
    else if (key === 'x') regions.dropping ||= 'held';
    else if ('123'.includes(key)) regions.brush = BRUSHES[Number(key) - 1]!;
    else if (key === 'r') regions.change({ rest: !rest });
    else if (key === 'p')
      regions.change({ paint: PAINTS[(PAINTS.indexOf(paint) + 1) % PAINTS.length]! });
    else if (key === 'c') nextColour();
    else if (key === 'Enter') void regions.apply();
    else if (key === 'Escape') regions.leave();
    else if (key === 'g') view.nextManner();
    else return false;
    return true;
  }

  /** Space and X let go: pressed alone, one uses the brush and one drops, on the dot in hand. */
  function release(event: KeyboardEvent): void {
    if (event.key === ' ' && regions.open && !regions.panned) use(event.shiftKey);
    if (spelled(event).toLowerCase() !== 'x' || !regions.dropping) return;
    if (regions.dropping === 'held' && regions.current !== null) regions.stroke([regions.current]);
    regions.dropping = false;
  }

  return { press, release };
}
