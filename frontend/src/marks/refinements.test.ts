import { expect, test } from 'vitest';

import type { CornerShape } from '@/api/types';
import { draggedSize, reachPerSize, sizeTag } from '@/marks/refinements';

const right = { turn_deg: 90, size: 0 };
const cases: [CornerShape, number][] = [
  ['round', Math.SQRT2 - 1],
  ['straight', Math.SQRT1_2],
  ['hollow', 1],
];

test.each(cases)('a %s corner follows the pointer along its bisector', (shape, reach) => {
  expect(reachPerSize(right, shape)).toBeCloseTo(reach, 12);
  // Two plate units for each of the shape's own: as much along the way as the arc reaches.
  const inward = { x: 0, y: 2 };
  const to = { x: 5, y: 2 * 6 * reach };
  expect(draggedSize({ ...right, shape }, inward, { x: 0, y: 0 }, to)).toBeCloseTo(6, 12);
});

test('no corner is dragged below nothing', () => {
  const corner = { ...right, size: 3, shape: 'round' as const };
  expect(draggedSize(corner, { x: 1, y: 0 }, { x: 0, y: 0 }, { x: -99, y: 0 })).toBe(0);
});

test('a tag tells what is asked for, and what fits', () => {
  expect(sizeTag('round', 6)).toBe('r 6');
  expect(sizeTag('hollow', 30, 12.345)).toBe('hollow 12.35 of 30');
});
