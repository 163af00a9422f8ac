import { describe, expect, test } from 'vitest';

import type { Box } from '@/api/types';
import { placeOf, TAG_SIZE } from '@/desk/tags';

const DESK = { width: 800, height: 600 };
const box = (x0: number, y0: number, x1: number, y1: number): Box => ({ x0, y0, x1, y1 });
const MIDDLE = box(340, 240, 460, 360);
const COUNT = 4;

function taken(ring: Box, others: Box[]): Box {
  const { x, y } = placeOf(COUNT, ring, DESK, others);
  return box(x, y, x + TAG_SIZE.width, y + COUNT * TAG_SIZE.row);
}
function meet(one: Box, two: Box): boolean {
  return one.x0 < two.x1 && one.x1 > two.x0 && one.y0 < two.y1 && one.y1 > two.y0;
}

describe('a column of tags', () => {
  const right = box(480, 0, 800, 600);
  const left = box(0, 0, 320, 600);
  const below = box(0, 370, 800, 600);
  const above = box(0, 0, 800, 230);

  test.each([
    ['nothing', []],
    ['what lies on the right', [right]],
    ['what lies on both sides', [right, left]],
    ['what leaves room above alone', [right, left, below]],
    ['what leaves room on the right alone', [above, left, below]],
  ])('lies beside its ring, on none of %s', (_, others) => {
    const found = taken(MIDDLE, others);
    expect(meet(found, MIDDLE)).toBe(false);
    for (const other of others) expect(meet(found, other)).toBe(false);
  });

  test.each([
    ['the right', box(700, 240, 800, 340)],
    ['the left', box(0, 240, 100, 340)],
    ['a corner', box(720, 520, 800, 600)],
    ['all of it', box(-50, -50, 850, 650)],
  ])('stays on the desk where its ring takes %s', (_, ring) => {
    const found = taken(ring, []);
    expect(found.x0).toBeGreaterThanOrEqual(0);
    expect(found.y0).toBeGreaterThanOrEqual(0);
    expect(found.x1).toBeLessThanOrEqual(DESK.width);
    expect(found.y1).toBeLessThanOrEqual(DESK.height);
  });

  test('is on the right where that is as good as anywhere', () => {
    expect(taken(MIDDLE, []).x0).toBeGreaterThan(MIDDLE.x1);
  });
});
