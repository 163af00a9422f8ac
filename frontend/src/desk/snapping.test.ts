import { describe, expect, test } from 'vitest';

import type { Box, SnapTargets } from '@/api/types';
import type { Surroundings } from '@/desk/snapping';
import { Snapper } from '@/desk/snapping';

const OFF = {
  centre: false,
  node: false,
  midpoint: false,
  quadrant: false,
  crossing: false,
  edge: false,
  tangent: false,
  gap: false,
  plate: false,
  guide: false,
  grid: false,
};
const box = (x0: number, y0: number, x1: number, y1: number): Box => ({ x0, y0, x1, y1 });
const MOVING = new Set(['mine']);

/** A shape of the plate, told by its box. */
function shape(id: string, bounds: Box, guide = false) {
  return { id, name: id, guide, bounds };
}

type Over = Partial<Omit<Surroundings, 'on'>> & { on?: Partial<Surroundings['on']> };

function around(over: Over): Surroundings {
  return {
    targets: null,
    shapes: [],
    plate: { width: 256, height: 256 },
    grid: 8,
    reach: 5,
    ...over,
    on: { ...OFF, ...over.on },
  };
}

/** Key points: [x, y, kind, of, and]. */
function targets(
  shapes: string[],
  points: [number, number, SnapTargets['kind'][number], number, number?][],
  circles: SnapTargets['circles'] = [],
): SnapTargets {
  return {
    shapes,
    x: points.map(([x]) => x),
    y: points.map(([, y]) => y),
    kind: points.map(([, , kind]) => kind),
    shape: points.map(([, , , of]) => of),
    other: points.map(([, , , , and = -1]) => and),
    circles,
  };
}

const hull = shape('hull', box(20, 20, 60, 60));
const mine = shape('mine', box(100, 100, 120, 120));

describe('a point', () => {
  const points = targets(
    ['hull', 'mine'],
    [
      [40, 40, 'centre', 0],
      [43, 40, 'node', 0],
      [100, 100, 'node', 1],
    ],
  );
  const snapper = (on: Partial<Surroundings['on']>) =>
    new Snapper(around({ targets: points, shapes: [hull, mine], on }), MOVING);

  test('goes to the nearest key point that is switched on, and says which', () => {
    const both = { centre: true, node: true };
    expect(snapper(both).point({ x: 42, y: 40 })).toMatchObject({ at: { x: 43, y: 40 } });
    expect(snapper({ centre: true }).point({ x: 42, y: 41 })).toMatchObject({
      at: { x: 40, y: 40 },
      marks: [{ says: 'centre of hull' }],
    });
  });

  test.each([
    ['is too far', { x: 48.01, y: 40 }, { node: true }],
    ['is of what moves', { x: 100, y: 101 }, { node: true }],
    ['is switched off', { x: 41, y: 41 }, {}],
  ])('stays where it is where what is near %s', (_, at, on) => {
    expect(snapper(on).point(at)).toEqual({ at, marks: [] });
  });

  test('else it goes on to levels, each axis by itself', () => {
    const at = snapper({ centre: true }).point({ x: 41, y: 90 });
    expect(at).toMatchObject({ at: { x: 40, y: 90 }, marks: [{ says: 'in line with hull' }] });
    const edge = snapper({ edge: true }).point({ x: 58, y: 17 });
    expect(edge.at).toEqual({ x: 60, y: 20 });
  });

  test('else to the grid, without a word', () => {
    expect(snapper({ grid: true }).point({ x: 99, y: 13 })).toEqual({
      at: { x: 96, y: 16 },
      marks: [],
    });
  });

  test('the plate has edges and a centre', () => {
    expect(snapper({ plate: true }).point({ x: 129, y: 126 })).toMatchObject({
      at: { x: 128, y: 128 },
      marks: [{ says: 'plate centre' }],
    });
    expect(snapper({ plate: true }).point({ x: 254, y: 60 }).at).toEqual({ x: 256, y: 60 });
  });

  test('guides count where guides are switched on, whatever the kind', () => {
    const guide = shape('hull', hull.bounds, true);
    const at = (on: Partial<Surroundings['on']>) =>
      new Snapper(around({ targets: points, shapes: [guide], on }), MOVING).point({ x: 41, y: 40 })
        .at.x;
    expect(at({ node: true })).toBe(41);
    expect(at({ guide: true })).toBe(40);
  });

  test('a crossing needs both of its shapes', () => {
    const crossing = targets(['hull', 'mine'], [[50, 50, 'crossing', 0, 1]]);
    const on = { crossing: true };
    const near = { x: 51, y: 50 };
    const free = around({ targets: crossing, shapes: [hull, mine], on });
    expect(new Snapper(free, new Set()).point(near).at.x).toBe(50);
    expect(new Snapper(free, MOVING).point(near).at.x).toBe(51);
  });
});

