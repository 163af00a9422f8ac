// Placements as matrices.
import type { Box, Figure, Placement } from '@/api/types';
import type { Point } from '@/marks/numbers';

/** The matrix of a placement, of which a command may leave out what is as usual. */
export function matrixOf({ a = 1, b = 0, c = 0, d = 1, e = 0, f = 0 }: Placement = {}): DOMMatrix {
  return new DOMMatrix([a, b, c, d, e, f]);
}

/** The map that turns about a point; quarter turns exactly. */
export function turnAbout(centre: Point, degrees: number) {
  const radians = (degrees * Math.PI) / 180;
  const quarter = degrees % 90 === 0;
  const cos = quarter ? Math.round(Math.cos(radians)) : Math.cos(radians);
  const sin = quarter ? Math.round(Math.sin(radians)) : Math.sin(radians);
  return {
    a: cos,
    b: sin,
    c: -sin,
    d: cos,
    e: centre.x - cos * centre.x + sin * centre.y,
    f: centre.y - sin * centre.x - cos * centre.y,
  };
}

/** A point of the plate in a shape's own axes. */
export function intoOwnAxes(matrix: Figure['matrix'], at: Point): Point {
  const own = matrixOf(matrix).inverse().transformPoint(at);
  return { x: own.x, y: own.y };
}

/** A point of a shape's own axes on the plate. */
export function ontoPlate({ a, b, c, d, e, f }: Figure['matrix'], own: Point): Point {
  return { x: a * own.x + c * own.y + e, y: b * own.x + d * own.y + f };
}

/** The box round several. */
export function boxRound(boxes: readonly Box[]): Box {
  return {
    x0: Math.min(...boxes.map((box) => box.x0)),
    y0: Math.min(...boxes.map((box) => box.y0)),
    x1: Math.max(...boxes.map((box) => box.x1)),
    y1: Math.max(...boxes.map((box) => box.y1)),
  };
}
