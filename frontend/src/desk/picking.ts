// Which shapes lie under the pointer, or in a box: hit testing by the browser itself.
import type { Box, Figure } from '@/api/types';
import type { Point } from '@/marks/numbers';

const SAMPLES = 160;

/** The ids of the painted shapes under a point of the screen, the topmost first. */
export function shapesAt(x: number, y: number): string[] {
  const found = document
    .elementsFromPoint(x, y)
    .flatMap((element) => element.getAttribute('data-node') ?? []);
  return [...new Set(found)];
}

export function boxBetween(one: Point, two: Point): Box {
  return {
    x0: Math.min(one.x, two.x),
    y0: Math.min(one.y, two.y),
    x1: Math.max(one.x, two.x),
    y1: Math.max(one.y, two.y),
  };
}

export function liesIn(figure: Figure, box: Box): boolean {
  const { x0, y0, x1, y1 } = figure.bounds;
  return x0 >= box.x0 && y0 >= box.y0 && x1 <= box.x1 && y1 <= box.y1;
}

/** Whether a shape as it is drawn, ``path`` in the plate's units, touches a box. */
export function touches(figure: Figure, path: SVGGeometryElement | null, box: Box): boolean {
  const { x0, y0, x1, y1 } = figure.bounds;
  if (x1 < box.x0 || x0 > box.x1 || y1 < box.y0 || y0 > box.y1) return false;
  if (!path || liesIn(figure, box)) return true;
  const corner = new DOMPoint((box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2);
  if (path.isPointInFill(corner)) return true;
  const length = path.getTotalLength();
  for (let i = 0; i <= SAMPLES; i++) {
    const { x, y } = path.getPointAtLength((length * i) / SAMPLES);
    if (x >= box.x0 && x <= box.x1 && y >= box.y0 && y <= box.y1) return true;
  }
  return false;
}
