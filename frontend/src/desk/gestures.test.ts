import { describe, expect, test } from 'vitest';

import type { Command } from '@/api/types';
import type { Gesture, Hands, Keys } from '@/desk/gestures';
import {
  betweenGesture,
  drawGesture,
  endGesture,
  moveGesture,
  throughGesture,
  turnGesture,
} from '@/desk/gestures';
import type { Point } from '@/marks/numbers';
import { arcBetween, lineBetween } from '@/marks/shapes';

const NONE: Keys = { shift: false, alt: false, free: false };
const SHIFT = { ...NONE, shift: true };
const ALT = { ...NONE, alt: true };
const FREE = { ...NONE, free: true };
const ink = { fill: '#3F7355', lines: [], opacity: 1 };
const fresh = { onto: { plate: 'quay' }, id: 'new', ink };
const origin = { x: 0, y: 0 };

/** Hands that round to whole units, and remember what they did and what they showed. */
function recording() {
  const ran: Command[] = [];
  const shown: (Command | null)[] = [];
  const hands: Hands = {
    look: (command) => shown.push(command),
    stopLooking: () => shown.push(null),
    run: async (command) => (ran.push(command), true),
    rounded: Math.round,
    step: () => 1,
  };
  return { hands, ran, shown };
}

/** Snaps nothing, but what comes within two units of x = 50 to that. */
const snapper = {
  point: (at: Point) =>
    Math.abs(at.x - 50) < 2 ? { at: { x: 50, y: at.y }, marks: [] } : { at, marks: [] },
  move: (by: Point) => ({ at: by, marks: [] }),
};

async function dragged(gesture: Gesture, to: Point, keys: Keys = NONE): Promise<string> {
  const { text } = gesture.move(to, keys);
  await gesture.end();
  return text;
}

describe('drawing in a box', () => {
  const cases: [string, Keys, Point, { x: number; y: number; width: number; height: number }][] = [
    [
      'from corner to corner, rounded',
      NONE,
      { x: 30.4, y: 20.2 },
      { x: 15, y: 10, width: 30, height: 20 },
    ],
    [
      'with Shift as high as wide',
      SHIFT,
      { x: 30, y: 20 },
      { x: 15, y: 15, width: 30, height: 30 },
    ],
    ['with Alt from its middle', ALT, { x: 30, y: 20 }, { x: 0, y: 0, width: 60, height: 40 }],
    ['to what it snaps to', NONE, { x: 48.6, y: 20 }, { x: 25, y: 10, width: 50, height: 20 }],
    [
      'with Ctrl past that, to a tenth',
      FREE,
      { x: 48.62, y: 20 },
      { x: 24.3, y: 10, width: 48.6, height: 20 },
    ],
    ['backwards', NONE, { x: -30, y: -20 }, { x: -15, y: -10, width: 30, height: 20 }],
  ];
  test.each(cases)('%s', async (_, keys, to, box) => {
    const { hands, ran } = recording();
    await dragged(drawGesture(hands, 'rectangle', fresh, snapper, origin), to, keys);
    expect(ran).toHaveLength(1);
    expect(ran[0]).toMatchObject({
      kind: 'add-shape',
      plate: 'quay',
      node: {
        width: expect.closeTo(box.width),
        height: expect.closeTo(box.height),
        transform: { e: expect.closeTo(box.x), f: expect.closeTo(box.y) },
        look: ink,
      },
    });
  });

  test('of no width is nothing, and what was shown is taken back', async () => {
    const { hands, ran, shown } = recording();
    await dragged(drawGesture(hands, 'star', fresh, snapper, origin), { x: 0.2, y: 30 });
    expect([ran, shown]).toEqual([[], [null]]);
  });
});

