// What is drawn from the band: its word, key and icon, and what is typed of it.
import type { Command } from '@/api/types';
import type { Fields } from '@/marks/commands';
import { commandOf } from '@/marks/commands';
import type { Point } from '@/marks/numbers';
import type { Ink } from '@/marks/paint';
import { lineOf } from '@/marks/paint';
import type { Parameter, Values } from '@/marks/parameters';
import * as typed from '@/marks/parameters';

/** How words are set that nobody has typed yet. */
export type Manner = Pick<
  Extract<Fields<'add-shape'>['node'], { kind: 'text' }>,
  'font' | 'size' | 'measure' | 'axes'
>;

/** What is drawn from the band. A ring is an ellipse with a hole. */
export type ShapeKind = 'ellipse' | 'rectangle' | 'polygon' | 'star' | 'drop' | 'ring' | 'arc';
export type Tool = ShapeKind | 'line' | 'path' | 'text';

export interface ShapeWord {
  kind: Tool;
  word: string;
  key: string;
  /** What one click asks for. */
  typed: readonly Parameter[];
  /** Its picture on the band, in a square of 24. */
  icon: string;
  /** Of what is drawn from end to end: the command that does it. */
  between?: Between;
}

/** What can be drawn, in the order of the band. */
const WORDS: { readonly [K in Tool]: Omit<ShapeWord, 'kind'> } = {
  ellipse: {
    word: 'Circle',
    key: '1',
    typed: [typed.radius, typed.diameter],
    icon: 'M3.5 12a8.5 8.5 0 0 1 17 0a8.5 8.5 0 0 1-17 0z',
  },
  rectangle: {
    word: 'Box',
    key: '2',
    typed: [typed.width, typed.height, typed.corner],
    icon: 'M5.5 5.5h13a2 2 0 0 1 2 2v9a2 2 0 0 1-2 2h-13a2 2 0 0 1-2-2v-9a2 2 0 0 1 2-2z',
  },
  polygon: {
    word: 'Polygon',
    key: '3',
    typed: [typed.sides, typed.radius, typed.side, typed.tall, typed.corner],
    icon: 'M12 3.5 20 9.5 17 19H7L4 9.5z',
  },
  star: {
    word: 'Star',
    key: '4',
    typed: [typed.points, typed.radius, typed.ratio],
    icon: 'M12 3l2.3 6.2 6.6.3-5.2 4.1 1.8 6.4L12 16.3 6.5 20l1.8-6.4L3.1 9.5l6.6-.3z',
  },
  drop: {
    word: 'Drop',
    key: '5',
    typed: [typed.radius, typed.tip],
    icon: 'M12 3c3 4.6 5.5 7.2 5.5 11a5.5 5.5 0 0 1-11 0c0-3.8 2.5-6.4 5.5-11z',
  },
  ring: {
    word: 'Ring',
    key: '6',
    typed: [typed.radius, { ...typed.inner, start: 0.6 }, typed.sweep],
    icon: 'M3.5 12a8.5 8.5 0 0 1 17 0a8.5 8.5 0 0 1-17 0zM8 12a4 4 0 0 1 8 0a4 4 0 0 1-8 0z',
  },
  line: {
    word: 'Line',
    key: '7',
    typed: [typed.length],
    icon: 'M5 19 19 5',
    between: lineBetween,
  },
  arc: {
    word: 'Arc',
    key: ';',
    typed: [typed.radius, typed.arcBegin, typed.arcSweep],
    between: arcBetween,
    icon: 'M3.5 17.500a8.500 8.500 0 0 1 17 0',
  },
  path: { word: 'Path', key: '8', typed: [], icon: 'M3.5 15C6 6 10.500 6 12 12s6 6 8.500-3' },
  text: {
    word: 'Letters',
    key: '9',
    typed: [],
    icon: 'M4 19 10 5h1l6 14M6.500 13.500h8M20.500 5v14',
  },
};

export const SHAPES: readonly ShapeWord[] = (Object.keys(WORDS) as Tool[]).map((kind) => ({
  ...WORDS[kind],
  kind,
}));

