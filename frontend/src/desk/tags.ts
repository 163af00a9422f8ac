// Value tags: a primitive's parameters on the desk, where they can be dragged and typed.
import type { Box, Figure, Node } from '@/api/types';
import { kindOf } from '@/marks/kinds';
import { intoOwnAxes } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';
import { angleOf, shortNumber } from '@/marks/numbers';
import type { Parameter } from '@/marks/parameters';
import { valuesOf } from '@/marks/parameters';

export interface Tag {
  parameter: Parameter;
  value: number;
  /** What the tag reads: "r 24", "7 points", "sweep 180°". */
  text: string;
  /** The value for a pointer dragged from ``from`` to ``to``. */
  dragged(from: Point, to: Point, zoom: number): number;
}

const DRAG_PIXELS = 14;
/** What tags take on the desk, and how far from the ring they keep, in pixels. */
export const TAG_SIZE = { width: 150, row: 24 };
const GAP = 20;
const MARGIN = 8;

/**
 * Where the corner of a column of tags goes on the desk, in pixels: beside the ring, or over or
 * under it, where it lies on least of the other shapes.
 */
export function placeOf(
  count: number,
  ring: Box,
  desk: { width: number; height: number },
  others: readonly Box[],
): Point {
  const width = TAG_SIZE.width;
  const height = count * TAG_SIZE.row;
  const middle = (ring.y0 + ring.y1 - height) / 2;
  const across = (ring.x0 + ring.x1 - width) / 2;
  const places = [
    { x: ring.x1 + GAP, y: middle },
    { x: ring.x0 - GAP - width, y: middle },
    { x: across, y: ring.y1 + GAP },
    { x: across, y: ring.y0 - GAP - height },
  ].map(({ x, y }) => ({
    x: Math.max(MARGIN, Math.min(x, desk.width - width)),
    y: Math.max(MARGIN, Math.min(y, desk.height - height - 30)),
  }));
  // The ring itself, which a place may have been moved onto, counts most.
  const cost = ({ x, y }: Point) => {
    const box = { x0: x, y0: y, x1: x + width, y1: y + height };
    const hidden = others.reduce((sum, other) => sum + shared(box, other), 0);
    return hidden + 4 * shared(box, ring);
  };
  return places.reduce((best, place) => (cost(place) < cost(best) ? place : best));
}

/** How much two boxes have in common. */
function shared(one: Box, two: Box): number {
  const across = Math.min(one.x1, two.x1) - Math.max(one.x0, two.x0);
  const down = Math.min(one.y1, two.y1) - Math.max(one.y0, two.y0);
  return Math.max(0, across) * Math.max(0, down);
}

/** The value tags of a shape; none for what has no parameters of its own. */
export function tagsOf(node: Node, figure: Figure): Tag[] {
  const { matrix } = figure;
  const values = valuesOf(node);
  const parameters = kindOf(node)
    .parameters(node)
    .filter(({ key, of }) => !of && !isIdle(node, key));
  return parameters.map((parameter) => {
    const value = values[parameter.key] ?? 0;
    return {
      parameter,
      value,
      text: reading(parameter, value, figure.clamped[parameter.key]),
      dragged(from, to, zoom) {
        const own = intoOwnAxes(matrix, to);
        const was = intoOwnAxes(matrix, from);
        const next = dragTo(parameter, value, node, own, was, (to.x - from.x) * zoom);
        const clamped = Math.min(parameter.max, Math.max(parameter.min, next));
        return parameter.whole ? Math.round(clamped) : clamped;
      },
    };
  });
}

/** Whether a parameter says nothing of a whole circle, or of one without a hole. */
function isIdle(node: Node, key: string): boolean {
  if (node.kind === 'repeat') return ['last_size', 'rows', 'shift', 'step'].includes(key);
  if (node.kind !== 'ellipse' || node.sweep_deg !== 360) return false;
  return key === 'start_deg' || (!node.inner && ['sweep_deg', 'inner'].includes(key));
}

/** What a tag reads; of corners that do not fit also how large they are drawn. */
function reading({ key, word, unit }: Parameter, value: number, drawn?: number): string {
  const number = shortNumber(Number(value.toFixed(2)));
  if (drawn !== undefined) return `${word} ${shortNumber(Number(drawn.toFixed(2)))} of ${number}`;
  if (key === 'rx') return `r ${number}`;
  if (key === 'count') return `${number} ×`;
  if (key === 'points' || key === 'sides') return `${number} ${word}`;
  return `${word} ${number}${unit ?? ''}`;
}

function dragTo(
  { key }: Parameter,
  value: number,
  node: Node,
  own: Point,
  was: Point,
  pixels: number,
): number {
  const radius = 'rx' in node ? node.rx : 1;
  const reach = Math.hypot(own.x, own.y) - Math.hypot(was.x, was.y);
  switch (key) {
    case 'rx':
      return value + reach;
    case 'length':
      return value + 2 * (own.x - was.x);
    case 'inner':
    case 'ratio':
      return Number((value + (own.x - was.x) / radius).toFixed(3));
    case 'start_deg':
    case 'sweep_deg':
    case 'whole_deg':
    case 'angle_deg': {
      const turned = angleOf({ x: 0, y: 0 }, own) - angleOf({ x: 0, y: 0 }, was);
      return Math.round(value + turned - 360 * Math.round(turned / 360));
    }
    case 'points':
    case 'sides':
    case 'count':
    case 'columns':
    case 'axes':
      return value + Math.round(pixels / DRAG_PIXELS);
    case 'tip':
      return Number((value + (was.y - own.y) / ('ry' in node ? node.ry : 1)).toFixed(2));
    case 'radius':
      return node.kind === 'repeat' ? value + reach : value + (own.x - was.x);
    case 'dy':
      return value + (own.y - was.y);
    default:
      return value + (own.x - was.x);
  }
}
