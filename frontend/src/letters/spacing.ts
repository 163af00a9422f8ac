// How a gap between two letters is dragged.
import type { Command } from '@/api/types';
import type { Gesture, Hands } from '@/desk/gestures';
import { commandGesture } from '@/desk/gestures';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';

/** A gap: what is added there, a thousandth of the body on the plate, and its edge, foot to head. */
interface Gap {
  by: number;
  unit: number;
  edge: readonly [number, number, number, number];
}

/** What is added between two letters, as a person reads it: +5.5%. */
export function addedWord(thousandths: number): string {
  return `${thousandths < 0 ? '−' : '+'}${shortNumber(Math.abs(thousandths) / 10)}%`;
}

/** Drags a gap along its line. */
export function spacingGesture(
  hands: Hands,
  { by, unit, edge: [x0, y0, x1, y1] }: Gap,
  from: Point,
  command: (by: number) => Command,
): Gesture {
  const high = Math.hypot(x1 - x0, y1 - y0);
  // Along the line: a quarter turn from its head.
  const along = { x: (y0 - y1) / high, y: (x1 - x0) / high };
  return commandGesture(hands, (at) => {
    const way = (at.x - from.x) * along.x + (at.y - from.y) * along.y;
    const now = Math.round(by + way / unit);
    const text = `${addedWord(now)} of the body`;
    return { command: now === by ? null : command(now), said: { text } };
  });
}
