// What a drag on the desk does: small state machines that know no view.
import type { Command, Figure } from '@/api/types';
import type { ShapeKind } from '@/editor/shapes';
import { drawn } from '@/editor/shapes';
import type { Point } from '@/stores/view';

export interface Keys {
  shift: boolean;
  alt: boolean;
}

/** One drag, from its first move to its end. */
export interface Gesture {
  /** The pointer is at ``at``, in the plate's units; answers the numbers to be shown. */
  move(at: Point, keys: Keys): string;
  end(): Promise<void>;
  cancel(): void;
}

/** What gestures do with a command, and how they round. */
export interface Hands {
  look(command: Command): void;
  stopLooking(): void;
  run(command: Command): Promise<boolean>;
  rounded(value: number): number;
  step(): number;
}

/** Draws a shape from corner to corner. Shift makes sides equal, Alt draws from the centre. */
export function drawGesture(
  hands: Hands,
  shape: { kind: ShapeKind; plate: string; id: string; fill: string },
  from: Point,
): Gesture {
  const start = { x: hands.rounded(from.x), y: hands.rounded(from.y) };
  let command: Command | null = null;
  return {
    move(at, keys) {
      let dx = hands.rounded(at.x) - start.x;
      let dy = hands.rounded(at.y) - start.y;
      if (keys.shift) {
        const side = Math.max(Math.abs(dx), Math.abs(dy));
        dx = dx < 0 ? -side : side;
        dy = dy < 0 ? -side : side;
      }
      const reach = keys.alt ? 2 : 1;
      const width = Math.abs(dx) * reach;
      const height = Math.abs(dy) * reach;
      if (width === 0 || height === 0) {
        command = null;
        hands.stopLooking();
        return '';
      }
      const centre = keys.alt ? start : { x: start.x + dx / 2, y: start.y + dy / 2 };
      command = drawn(shape.kind, shape.plate, shape.id, shape.fill, centre, { width, height });
      hands.look(command);
      return `${shortNumber(width)} × ${shortNumber(height)}`;
    },
    async end() {
      if (command) await hands.run(command);
    },
    cancel: () => hands.stopLooking(),
  };
}

/** Moves shapes; Shift keeps to one axis. ``show`` draws the move where no result depends on it. */
export function moveGesture(
  hands: Hands,
  ids: string[],
  live: boolean,
  from: Point,
  show: (by: Point) => void,
): Gesture {
  let by = { x: 0, y: 0 };
  const command = (): Command => ({ kind: 'transform', ids, by: { e: by.x, f: by.y } }) as Command;
  return {
    move(at, keys) {
      by = { x: hands.rounded(at.x - from.x), y: hands.rounded(at.y - from.y) };
      if (keys.shift) by = Math.abs(by.x) > Math.abs(by.y) ? { ...by, y: 0 } : { ...by, x: 0 };
      if (live) hands.look(command());
      else show(by);
      return `${shortNumber(by.x)}, ${shortNumber(by.y)}`;
    },
    async end() {
      if (by.x || by.y) await hands.run(command());
      else hands.stopLooking();
      show({ x: 0, y: 0 });
    },
    cancel() {
      hands.stopLooking();
      show({ x: 0, y: 0 });
    },
  };
}

/**
 * Resizes a shape along its own axes from the corner at the fractions ``corner`` of its box.
 * Shift keeps its proportions, Alt its centre; else the opposite corner stays.
 */
export function resizeGesture(hands: Hands, figure: Figure, corner: Point): Gesture {
  const { matrix, box } = figure;
  const scale = { x: Math.hypot(matrix.a!, matrix.b!), y: Math.hypot(matrix.c!, matrix.d!) };
  let command: Command | null = null;
  return {
    move(at, keys) {
      const anchor = keys.alt ? { x: 0.5, y: 0.5 } : { x: 1 - corner.x, y: 1 - corner.y };
      const still = {
        x: box.x0 + anchor.x * (box.x1 - box.x0),
        y: box.y0 + anchor.y * (box.y1 - box.y0),
      };
      const own = intoOwnAxes(matrix, at);
      const reach = keys.alt ? 2 : 1;
      const least = hands.step();
      const sign = { x: corner.x ? 1 : -1, y: corner.y ? 1 : -1 };
      let width = Math.max(least, hands.rounded((own.x - still.x) * sign.x * reach * scale.x));
      let height = Math.max(least, hands.rounded((own.y - still.y) * sign.y * reach * scale.y));
      if (keys.shift) {
        const factor = Math.max(width / figure.width, height / figure.height);
        width = figure.width * factor;
        height = figure.height * factor;
      }
      command = { kind: 'resize', id: figure.id, width, height, anchor: [anchor.x, anchor.y] };
      hands.look(command);
      return `${shortNumber(width)} × ${shortNumber(height)}`;
    },
    async end() {
      if (command) await hands.run(command);
    },
    cancel: () => hands.stopLooking(),
  };
}

/** A number as short as it can be read: up to four decimals. */
export function shortNumber(value: number): string {
  return String(Number(value.toFixed(4)));
}

function intoOwnAxes(matrix: Figure['matrix'], at: Point): Point {
  const inverse = new DOMMatrix([
    matrix.a!,
    matrix.b!,
    matrix.c!,
    matrix.d!,
    matrix.e!,
    matrix.f!,
  ]).inverse();
  const own = inverse.transformPoint(at);
  return { x: own.x, y: own.y };
}
