// The primitives as the interface knows them: word, digit key, and the fields that are typed.
import type { Command, Node } from '@/api/types';

export type ShapeKind = 'ellipse' | 'rectangle' | 'polygon' | 'star';

/** A parameter's name in the document, its word, and what a person may type. */
export interface Parameter {
  key: 'rx' | 'ry' | 'width' | 'height' | 'radius' | 'sides' | 'points' | 'ratio';
  word: string;
  start: number;
  whole?: boolean;
  min: number;
  max: number;
  /** Whether ``min`` itself is refused. */
  above?: boolean;
}

export interface ShapeWord {
  kind: ShapeKind;
  word: string;
  digit: string;
  /** What one click asks for. */
  typed: Parameter[];
}

const MAX_SIZE = 1e6;
const size = { min: 0, max: MAX_SIZE, above: true };

const radius: Parameter = { key: 'rx', word: 'radius', start: 24, ...size };
const corner: Parameter = { key: 'radius', word: 'corner radius', start: 0, min: 0, max: MAX_SIZE };
const sides: Parameter = { key: 'sides', word: 'sides', start: 6, whole: true, min: 3, max: 360 };
const points: Parameter = {
  key: 'points',
  word: 'points',
  start: 5,
  whole: true,
  min: 3,
  max: 360,
};
const ratio: Parameter = {
  key: 'ratio',
  word: 'inner ratio',
  start: 0.5,
  min: 0,
  max: 1,
  above: true,
};

export const SHAPES: readonly ShapeWord[] = [
  { kind: 'ellipse', word: 'Circle', digit: '1', typed: [radius] },
  {
    kind: 'rectangle',
    word: 'Box',
    digit: '2',
    typed: [
      { key: 'width', word: 'width', start: 48, ...size },
      { key: 'height', word: 'height', start: 48, ...size },
      corner,
    ],
  },
  { kind: 'polygon', word: 'Polygon', digit: '3', typed: [sides, radius] },
  { kind: 'star', word: 'Star', digit: '4', typed: [points, radius, ratio] },
];

/** The parameters in Facts of each kind, beside place and size. */
export function ownParameters(node: Node): Parameter[] {
  if (node.kind === 'ellipse') return node.rx === node.ry ? [radius] : [];
  if (node.kind === 'rectangle') return [corner];
  if (node.kind === 'polygon') return [sides];
  if (node.kind === 'star') return [points, ratio];
  return [];
}

export function shapeWord(kind: ShapeKind): ShapeWord {
  return SHAPES.find((shape) => shape.kind === kind)!;
}

/** The command that draws a shape of this box round its centre. */
export function drawn(
  kind: ShapeKind,
  plate: string,
  id: string,
  fill: string,
  centre: { x: number; y: number },
  fields: Partial<Record<Parameter['key'], number>> & { width: number; height: number },
): Command {
  const { width, height, ...others } = fields;
  const extent = kind === 'rectangle' ? { width, height } : { rx: width / 2, ry: height / 2 };
  const node = {
    kind,
    id,
    name: shapeWord(kind).word,
    fill,
    transform: { e: centre.x, f: centre.y },
    ...extent,
    ...others,
  };
  return { kind: 'add-shape', plate, node } as Command;
}
