// The primitives as the interface knows them: word, digit key, and the fields that are typed.
import type { Command, Node } from '@/api/types';
import type { Ink } from '@/stores/style';
import type { Point } from '@/stores/view';

/** What is drawn from the band. A ring is an ellipse with a hole. */
export type ShapeKind = 'ellipse' | 'rectangle' | 'polygon' | 'star' | 'drop' | 'ring';
export type Tool = ShapeKind | 'line' | 'path';

/** A parameter's name in the document, its word, and what a person may type. */
export interface Parameter {
  key: string;
  word: string;
  start: number;
  whole?: boolean;
  min: number;
  max: number;
  /** Whether ``min`` itself is refused. */
  above?: boolean;
  unit?: string;
  /** Of one that is typed in the place of another: of which, what it is, and what it makes. */
  of?: {
    key: string;
    shown(values: Values): number;
    taken(typed: number, values: Values): number;
  };
}

/** Parameters by their keys. */
export type Values = Readonly<Record<string, number>>;

export interface ShapeWord {
  kind: Tool;
  word: string;
  digit: string;
  /** What one click asks for. */
  typed: Parameter[];
}

const MAX_SIZE = 1e6;
const size = { min: 0, max: MAX_SIZE, above: true };
const corners = { start: 0, min: 0, max: MAX_SIZE };
const count = { whole: true, min: 3, max: 360 };

