// Gradients as they are made and changed: their stops, and where they run on the plate.
import type { Figure, Gradient, Placement, Stop } from '@/api/types';
import { matrixOf } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';

export type GradientShape = Gradient['shape'];

export const GRADIENT_SHAPES: readonly {
  value: GradientShape | 'colour';
  word: string;
  title: string;
}[] = [
  { value: 'colour', word: 'colour', title: 'one colour' },
  { value: 'linear', word: 'linear', title: 'a gradient along a line' },
  { value: 'radial', word: 'radial', title: 'a gradient from a point outward' },
  { value: 'conic', word: 'conic', title: 'a gradient round a point' },
];

const ACROSS = { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0.5 };
const CENTRED = { a: 0.5, b: 0, c: 0, d: 0.5, e: 0.5, f: 0.5 };
const LIGHT = '#FBF7EF';
/** How fine places of stops are told, in parts of the whole. */
const DIGITS = 1e4;

/** A gradient of this shape from a colour on, or another one in this shape. */
export function shadedAs(shape: GradientShape, from: Gradient | string | null): Gradient {
  const place = shape === 'linear' ? ACROSS : CENTRED;
  if (from && typeof from === 'object') return { ...from, shape, place };
  const stops = [
    { at: 0, colour: from ?? '#22303C', opacity: 1 },
    { at: 1, colour: LIGHT, opacity: 1 },
  ];
  return { shape, stops, place };
}

/** The stops in order, and where the one in hand is among them. */
export function inOrder(stops: readonly Stop[], held: Stop): { stops: Stop[]; at: number } {
  const sorted = [...stops].sort((one, two) => one.at - two.at);
  return { stops: sorted, at: sorted.indexOf(held) };
}

/** The colour and opacity between stops. */
export function mixedAt(stops: readonly Stop[], at: number): Stop {
  const after = stops.findIndex((stop) => stop.at >= at);
  const two = stops[after] ?? stops.at(-1)!;
  const one = stops[after - 1] ?? two;
  const share = two.at > one.at ? (at - one.at) / (two.at - one.at) : 0;
  const mixed = (a: number, b: number) => a + share * (b - a);
  const channel = (i: number) => {
    const [a, b] = [one, two].map(({ colour }) => parseInt(colour.slice(i, i + 2), 16));
    return Math.round(mixed(a!, b!)).toString(16).padStart(2, '0');
  };
  const colour = `#${[1, 3, 5].map(channel).join('').toUpperCase()}`;
  return { at: rounded(at), colour, opacity: mixed(one.opacity, two.opacity) };
}

export function rounded(at: number): number {
  return Math.round(Math.min(1, Math.max(0, at)) * DIGITS) / DIGITS;
}

/** From the unit square of a shape's box to the plate; its sides are as long as a line is wide. */
function boxOf({ matrix, box }: Figure, least: number): DOMMatrix {
  const [width, height] = [box.x1 - box.x0, box.y1 - box.y0];
  const [across, down] = [width, height].map((side) => Math.max(side, least, 1e-9));
  const unit = new DOMMatrix([
    across!,
    0,
    0,
    down!,
    box.x0 - (across! - width) / 2,
    box.y0 - (down! - height) / 2,
  ]);
  return matrixOf(matrix).multiply(unit);
}

/** From a gradient's own axes to the plate; of a line that is as wide as ``least``. */
export function runOf(figure: Figure, gradient: Gradient, least = 0): DOMMatrix {
  return boxOf(figure, least).multiply(matrixOf(gradient.place));
}

/** The gradient so that it runs from a point of the plate to another, square across that. */
export function runBetween(
  figure: Figure,
  gradient: Gradient,
  from: Point,
  to: Point,
  least = 0,
): Gradient {
  const [x, y] = [to.x - from.x, to.y - from.y];
  const run = new DOMMatrix([x, y, -y, x, from.x, from.y]);
  const { a, b, c, d, e, f } = boxOf(figure, least).inverse().multiply(run);
  const place: Placement = { a, b, c, d, e, f };
  return { ...gradient, place: place as Gradient['place'] };
}

/** Where a gradient leads on the plate, degrees. */
export function angleOf(figure: Figure, gradient: Gradient): number {
  const { a, b } = runOf(figure, gradient);
  return (Math.atan2(b, a) * 180) / Math.PI;
}

/** The gradient led to an angle on the plate: about the middle of its line, or its own. */
export function ledTo(figure: Figure, gradient: Gradient, degrees: number): Gradient {
  const run = runOf(figure, gradient);
  const reach = Math.hypot(run.a, run.b);
  const [x, y] = [degrees, degrees - 90].map((angle) => reach * Math.cos((angle * Math.PI) / 180));
  const back = gradient.shape === 'linear' ? 0.5 : 0;
  const from = { x: run.e + back * (run.a - x!), y: run.f + back * (run.b - y!) };
  return runBetween(figure, gradient, from, { x: from.x + x!, y: from.y + y! });
}

/** Where a stop lies in a gradient's own axes. */
export function stopPlace(shape: GradientShape, at: number): Point {
  if (shape !== 'conic') return { x: at, y: 0 };
  return { x: Math.cos(2 * Math.PI * at), y: Math.sin(2 * Math.PI * at) };
}

/** The part of the way nearest to a point of a gradient's own axes. */
export function nearestPart(shape: GradientShape, own: Point): number {
  if (shape === 'conic') {
    const turn = Math.atan2(own.y, own.x) / (2 * Math.PI);
    return turn < 0 ? turn + 1 : turn;
  }
  return Math.min(1, Math.max(0, own.x));
}
