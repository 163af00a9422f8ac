// What a drag on the desk does: small state machines that know no view.
import type { Command, CornerHandle, Figure } from '@/api/types';
import type { Mark, Snapped, Snapping } from '@/desk/snapping';
import { commandOf } from '@/marks/commands';
import { intoOwnAxes, turnAbout } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';
import { angleOf, shortNumber } from '@/marks/numbers';
import type { Ink } from '@/marks/paint';
import { draggedSize } from '@/marks/refinements';
import type { Between, Onto, ShapeKind } from '@/marks/shapes';
import { drawn, naturalHeight } from '@/marks/shapes';

export interface Keys {
  shift: boolean;
  alt: boolean;
  /** Ctrl or Cmd: nothing snaps while it is held. */
  free: boolean;
}

/** Waits at a press for what it becomes: a drag that starts a gesture, or a click. */
export type Press = (
  event: PointerEvent,
  start: (from: Point) => Gesture | null,
  click: () => void,
) => void;

/** What is shown while a gesture runs: its numbers, and why it snapped. */
export interface Said {
  text: string;
  marks?: Mark[];
}

/** One drag, from its first move to its end. */
export interface Gesture {
  /** The pointer is at ``at``, in the plate's units. */
  move(at: Point, keys: Keys): Said;
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

/** What the pointer's composables are given of the desk. */
export interface Desk {
  hands: Hands;
  press: Press;
  /** Where an event is on the desk, in pixels. */
  place(event: MouseEvent): Point;
  /** What the shapes with these ids snap to while they are moved. */
  snapperFor(ids: string[]): Snapping;
  element(): HTMLElement;
}

/** What is sized: one shape along its own axes, or the box round several. */
export type Sized = Pick<Figure, 'matrix' | 'box' | 'width' | 'height'>;

/** The command that gives a shape a size. */
export function resizing(id: string) {
  return (to: { width?: number; height?: number }, anchor: Point): Command =>
    commandOf('resize', { ids: [id], ...to, anchor: [anchor.x, anchor.y] });
}

/** The command that sizes several shapes with the box round them. */
export function stretching(ids: string[], { box, width, height }: Sized) {
  return (to: { width?: number; height?: number }, anchor: Point): Command => ({
    kind: 'stretch',
    ids,
    across: to.width === undefined ? 1 : to.width / width,
    down: to.height === undefined ? 1 : to.height / height,
    x: box.x0 + anchor.x * width,
    y: box.y0 + anchor.y * height,
  });
}

/** A new shape: where it goes, under which id, in which paint. */
export interface Fresh {
  onto: Onto;
  id: string;
  ink: Ink;
}

/** A point or way, rounded along each axis on which it did not snap. */
function rounded(hands: Hands, exact: Point, snapped: Snapped): Snapped {
  return {
    at: {
      x: snapped.at.x === exact.x ? hands.rounded(exact.x) : snapped.at.x,
      y: snapped.at.y === exact.y ? hands.rounded(exact.y) : snapped.at.y,
    },
    marks: snapped.marks,
  };
}

/** The pointer's place: snapped if anything is near, rounded if not; hardly rounded if free. */
export function landed(hands: Hands, snapper: Snapping, at: Point, keys: Keys): Snapped {
  return keys.free ? { at: fine(hands, at), marks: [] } : rounded(hands, at, snapper.point(at));
}

/** A point to a tenth of what points are rounded to: less than can be seen. */
function fine(hands: Hands, { x, y }: Point): Point {
  return { x: hands.rounded(10 * x) / 10, y: hands.rounded(10 * y) / 10 };
}

/** A length, rounded as points are. */
export function roundedLength(hands: Hands, length: number, keys: Keys): number {
  return keys.free ? fine(hands, { x: length, y: 0 }).x : hands.rounded(length);
}

/** Drags the handle of a corner along its bisector. */
export function cornerGesture(
  hands: Hands,
  corner: Pick<CornerHandle, 'turn_deg' | 'size' | 'shape'> & { inward: Point },
  from: Point,
  making: (size: number) => Command,
  take: (size: number) => Promise<void>,
  says: (size: number | null) => void,
): Gesture {
  let size = corner.size;
  return {
    move(at, keys) {
      const exact = draggedSize(corner, corner.inward, from, at);
      size = roundedLength(hands, exact, keys);
      says(size);
      hands.look(making(size));
      // Its value tag tells the size.
      return { text: '' };
    },
    async end() {
      const taken = size === corner.size ? hands.stopLooking() : take(size);
      says(null);
      await taken;
    },
    cancel() {
      hands.stopLooking();
      says(null);
    },
  };
}

/** The keys that are held at an event. */
export function keysOf(event: PointerEvent): Keys {
  return { shift: event.shiftKey, alt: event.altKey, free: event.ctrlKey || event.metaKey };
}

/** A gesture that shows what one command would do, and does it in the end. */
export function commandGesture(
  hands: Hands,
  next: (at: Point, keys: Keys) => { command: Command | null; said: Said },
): Gesture {
  let command: Command | null = null;
  return {
    move(at, keys) {
      const step = next(at, keys);
      command = step.command;
      if (command) hands.look(command);
      else hands.stopLooking();
      return step.said;
    },
    async end() {
      if (command) await hands.run(command);
    },
    cancel: () => hands.stopLooking(),
  };
}

/** A gesture after which something is done, however it ends. */
export function andThen(gesture: Gesture, after: () => void): Gesture {
  return {
    move: gesture.move,
    async end() {
      await gesture.end();
      after();
    },
    cancel() {
      gesture.cancel();
      after();
    },
  };
}

/** Draws a shape from corner to corner. Shift keeps proportions, Alt draws from the centre. */
export function drawGesture(
  hands: Hands,
  kind: ShapeKind,
  fresh: Fresh,
  snapper: Snapping,
  from: Point,
): Gesture {
  return commandGesture(hands, (at, keys) => {
    const start = landed(hands, snapper, from, keys).at;
    const { at: end, marks } = landed(hands, snapper, at, keys);
    let dx = end.x - start.x;
    let dy = end.y - start.y;
    if (keys.shift) {
      const tall = naturalHeight(kind, 1);
      const side = Math.max(Math.abs(dx), Math.abs(dy) / tall);
      dx = dx < 0 ? -side : side;
      dy = (dy < 0 ? -side : side) * tall;
    }
    const reach = keys.alt ? 2 : 1;
    const width = Math.abs(dx) * reach;
    const height = Math.abs(dy) * reach;
    if (width === 0 || height === 0) return { command: null, said: { text: '' } };
    const centre = keys.alt ? start : { x: start.x + dx / 2, y: start.y + dy / 2 };
    const { onto, id, ink } = fresh;
    return {
      command: drawn(kind, onto, id, ink, centre, { width, height }),
      said: { text: `${shortNumber(width)} × ${shortNumber(height)}`, marks },
    };
  });
}

/** Draws a line or arc from end to end; Shift turns it by steps of 15°, Alt begins in its middle. */
export function betweenGesture(
  hands: Hands,
  between: Between,
  fresh: Fresh,
  snapper: Snapping,
  from: Point,
): Gesture {
  return commandGesture(hands, (at, keys) => {
    const start = landed(hands, snapper, from, keys).at;
    const snapped = landed(hands, snapper, at, keys);
    const end = keys.shift ? stepped(start, at, hands) : snapped.at;
    const begin = keys.alt ? { x: 2 * start.x - end.x, y: 2 * start.y - end.y } : start;
    const length = Math.hypot(end.x - begin.x, end.y - begin.y);
    if (length === 0) return { command: null, said: { text: '' } };
    return {
      command: between(fresh.onto, fresh.id, fresh.ink, begin, end),
      said: {
        text: `${shortNumber(length)} at ${degreesOf(begin, end)}`,
        marks: keys.shift ? [] : snapped.marks,
      },
    };
  });
}

/** Moves one end of a line, the other stays; Shift turns it by steps of 15°. */
export function endGesture(
  hands: Hands,
  id: string,
  still: Point,
  atStart: boolean,
  snapper: Snapping,
): Gesture {
  return commandGesture(hands, (at, keys) => {
    const snapped = landed(hands, snapper, at, keys);
    const end = keys.shift ? stepped(still, at, hands) : snapped.at;
    const length = Math.hypot(end.x - still.x, end.y - still.y);
    if (length === 0) return { command: null, said: { text: '' } };
    const [fixed, moved]: [number, number][] = [
      [still.x, still.y],
      [end.x, end.y],
    ];
    return {
      command: {
        kind: 'set-ends',
        id,
        start: atStart ? moved! : fixed!,
        end: atStart ? fixed! : moved!,
      },
      said: {
        text: `${shortNumber(length)} at ${degreesOf(still, end)}`,
        marks: keys.shift ? [] : snapped.marks,
      },
    };
  });
}

/** Bends an arc: moves one of the three points that it goes through, the others stay. */
export function throughGesture(
  hands: Hands,
  id: string,
  points: readonly Point[],
  held: number,
  snapper: Snapping,
): Gesture {
  return commandGesture(hands, (at, keys) => {
    const { at: end, marks } = landed(hands, snapper, at, keys);
    const [first, middle, last] = points.map((point, i) => (i === held ? end : point));
    const pair = ({ x, y }: Point): [number, number] => [x, y];
    return {
      command: { kind: 'set-through', id, points: [pair(first!), pair(middle!), pair(last!)] },
      said: { text: `${shortNumber(end.x)}, ${shortNumber(end.y)}`, marks },
    };
  });
}

/**
 * Moves shapes; Shift keeps to one axis, Alt leaves a copy. ``show`` draws the move where no
 * result depends on it; ``done`` is told the move, and the seed of copies if it made some.
 */
export function moveGesture(
  hands: Hands,
  ids: string[],
  live: boolean,
  from: Point,
  snapper: Snapping,
  show: (by: Point) => void,
  done: (by: Point, copies: string | null) => void,
  seed: string,
): Gesture {
  let by = { x: 0, y: 0 };
  let copy = false;
  const command = (): Command =>
    copy
      ? commandOf('duplicate', { ids, seed, by: { e: by.x, f: by.y } })
      : commandOf('transform', { ids, by: { e: by.x, f: by.y } });
  return {
    move(at, keys) {
      const exact = { x: at.x - from.x, y: at.y - from.y };
      const snapped = keys.free
        ? { at: fine(hands, exact), marks: [] }
        : rounded(hands, exact, snapper.move(exact));
      by = snapped.at;
      if (keys.shift)
        by = Math.abs(exact.x) > Math.abs(exact.y) ? { x: by.x, y: 0 } : { x: 0, y: by.y };
      copy = keys.alt;
      if (live || copy) hands.look(command());
      else hands.stopLooking();
      show(live || copy ? { x: 0, y: 0 } : by);
      const text = `${shortNumber(by.x)}, ${shortNumber(by.y)}${copy ? ' · a copy' : ''}`;
      return { text, marks: keys.shift ? [] : snapped.marks };
    },
    async end() {
      if (by.x || by.y) {
        if (await hands.run(command())) done(by, copy ? seed : null);
      } else hands.stopLooking();
      show({ x: 0, y: 0 });
    },
    cancel() {
      hands.stopLooking();
      show({ x: 0, y: 0 });
    },
  };
}

/**
 * Resizes a shape along its own axes from the grip at the fractions ``grip`` of its box; 0.5
 * is a side's middle, which stretches one way only. Shift keeps its proportions, Alt its
 * centre; else the opposite side stays. ``sized`` is the command that does it.
 */
export function resizeGesture(
  hands: Hands,
  figure: Sized,
  grip: Point,
  from: Point,
  sized: (to: { width?: number; height?: number }, anchor: Point) => Command,
): Gesture {
  const { matrix, box } = figure;
  // Grips lie a little off the box: what counts is how far they are dragged.
  const held = intoOwnAxes(matrix, from);
  const off = {
    x: held.x - (box.x0 + grip.x * (box.x1 - box.x0)),
    y: held.y - (box.y0 + grip.y * (box.y1 - box.y0)),
  };
  const scale = { x: Math.hypot(matrix.a, matrix.b), y: Math.hypot(matrix.c, matrix.d) };
  return commandGesture(hands, (at, keys) => {
    const anchor = keys.alt ? { x: 0.5, y: 0.5 } : { x: 1 - grip.x, y: 1 - grip.y };
    const own = intoOwnAxes(matrix, at);
    const least = hands.step();
    const along = (share: number, value: number, low: number, high: number, unit: number) => {
      if (share === 0.5) return null;
      const still = low + (keys.alt ? 0.5 : 1 - share) * (high - low);
      const reach = (value - still) * (share ? 1 : -1) * (keys.alt ? 2 : 1) * unit;
      return Math.max(least, hands.rounded(reach));
    };
    let width = along(grip.x, own.x - off.x, box.x0, box.x1, scale.x);
    let height = along(grip.y, own.y - off.y, box.y0, box.y1, scale.y);
    if (keys.shift) {
      const factor = Math.max((width ?? 0) / figure.width, (height ?? 0) / figure.height);
      width = figure.width * factor;
      height = figure.height * factor;
    }
    return {
      command: sized(
        {
          ...(width === null || figure.width === 0 ? {} : { width }),
          ...(height === null || figure.height === 0 ? {} : { height }),
        },
        anchor,
      ),
      said: {
        text: `${shortNumber(width ?? figure.width)} × ${shortNumber(height ?? figure.height)}`,
      },
    };
  });
}

/**
 * Turns shapes about a point: by steps of 15° inside the ring, freely beyond it. Alt leaves a
 * copy. ``before`` is the angle of a single shape, so that steps are those of its own angle.
 */
export function turnGesture(
  hands: Hands,
  ids: string[],
  about: { centre: Point; ring: number; before: number | null },
  from: Point,
  done: (by: ReturnType<typeof turnAbout>, copies: string | null) => void,
  seed: string,
): Gesture {
  const { centre, ring } = about;
  const before = about.before ?? 0;
  const first = angleOf(centre, from);
  let degrees = 0;
  let copy = false;
  const gesture = commandGesture(hands, (at, keys) => {
    const inside = Math.hypot(at.x - centre.x, at.y - centre.y) <= ring;
    const turned = angleOf(centre, at) - first;
    const exact =
      inside || keys.shift
        ? Math.round((before + turned) / 15) * 15 - before
        : Math.round(turned * 10) / 10;
    degrees = normal(exact);
    copy = keys.alt;
    const by = turnAbout(centre, degrees);
    const command: Command = copy
      ? { kind: 'duplicate', ids, seed, by }
      : { kind: 'transform', ids, by };
    const text = `${shortNumber(normal(before + degrees))}°${copy ? ' · a copy' : ''}`;
    return { command: degrees ? command : null, said: { text } };
  });
  return {
    ...gesture,
    async end() {
      await gesture.end();
      if (degrees) done(turnAbout(centre, degrees), copy ? seed : null);
    },
  };
}

/** Angles from −180 (left out) to 180. */
function normal(degrees: number): number {
  const turned = degrees - 360 * Math.round(degrees / 360);
  return turned === -180 ? 180 : Number(turned.toFixed(6));
}

function degreesOf(from: Point, to: Point): string {
  return `${shortNumber(Number(angleOf(from, to).toFixed(1)))}°`;
}

/** The point at the nearest step of 15° round ``centre``, as far away as ``at``. */
export function stepped(centre: Point, at: Point, hands: Hands): Point {
  const length = hands.rounded(Math.hypot(at.x - centre.x, at.y - centre.y));
  const degrees = Math.round(angleOf(centre, at) / 15) * 15;
  const { a, b } = turnAbout({ x: 0, y: 0 }, degrees);
  return { x: centre.x + length * a, y: centre.y + length * b };
}