const radius: Parameter = { key: 'rx', word: 'radius', start: 24, ...size };
const diameter: Parameter = {
  ...radius,
  key: 'diameter',
  word: 'diameter',
  of: { key: 'rx', shown: ({ rx }) => 2 * rx!, taken: (typed) => typed / 2 },
};
/** The side of a regular polygon, and its height: with a corner at the top. */
const side: Parameter = {
  ...radius,
  key: 'side',
  word: 'side',
  of: {
    key: 'rx',
    shown: ({ rx, sides: n }) => 2 * rx! * Math.sin(Math.PI / n!),
    taken: (typed, { sides: n }) => typed / (2 * Math.sin(Math.PI / n!)),
  },
};
const tall: Parameter = {
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

const width: Parameter = { key: 'width', word: 'width', start: 48, ...size };
const height: Parameter = { key: 'height', word: 'height', start: 48, ...size };
const length: Parameter = { key: 'length', word: 'length', start: 64, ...size };
const corner: Parameter = { key: 'radius', word: 'corner radius', ...corners };
const sides: Parameter = { key: 'sides', word: 'sides', start: 6, ...count };
const points: Parameter = { key: 'points', word: 'points', start: 5, ...count };
const ratio: Parameter = { key: 'ratio', word: 'inner ratio', start: 0.5, ...size, max: 1 };
const tips: Parameter = { key: 'tip_radius', word: 'tip radius', ...corners };
const notches: Parameter = { key: 'notch_radius', word: 'notch radius', ...corners };
const tip: Parameter = { key: 'tip', word: 'tip reach', start: 2, min: 1, max: 1000 };
const begin: Parameter = {
  key: 'start_deg',
  word: 'start',
  start: 0,
  min: -360,
  max: 360,
  unit: '°',
};
const sweep: Parameter = {
  key: 'sweep_deg',
  word: 'sweep',
  start: 360,
  ...size,
  max: 360,
  unit: '°',
};
const inner: Parameter = { key: 'inner', word: 'inner ratio', start: 0, min: 0, max: 0.9999 };

export const SHAPES: readonly ShapeWord[] = [
  { kind: 'ellipse', word: 'Circle', digit: '1', typed: [radius, diameter] },
  { kind: 'rectangle', word: 'Box', digit: '2', typed: [width, height, corner] },
  { kind: 'polygon', word: 'Polygon', digit: '3', typed: [sides, radius, side, tall, corner] },
  { kind: 'star', word: 'Star', digit: '4', typed: [points, radius, ratio] },
  { kind: 'drop', word: 'Drop', digit: '5', typed: [radius, tip] },
  { kind: 'ring', word: 'Ring', digit: '6', typed: [radius, { ...inner, start: 0.6 }, sweep] },
  { kind: 'line', word: 'Line', digit: '7', typed: [length] },
  { kind: 'path', word: 'Path', digit: '8', typed: [] },
];

/** The parameters in Facts of each kind, beside place and size. */
export function ownParameters(node: Node): Parameter[] {
  switch (node.kind) {
    case 'ellipse':
      return [...(node.rx === node.ry ? [radius, diameter] : []), begin, sweep, inner];
    case 'rectangle':
      return [corner];
    case 'polygon':
      return [sides, ...(node.rx === node.ry ? [side] : []), corner];
    case 'star':
      return [points, ratio, tips, notches];
    case 'drop':
      return [...(node.rx === node.ry ? [radius] : []), tip];
    case 'line':
      return [length];
    default:
      return [];
  }
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

/** What offered sizes are on a plate of this size: as it is on one of 256, in plain numbers. */
export function offered(shape: ShapeWord, plate: { width: number; height: number }): Values {
  const share = Math.min(plate.width, plate.height) / 256;
  const plain = (value: number) => {
    const step = 10 ** Math.floor(Math.log10(value) - 1);
    return Number((Math.max(1, Math.round(value / step)) * step).toPrecision(6));
  };
  return Object.fromEntries(
    shape.typed
      .filter(({ of }) => !of)
      .map(({ key, start, max }) => [
        key,
        max === MAX_SIZE && start ? plain(start * share) : start,
      ]),
  );
}

export function shapeWord(kind: Tool): ShapeWord {
  return SHAPES.find((shape) => shape.kind === kind)!;
}

/** Of a line whose width nobody has typed. */
export const LINE_WIDTH = 2;

/** The height of a shape that is drawn as wide as ``width``, in its natural proportions. */
export function naturalHeight(kind: ShapeKind, across: number): number {
  return kind === 'drop' ? (across * (1 + tip.start)) / 2 : across;
}

/** The command that draws a shape of this box round its middle. */
export function drawn(
  kind: ShapeKind,
  plate: string,
  id: string,
  ink: Ink,
  middle: Point,
  fields: Record<string, number>,
): Command {
  const { width: across = 0, height: down = 0, ...others } = fields;
  const extent: Record<string, number> =
    kind === 'rectangle' ? { width: across, height: down } : { rx: across / 2, ry: down / 2 };
  const centre = { ...middle };
  if (kind === 'drop') {
    // The origin of a drop is the centre of its body, below the middle of its box.
    extent.ry = down / (1 + (others.tip ?? tip.start));
    centre.y += down / 2 - extent.ry;
  }
  if (kind === 'ring') others.inner ??= 0.6;
  return added(plate, {
    kind: kind === 'ring' ? 'ellipse' : kind,
    id,
    name: shapeWord(kind).word,
    look: ink,
    transform: { e: centre.x, f: centre.y },
    ...extent,
    ...others,
  });
}

/** The look of a new line or open path: a line in any case, and no fill. */
function strokeOnly(ink: Ink): Ink {
  const line = ink.line ?? { colour: ink.fill ?? '#22303C', width: LINE_WIDTH };
  return { ...ink, fill: null, line };
}

/** The command that draws a line between two points. */
export function lineBetween(plate: string, id: string, ink: Ink, from: Point, to: Point): Command {
  const reach = Math.hypot(to.x - from.x, to.y - from.y);
  const cos = (to.x - from.x) / reach;
  const sin = (to.y - from.y) / reach;
  const middle = { e: (from.x + to.x) / 2, f: (from.y + to.y) / 2 };
  return added(plate, {
    kind: 'line',
    id,
    name: 'Line',
    look: strokeOnly(ink),
    transform: { a: cos, b: sin, c: -sin, d: cos, ...middle },
    length: reach,
  });
}

/** The command that draws a path; an open one gets a line and no fill. */
export function pathOf(plate: string, id: string, ink: Ink, data: string): Command {
  const look = data.endsWith('Z') ? ink : strokeOnly(ink);
  return added(plate, { kind: 'path', id, name: 'Path', look, data });
}

function added(plate: string, node: object): Command {
  return { kind: 'add-shape', plate, node } as Command;
}
