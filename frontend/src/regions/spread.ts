// Keeps crowded dots apart, so that each can be hit.
import type { Point } from '@/marks/numbers';

const ROUNDS = 60;
const GAP = 3;

/** The places nearest to where the dots belong at which no two of them overlap, as far as there is room. */
export function spread(dots: readonly (Point & { r: number })[]): Point[] {
  const places = dots.map(({ x, y }) => ({ x, y }));
  const cell = 2 * Math.max(1, ...dots.map((dot) => dot.r)) + GAP;
  for (let round = 0; round < ROUNDS; round++) {
    const cells = new Map<string, number[]>();
    places.forEach((at, i) => {
      const key = `${Math.floor(at.x / cell)} ${Math.floor(at.y / cell)}`;
      cells.set(key, [...(cells.get(key) ?? []), i]);
    });
    let moved = false;
    places.forEach((one, i) => {
      for (let dx = -1; dx <= 1; dx++)
        for (let dy = -1; dy <= 1; dy++)
          for (const j of cells.get(
            `${Math.floor(one.x / cell) + dx} ${Math.floor(one.y / cell) + dy}`,
          ) ?? []) {
            if (j <= i) continue;
            moved = parted(one, places[j]!, dots[i]!.r + dots[j]!.r + GAP, i) || moved;
          }
    });
    if (!moved) break;
  }
  return places;
}

/** Moves two points apart to a distance; answers whether they were closer. */
function parted(one: Point, two: Point, least: number, turn: number): boolean {
  let [x, y] = [two.x - one.x, two.y - one.y];
  let apart = Math.hypot(x, y);
  if (apart >= least - 0.01) return false;
  // Dots on one spot go apart in directions that differ from dot to dot.
  if (apart < 1e-6) [x, y, apart] = [Math.cos(turn), Math.sin(turn), 1];
  const by = (least - Math.min(apart, least)) / 2 / apart;
  one.x -= x * by;
  one.y -= y * by;
  two.x += x * by;
  two.y += y * by;
  return true;
}