/** Ranges up to here are those of sizes, which grow with the plate. */
const LARGEST = 1e6;

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
      .map(({ key, start, max }) => [key, max >= LARGEST && start ? plain(start * share) : start]),
  );
}

export function shapeWord(kind: Tool): ShapeWord {
  return SHAPES.find((shape) => shape.kind === kind)!;
}

/** Of a line whose width nobody has typed. */
export const LINE_WIDTH = 2;

/** The height of a shape that is drawn as wide as ``width``, in its natural proportions. */
export function naturalHeight(kind: ShapeKind, across: number): number {
  return kind === 'drop' ? (across * (1 + typed.tip.start)) / 2 : across;
}

/** Where a new shape goes: on a plate, or into a shape of it. */
export type Onto = Pick<Fields<'add-shape'>, 'plate' | 'into'>;

/** The command that draws a shape of this box round its middle. */
export function drawn(
  kind: ShapeKind,
  onto: Onto,
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
    extent.ry = down / (1 + (others.tip ?? typed.tip.start));
    centre.y += down / 2 - extent.ry;
  }
  if (kind === 'ring') others.inner ??= 0.6;
  return added(onto, {
    kind: kind === 'ring' ? 'ellipse' : kind,
    id,
    name: shapeWord(kind).word,
    look: shapeWord(kind).between ? strokeOnly(ink) : ink,
    transform: { e: centre.x, f: centre.y },
    ...extent,
    ...others,
  } as Fields<'add-shape'>['node']);
}

/** The look of a new line or open path: a line in any case, and no fill. */
function strokeOnly(ink: Ink): Ink {
  const own = lineOf({ paint: ink.fill ?? '#22303C', width: LINE_WIDTH });
  return { ...ink, fill: null, lines: ink.lines.length ? ink.lines : [own] };
}

/** What a line or arc is placed and named by that is drawn from one point to another. */
function between(id: string, ink: Ink, word: string, from: Point, to: Point) {
  const reach = Math.hypot(to.x - from.x, to.y - from.y);
  const cos = (to.x - from.x) / reach;
  const sin = (to.y - from.y) / reach;
  const middle = { e: (from.x + to.x) / 2, f: (from.y + to.y) / 2 };
  const transform = { a: cos, b: sin, c: -sin, d: cos, ...middle };
  return { reach, node: { id, name: word, look: strokeOnly(ink), transform } };
}

/** The command that draws something between two points. */
export type Between = (onto: Onto, id: string, ink: Ink, from: Point, to: Point) => Command;

export function lineBetween(...[onto, id, ink, from, to]: Parameters<Between>): Command {
  const { node, reach } = between(id, ink, 'Line', from, to);
  return added(onto, { ...node, kind: 'line', length: reach });
}

/** A half circle from one point to the other, clockwise. */
export function arcBetween(...[onto, id, ink, from, to]: Parameters<Between>): Command {
  const { node, reach } = between(id, ink, 'Arc', from, to);
  const radius = reach / 2;
  return added(onto, {
    ...node,
    kind: 'arc',
    rx: radius,
    ry: radius,
    start_deg: typed.arcBegin.start,
    sweep_deg: typed.arcSweep.start,
  });
}

/** The command that draws a path; an open one gets a line and no fill. */
export function pathOf(onto: Onto, id: string, ink: Ink, data: string): Command {
  const look = data.endsWith('Z') ? ink : strokeOnly(ink);
  return added(onto, { kind: 'path', id, name: 'Path', look, data });
}

/** The command that adds a text whose first line is set from a point. */
export function textOf(
  onto: Onto,
  id: string,
  ink: Ink,
  at: Point,
  words: string,
  manner: Manner,
): Command {
  // As the core names it anew when other words are typed.
  const name = words.trim().split('\n')[0]!.trim().slice(0, 40).trim();
  const transform = { e: at.x, f: at.y };
  return added(onto, { kind: 'text', id, name, look: ink, transform, words, ...manner });
}

function added(onto: Onto, node: Fields<'add-shape'>['node']): Command {
  return commandOf('add-shape', { ...onto, node });
}
