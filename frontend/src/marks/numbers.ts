// Numbers and points as they are shown and reckoned with.

export interface Point {
  x: number;
  y: number;
}

/** A number as short as it can be read: up to four decimals. */
export function shortNumber(value: number): string {
  return String(Number(value.toFixed(4)));
}

/** The direction from one point to another, in degrees clockwise from the right. */
export function angleOf(centre: Point, at: Point): number {
  return (Math.atan2(at.y - centre.y, at.x - centre.x) * 180) / Math.PI;
}
