import { describe, expect, test } from 'vitest';

import type { PickedRegion, RegionMap, RegionSpot } from '@/api/types';
import type { Picks } from '@/marks/strokes';
import { drop, fuse, keep, paint, pickOf, picksOf, pieces, place, toStored } from '@/marks/strokes';

/** Picks in short: "0 | 1 2 | -3" keeps 0, fuses 1 and 2, and drops 3. */
function picks(said: string): Picks {
  return said
    .split('|')
    .map((each) => each.trim())
    .filter(Boolean)
    .map((each) => ({
      spots: each.match(/\d+/g)!.map(Number),
      lost: [],
      dropped: each.startsWith('-'),
      fill: null,
    }));
}
function said(of: Picks): string {
  return of.map(({ spots, dropped }) => (dropped ? '-' : '') + spots.join(' ')).join(' | ');
}
const region = (...cover: string[]): PickedRegion => ({ cover, x: 0, y: 0 });

describe('keep makes a region a piece, and one of the rest again', () => {
  test.each([
    ['', 4, '4'],
    ['0', 4, '0 | 4'],
    ['0 | 4', 4, '0'],
    ['0 4', 4, '0 | 4'],
    ['-4 5', 4, '-5 | 4'],
  ])('%j and %d make %j', (before, spot, after) => {
    expect(said(keep(picks(before), spot))).toBe(after);
  });
});

describe('fuse makes one piece of regions and their pieces, in the place of the first', () => {
  test.each([
    ['', [1, 2], '1 2'],
    ['0 | 1', [1, 2], '0 | 1 2'],
    ['0 1 | 2 3 | 4', [3, 0], '0 1 2 3 | 4'],
    ['0 | -1 2', [0, 1], '0 1 | -2'],
    ['0', [0], '0'],
  ])('%j and %j make %j', (before, spots, after) => {
    expect(said(fuse(picks(before), spots))).toBe(after);
  });

  test('it keeps the colour of the first', () => {
    const coloured = paint(picks('0 | 1'), 0, '#B8452E');
    expect(fuse(coloured, [1, 0])[0]!.fill).toBe('#B8452E');
  });
});

describe('drop lets regions go, and takes that back where all of them went', () => {
  test.each([
    ['0 1', [1], '0 | -1'],
    ['-1', [2], '-1 2'],
    ['-1 2', [1, 2], ''],
    ['-1 2', [1], '-2'],
    ['-1', [1, 2], '-1 2'],
  ])('%j and %j make %j', (before, spots, after) => {
    expect(said(drop(picks(before), spots))).toBe(after);
  });
});

test('paint gives a piece a colour, and makes one of what is none', () => {
  const painted = paint(picks('0 1 | -2'), 2, '#3F7355');
  expect(said(painted)).toBe('0 1 | 2');
  expect(pickOf(painted, 2)!.fill).toBe('#3F7355');
  expect(pickOf(painted, 0)!.fill).toBeNull();
  expect(pieces(picks('0 | -1'))).toHaveLength(1);
});

test('a lost region is put on another spot, or forgotten', () => {
  const gone = region('mast');
  const before: Picks = [{ spots: [0], lost: [gone], dropped: false, fill: null }, ...picks('5')];
  const mended = place(before, before[0]!, gone, 5);
  expect(said(mended)).toBe('0 5');
  expect(mended[0]!.lost).toEqual([]);
  expect(said(place(before, before[0]!, gone, null))).toBe('0 | 5');
});

test('what is stored comes back as it was, what was lost too', () => {
  const spots = [region('a'), region('b'), region('a', 'b')].map(
    (pick) => ({ pick }) as RegionSpot,
  );
  const map = { spots } as RegionMap;
  const lost = region('c');
  const before: Picks = [
    { spots: [2, 0], lost: [lost], dropped: false, fill: '#1D6A83' },
    { spots: [1], lost: [], dropped: true, fill: null },
  ];
  const stored = toStored(before, map);
  expect(stored[0]!.regions).toEqual([spots[2]!.pick, spots[0]!.pick, lost]);
  expect(picksOf(stored, [[2, 0, null], [1]])).toEqual(before);
});

test('where regions have grown together, the later pick has them', () => {
  const stored = [{ regions: [region('a')] }, { regions: [region('b')] }];
  expect(said(picksOf(stored, [[0], [0]]))).toBe('0');
});
