// Paint as it is shown.
import type { Gradient, Line, Look, Piece } from '@/api/types';

/** What shapes are painted with. */
export interface Ink {
  fill: string | null;
  lines: Line[];
  opacity: number;
}

type Stops = readonly Gradient['stops'][number][];

/** Colours as CSS has them, each with its opacity and its place. */
function stopsOf(stops: Stops, unit: '%' | 'turn'): string {
  return stops
    .map(({ colour, opacity = 1, at }) => {
      const dense = Math.round(opacity * 255);
      const place = unit === '%' ? at * 100 : at;
      return `${colour}${dense.toString(16).padStart(2, '0')} ${place}${unit}`;
    })
    .join();
}

/** The colours of a gradient as they follow each other, as CSS paints them from left to right. */
export function following({ stops }: Gradient): string {
  return `linear-gradient(90deg, ${stopsOf(stops, '%')})`;
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

const CAPS = { flat: 'butt', round: 'round', square: 'square' } as const;
const JOINS = { sharp: 'miter', round: 'round', flat: 'bevel' } as const;

/** The attributes of a line in SVG; ``paint`` takes the place of its colour. */
export function strokeOf(line: Piece['line'] | undefined, paint?: string) {
  if (!line) return {};
  return {
    stroke: paint ?? line.colour,
    'stroke-width': line.width,
    'stroke-linecap': CAPS[line.cap],
    'stroke-linejoin': JOINS[line.join],
    'stroke-miterlimit': line.limit,
    'stroke-dasharray': line.dashes.length ? line.dashes.join(' ') : undefined,
    'stroke-dashoffset': line.start || undefined,
  };
}

/** A plain line of a document, as it is drawn. */
export function penOf(line: Line | undefined): Piece['line'] | undefined {
  if (!line) return undefined;
  const { width, cap, join, limit, dashes, paint } = line;
  return {
    colour: colourOf(paint)!,
    width,
    cap,
    join,
    limit,
    dashes: dashes?.pattern ?? [],
    start: dashes?.start ?? 0,
    shade: null,
  };
}

/** A piece in plain paint, but for what is said of it. */
export function pieceOf(fields: Partial<Piece>): Piece {
  return {
    path: '',
    fill_rule: 'nonzero',
    fill: null,
    line: null,
    opacity: 1,
    blend: 'normal',
    clip: null,
    shade: null,
    items: [],
    shadows: [],
    region: null,
    ...fields,
  };
}

/** A line as new ones are, but for what is said of it. */
export function lineOf(fields: Partial<Line> & Pick<Line, 'paint' | 'width'>): Line {
  return {
    position: 'centre',
    away: 0,
    cap: 'flat',
    join: 'sharp',
    limit: 4,
    dashes: null,
    start: 'none',
    end: 'none',
    ...fields,
  };
}

/** How far CSS paints, in parts of a gradient's own axes, and how fine it measures there. */
const REACH = 200;
const FINE = 1000;

/** A conic gradient as CSS paints it, and the box that it is painted in. */
export function conicOf({ matrix, stops }: NonNullable<Piece['shade']>) {
  const [a, b, c, d, e, f] = matrix;
  const map = [a, b, c, d].map((each) => each! / FINE).join();
  const side = 2 * REACH * FINE;
  return {
    box: {
      x: -side / 2,
      y: -side / 2,
      width: side,
      height: side,
      transform: `matrix(${map},${e},${f})`,
    },
    // CSS begins at the top, and our own at the first axis.
    background: `conic-gradient(from 90deg, ${stopsOf(stops, 'turn')})`,
  };
}