describe('drawing from end to end', () => {
  test('a line and the half circle over it have the same ends', async () => {
    const { hands, ran } = recording();
    const to = { x: 30, y: 40 };
    for (const between of [lineBetween, arcBetween])
      await dragged(betweenGesture(hands, between, fresh, snapper, origin), to);
    expect(ran).toMatchObject([
      { node: { kind: 'line', length: 50, transform: { a: 0.6, b: 0.8, e: 15, f: 20 } } },
      { node: { kind: 'arc', rx: 25, ry: 25, transform: { a: 0.6, b: 0.8, e: 15, f: 20 } } },
    ]);
    // Neither is filled, and both have a line, in the colour of the fill.
    for (const { node } of ran as { node: { look: object } }[])
      expect(node.look).toMatchObject({ fill: null, lines: [{ paint: ink.fill, width: 2 }] });
  });

  test('Shift turns by steps of 15°, and Alt begins in the middle', async () => {
    const { hands, ran } = recording();
    const gesture = () => betweenGesture(hands, lineBetween, fresh, snapper, origin);
    expect(await dragged(gesture(), { x: 40, y: 1 }, SHIFT)).toBe('40 at 0°');
    await dragged(gesture(), { x: 40, y: 0 }, ALT);
    expect(ran).toMatchObject([
      { node: { length: 40, transform: { e: 20, f: 0 } } },
      { node: { length: 80, transform: { e: 0, f: 0 } } },
    ]);
  });

  test('an end is put elsewhere, and an arc bent by any of its points', async () => {
    const { hands, ran } = recording();
    await dragged(endGesture(hands, 'rope', origin, true, snapper), { x: 7, y: 9 });
    const points = [origin, { x: 10, y: -10 }, { x: 20, y: 0 }];
    await dragged(throughGesture(hands, 'arch', points, 1, snapper), { x: 10, y: -4 });
    expect(ran).toEqual([
      { kind: 'set-ends', id: 'rope', start: [7, 9], end: [0, 0] },
      {
        kind: 'set-through',
        id: 'arch',
        points: [
          [0, 0],
          [10, -4],
          [20, 0],
        ],
      },
    ]);
  });
});

describe('moving', () => {
  const moving = (live: boolean) => {
    const record = recording();
    const by: Point[] = [];
    const done: [Point, string | null][] = [];
    const gesture = moveGesture(
      record.hands, ['disc'], live, origin, snapper,
      (at) => by.push(at), (at, copies) => done.push([at, copies]), 'seed',
    ); // prettier-ignore
    return { ...record, by, done, gesture };
  };

  test('Shift keeps to the axis along which it goes further', async () => {
    const { gesture, ran, done } = moving(false);
    await dragged(gesture, { x: 9, y: 20 }, SHIFT);
    expect(ran).toEqual([{ kind: 'transform', ids: ['disc'], by: { e: 0, f: 20 } }]);
    expect(done).toEqual([[{ x: 0, y: 20 }, null]]);
  });

  test('Alt leaves a copy under a seed, and what no result hangs on moves by itself', async () => {
    const { gesture, ran, by, shown } = moving(false);
    gesture.move({ x: 5, y: 0 }, NONE);
    expect([by, shown]).toEqual([[{ x: 5, y: 0 }], [null]]);
    await dragged(gesture, { x: 6, y: 0 }, ALT);
    expect(ran).toMatchObject([{ kind: 'duplicate', seed: 'seed', by: { e: 6, f: 0 } }]);
  });

  test('what a result hangs on is shown by the core, and Esc takes all back', () => {
    const { gesture, ran, by, shown } = moving(true);
    gesture.move({ x: 5, y: 0 }, NONE);
    gesture.cancel();
    expect(shown).toMatchObject([{ kind: 'transform' }, null]);
    expect([by.at(-1), ran]).toEqual([origin, []]);
  });
});

describe('turning by the ring', () => {
  const cases: [string, Point, Keys, number, number | null][] = [
    ['inside it by steps of 15°', { x: 6, y: 7 }, NONE, 45, null],
    ['beyond it freely', { x: 40, y: 7 }, NONE, 9.9, null],
    ['beyond it with Shift by steps', { x: 40, y: 7 }, SHIFT, 15, null],
    ['to steps of its own angle, whatever it stood at', { x: 6, y: 7 }, NONE, 55, 5],
  ];
  test.each(cases)('%s', async (_, to, keys, degrees, before) => {
    const { hands, ran } = recording();
    const about = { centre: origin, ring: 20, before };
    const turned: object[] = [];
    const gesture = turnGesture(
      hands, ['disc'], about, { x: 20, y: 0 }, (by) => turned.push(by), 'seed',
    ); // prettier-ignore
    const said = await dragged(gesture, to, keys);
    expect(said).toBe(`${degrees + (before ?? 0)}°`);
    const cos = Math.cos((degrees * Math.PI) / 180);
    expect(ran).toMatchObject([{ kind: 'transform', by: { a: expect.closeTo(cos) } }]);
    expect(turned).toHaveLength(1);
  });
});
