// The parameters of primitives: their words, what is offered, and what may be typed.
import ranges from '@/api/ranges.json';
import type { Node } from '@/api/types';

/** A parameter's name in the document, its word, and what a person may type. */
export interface Parameter {
  key: string;
  word: string;
  /** What the band offers. */
  start: number;
  unit?: string;
  whole?: boolean;
  min: number;
  max: number;
  /** Whether ``min`` itself is refused. */
  above?: boolean;
  /** Of one that is typed in the place of another: of which, what it is, and what it makes. */
  of?: {
    key: string;
    shown(values: Values): number;
    taken(typed: number, values: Values): number;
    /** What it makes is always so many times what is typed. */
    times?: number;
  };
}

/** Parameters by their keys. */
export type Values = Readonly<Record<string, number>>;

type Ranges = Record<
  string,
  Record<string, { min?: number; above?: number; max: number; whole?: boolean }>
>;

/** A parameter of a kind, with the range that the document gives it. */
function parameter(
  kind: string,
  key: string,
  word: string,
  start: number,
  unit?: string,
): Parameter {
  const { min, above, max, whole } = (ranges as Ranges)[kind]![key]!;
  return { key, word, start, unit, whole, min: min ?? above!, max, above: above !== undefined };
}

export const radius = parameter('ellipse', 'rx', 'radius', 24);
export const diameter: Parameter = {
  ...radius,
  key: 'diameter',
  word: 'diameter',
  of: { key: 'rx', shown: ({ rx }) => 2 * rx!, taken: (typed) => typed / 2, times: 0.5 },
};
/** The side of a regular polygon, and its height: with a corner at the top. */
export const side: Parameter = {
  ...radius,
  key: 'side',
  word: 'side',
  of: {
    key: 'rx',
    shown: ({ rx, sides: n }) => 2 * rx! * Math.sin(Math.PI / n!),
    taken: (typed, { sides: n }) => typed / (2 * Math.sin(Math.PI / n!)),
  },
};
export const tall: Parameter = {
  ...radius,
  key: 'tall',
  word: 'height',
  of: {
    key: 'rx',
    shown: (values) => values.rx! * tallness(values) - cutOff(values),
    taken: (typed, values) => (typed + cutOff(values)) / tallness(values),
  },
};

/** A polygon's height by its radius. */
function tallness({ sides: n }: Values): number {
  return n! % 2 ? 1 + Math.cos(Math.PI / n!) : 2;
}

/** What round corners take off its height, at the top and of even ones at the bottom. */
function cutOff({ sides: n, radius: round = 0 }: Values): number {
  return (n! % 2 ? 1 : 2) * round * (1 / Math.cos(Math.PI / n!) - 1);
}

export const width = parameter('rectangle', 'width', 'width', 48);
export const height = parameter('rectangle', 'height', 'height', 48);
export const length = parameter('line', 'length', 'length', 64);
export const corner = parameter('rectangle', 'radius', 'corner radius', 0);
export const sides = parameter('polygon', 'sides', 'sides', 6);
export const points = parameter('star', 'points', 'points', 5);
export const ratio = parameter('star', 'ratio', 'inner ratio', 0.5);
export const tips = parameter('star', 'tip_radius', 'tip radius', 0);
export const notches = parameter('star', 'notch_radius', 'notch radius', 0);
export const tip = parameter('drop', 'tip', 'tip reach', 2);
export const begin = parameter('ellipse', 'start_deg', 'start', 0, '°');
export const sweep = parameter('ellipse', 'sweep_deg', 'sweep', 360, '°');
export const arcBegin = parameter('arc', 'start_deg', 'start', 180, '°');
export const arcSweep = parameter('arc', 'sweep_deg', 'sweep', 180, '°');
export const inner = parameter('ellipse', 'inner', 'inner ratio', 0);

export const copies = parameter('spin', 'count', 'copies', 6);
export const spread = parameter('spin', 'whole_deg', 'spread over', 360, '°');
export const firstTurn = parameter('spin', 'start_deg', 'first at', 0, '°');
export const away = parameter('spin', 'radius', 'radius', 40);
export const lastSize = parameter('spin', 'last_size', 'size of the last', 1);
export const columns = parameter('row', 'columns', 'columns', 3);
export const rows = parameter('row', 'rows', 'rows', 1);
export const stepAcross = parameter('row', 'dx', 'step across', 40);
export const stepDown = parameter('row', 'dy', 'step down', 40);
export const shift = parameter('row', 'shift', 'every other row by', 0);
export const gapAcross = { ...stepAcross, word: 'gap across' };
export const gapDown = { ...stepDown, word: 'gap down' };
export const along = parameter('along', 'count', 'copies', 6);
export const from = parameter('along', 'start', 'from', 0);
export const stepAlong = parameter('along', 'step', 'step along', 0);
export const lastAlong = parameter('along', 'last_size', 'size of the last', 1);
export const axes = parameter('mirror', 'axes', 'axes', 1);
export const axisTurn = parameter('mirror', 'angle_deg', 'axis at', 90, '°');

/** What has the values of a shape's parameters: itself, or how it is repeated. */
export function valuesOf(node: Node): Values {
  return (node.kind === 'repeat' ? node.layout : node) as unknown as Values;
}

/** The paths of the fields of a shape that a parameter is, where it is always so many times them. */
export function pathsOf({ key, of }: Parameter, node: Node): string[] {
  if (of && !of.times) return [];
  const names = Object.keys(parameterFields({ key, of } as Parameter, 1, valuesOf(node)));
  return node.kind === 'repeat' ? names.map((name) => `layout.${name}`) : names;
}

/** What is set where a parameter of a shape with these values is typed. */
export function parameterFields(
  { key, of }: Parameter,
  typed: number,
  values: Values,
): Record<string, number> {
  const [set, value] = of ? [of.key, of.taken(typed, values)] : [key, typed];
  return set === 'rx' ? { rx: value, ry: value } : { [set]: value };
}
