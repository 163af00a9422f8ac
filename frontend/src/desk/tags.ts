// Value tags: a primitive's parameters on the desk, where they can be dragged and typed.
import type { Figure, Node } from '@/api/types';
import { angleOf, intoOwnAxes, shortNumber } from '@/desk/gestures';
import type { Parameter } from '@/editor/shapes';
import { ownParameters } from '@/editor/shapes';
import type { Point } from '@/stores/view';

export interface Tag {
  parameter: Parameter;
  value: number;
  /** What the tag reads: "r 24", "7 points", "sweep 180°". */
  text: string;
  /** The value for a pointer dragged from ``from`` to ``to``. */
  dragged(from: Point, to: Point, zoom: number): number;
}

const DRAG_PIXELS = 14;

/** The value tags of a shape; none for what has no parameters of its own. */
export function tagsOf(node: Node, figure: Figure): Tag[] {
  const { matrix } = figure;
  const values = node as unknown as Record<string, number>;
  const parameters = ownParameters(node).filter(({ key, of }) => !of && !isIdle(node, key));
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
  if (node.kind !== 'ellipse' || node.sweep_deg !== 360) return false;
  return key === 'start_deg' || (!node.inner && ['sweep_deg', 'inner'].includes(key));
}

/** What a tag reads; of corners that do not fit also how large they are drawn. */
function reading({ key, word, unit }: Parameter, value: number, drawn?: number): string {
  const number = shortNumber(Number(value.toFixed(2)));
  if (drawn !== undefined) return `${word} ${shortNumber(Number(drawn.toFixed(2)))} of ${number}`;
  if (key === 'rx') return `r ${number}`;
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
    case 'sweep_deg': {
      const turned = angleOf({ x: 0, y: 0 }, own) - angleOf({ x: 0, y: 0 }, was);
      return Math.round(value + turned - 360 * Math.round(turned / 360));
    }
    case 'points':
    case 'sides':
      return value + Math.round(pixels / DRAG_PIXELS);
    case 'tip':
      return Number((value + (was.y - own.y) / ('ry' in node ? node.ry : 1)).toFixed(2));
    default:
      return value + (own.x - was.x);
  }
}
