// The primitives as the interface knows them: word, digit key, and the fields that are typed.
import type { Command, Line, Node } from '@/api/types';
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
}

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
  { kind: 'ellipse', word: 'Circle', digit: '1', typed: [radius] },
  { kind: 'rectangle', word: 'Box', digit: '2', typed: [width, height, corner] },
  { kind: 'polygon', word: 'Polygon', digit: '3', typed: [sides, radius, corner] },
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
      return [...(node.rx === node.ry ? [radius] : []), begin, sweep, inner];
    case 'rectangle':
      return [corner];
    case 'polygon':
      return [sides, corner];
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

/** The parameters that are asked for under one name but set under several. */
export function parameterFields(key: string, value: number): Record<string, number> {
  return key === 'rx' ? { rx: value, ry: value } : { [key]: value };
}

export function shapeWord(kind: Tool): ShapeWord {
  return SHAPES.find((shape) => shape.kind === kind)!;
}

/** What new shapes are painted with. */
export interface Ink {
  fill: string | null;
  line: Line | null;
}

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
    ...ink,
    transform: { e: centre.x, f: centre.y },
    ...extent,
    ...others,
  });
}

/** The line that a new line or open path has, whatever other new shapes have. */
function strokeOf(ink: Ink): Line {
  return ink.line ?? { colour: ink.fill ?? '#22303C', width: 2 };
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
    fill: null,
    line: strokeOf(ink),
    transform: { a: cos, b: sin, c: -sin, d: cos, ...middle },
    length: reach,
  });
}

/** The command that draws a path; an open one gets a line and no fill. */
export function pathOf(plate: string, id: string, ink: Ink, data: string): Command {
  const paint = data.endsWith('Z') ? ink : { fill: null, line: strokeOf(ink) };
  return added(plate, { kind: 'path', id, name: 'Path', ...paint, data });
}

function added(plate: string, node: object): Command {
  return { kind: 'add-shape', plate, node } as Command;
}