describe('a move', () => {
  const moves = (
    on: Partial<Surroundings['on']>,
    shapes = [hull, mine],
    points: SnapTargets | null = null,
  ) => new Snapper(around({ targets: points, shapes, on }), MOVING, mine.bounds);

  test('brings a point of what is in hand on a point of another, centre on centre first', () => {
    const points = targets(
      ['hull', 'mine'],
      [
        [40, 40, 'centre', 0],
        [110, 110, 'centre', 1],
        [120, 110, 'node', 1],
      ],
    );
    const found = moves({ centre: true }, undefined, points).move({ x: -72, y: -70 });
    expect(found).toMatchObject({
      at: { x: -70, y: -70 },
      marks: [{ says: 'same centre as hull' }],
    });
  });

  test.each([
    ['left on left', { x: -78, y: 0 }, { x: -80, y: 0 }],
    ['right on left', { x: -101, y: 0 }, { x: -100, y: 0 }],
    ['top on bottom', { x: 0, y: -42 }, { x: 0, y: -40 }],
  ])('brings edges together: %s', (_, by, to) => {
    expect(moves({ edge: true }).move(by).at).toEqual(to);
  });

  test('makes gaps equal, between two and after two', () => {
    const row = [
      shape('one', box(0, 100, 20, 120)),
      shape('two', box(50, 100, 70, 120)),
      shape('far', box(200, 100, 220, 120)),
      mine,
    ];
    // One, a gap of 30, two: after it another 30.
    const after = moves({ gap: true }, row.slice(0, 2).concat(mine)).move({ x: 1, y: 0 });
    expect(after).toMatchObject({ at: { x: 0, y: 0 }, marks: [{ says: 'equal gaps' }] });
    // Between two and far there are 130, of which 20 are in hand: 55 on both sides.
    expect(moves({ gap: true }, row).move({ x: 23, y: 0 }).at.x).toBe(25);
    // Not across: what lies elsewhere along the other axis is no neighbour.
    expect(moves({ gap: true }, row).move({ x: 23, y: 60 }).at.x).toBe(23);
  });

  test.each([
    ['from outside', { x: 31, y: 0 }, { x: 30, y: 0 }],
    ['from inside', { x: 51, y: 0 }, { x: 50, y: 0 }],
  ])('makes circles touch %s', (_, by, to) => {
    const circles: SnapTargets['circles'] = [
      [150, 50, 20, 0],
      [90, 50, 10, 1],
    ];
    const points = targets(['hull', 'mine'], [], circles);
    const found = moves({ tangent: true }, undefined, points).move(by);
    expect(found.at.x).toBeCloseTo(to.x, 12);
    expect(found.marks[0]!.says).toBe('tangent to hull');
  });

  test('is what it is where nothing is near', () => {
    const by = { x: 31.25, y: -7.5 };
    expect(moves({ edge: true, gap: true, tangent: true, centre: true }).move(by)).toEqual({
      at: by,
      marks: [],
    });
  });
});
