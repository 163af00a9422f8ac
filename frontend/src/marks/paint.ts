// Paint as it is shown.
import type { Gradient, Line, Look } from '@/api/types';

/** What shapes are painted with. */
export interface Ink {
  fill: string | null;
  line: Line | null;
  opacity: number;
}

/** The colours of a gradient as they follow each other, as CSS paints them from left to right. */
export function following({ stops }: Gradient): string {
  return `linear-gradient(90deg, ${stops.map(({ colour, at }) => `${colour} ${at * 100}%`).join()})`;
}

/** The gradient that a fill is, if it is one. */
export function gradientOf(fill: Look['fill'] | undefined): Gradient | null {
  return typeof fill === 'object' ? fill : null;
}

/** A fill as one colour: of a gradient the mean of its own. */
export function colourOf(fill: Look['fill']): string | null {
  const stops = gradientOf(fill)?.stops;
  if (!stops) return fill as string | null;
  const mean = (at: number) =>
    stops.reduce((sum, { colour }) => sum + parseInt(colour.slice(at, at + 2), 16), 0) /
    stops.length;
  const digits = [1, 3, 5].map((at) => Math.round(mean(at)).toString(16).padStart(2, '0'));
  return `#${digits.join('').toUpperCase()}`;
}

/** A fill as CSS paints it. */
export function cssOf(fill: Look['fill']): string | null {
  const gradient = gradientOf(fill);
  return gradient ? following(gradient) : (fill as string | null);
}
