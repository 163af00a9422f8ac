// Shadows and depth as they are led on the desk: how far they reach, and where to.
import type { Look } from '@/api/types';
import type { Keys } from '@/desk/gestures';
import type { Point } from '@/marks/numbers';
import { angleOf, shortNumber } from '@/marks/numbers';

/** Something of a look that reaches from a shape some way across the plate. */
export interface Reaching {
  key: string;
  word: string;
  /** Where on the ring round the shape it is taken hold of, in degrees clockwise from the right. */
  rest: number;
  by: Point;
  /** What is painted, and what it reads, where the pointer has left it. */
  led(by: Point, keys: Keys, rounded: (value: number) => number): Led;
}

export interface Led {
  by: Point;
  text: string;
  fields: Partial<Look>;
}

const DEPTH_REST = 30;
const SHADOW_REST = 140;
const APART = 22;
/** The steps in which a depth turns with Shift, in degrees. */
const STEP = 15;
const ORIGIN = { x: 0, y: 0 };

/** What of a look reaches somewhere and is on. */
export function reachingOf(look: Look): Reaching[] {
  const many = look.shadows.length > 1;
  const shadows = look.shadows.flatMap((shadow, place): Reaching[] => {
    if (!shadow.on) return [];
    const led: Reaching['led'] = (by, keys, rounded) => {
      const flat = keys.shift && Math.abs(by.x) > Math.abs(by.y);
      const x = keys.shift && !flat ? 0 : rounded(by.x);
      const y = flat ? 0 : rounded(by.y);
      const moved = { ...shadow, dx: x, dy: y };
      return {
        by: { x, y },
        text: `→ ${shortNumber(x)} ↓ ${shortNumber(y)}`,
        fields: { shadows: look.shadows.map((each, i) => (i === place ? moved : each)) },
      };
    };
    return [
      {
        key: `shadow-${place}`,
        word: many ? `shadow ${place + 1}` : 'shadow',
        rest: SHADOW_REST + APART * place,
        by: { x: shadow.dx, y: shadow.dy },
        led,
      },
    ];
  });
  const { depth } = look;
  if (!depth?.on) return shadows;
  const led: Reaching['led'] = (by, keys, rounded) => {
    const length = rounded(Math.hypot(by.x, by.y));
    const step = keys.shift ? STEP : 1;
    const angle_deg = length ? step * Math.round(angleOf(ORIGIN, by) / step) : depth.angle_deg;
    const text = `${shortNumber(length)} · ${angle_deg}°`;
    return {
      by: along(length, angle_deg),
      text,
      fields: { depth: { ...depth, length, angle_deg } },
    };
  };
  const by = along(depth.length, depth.angle_deg);
  return [...shadows, { key: 'depth', word: 'depth', rest: DEPTH_REST, by, led }];
}

function along(length: number, degrees: number): Point {
  const turn = (degrees * Math.PI) / 180;
  return { x: length * Math.cos(turn), y: length * Math.sin(turn) };
}
