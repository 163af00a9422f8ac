import { expect, test } from 'vitest';

import type { Node } from '@/api/types';
import { entriesOf, ROW, strandKey, threadsOf } from '@/stack/thread';
import type { Row, Strand } from '@/stores/selection';

function row(id: string, parent: string | null, depth: number, strand: Strand | null = null): Row {
  const node = { id, name: id, kind: depth ? 'path' : 'regions' } as Node;
  const common = { role: null, dimmed: false, held: false, guide: false, inside: false };
  return { ...common, node, depth, top: 'rope', parent, strand, chain: [id] };
}

const rows = [
  row('buoy', null, 0),
  row('rope', null, 0),
  row('rope.1', 'rope', 2, 'pieces'),
  row('rope.0', 'rope', 2, 'pieces'),
  row('ring', 'rope', 2, 'made from'),
  row('inner', 'ring', 3),
];
const shown = (...unfolded: string[]) =>
  entriesOf(rows, new Set(unfolded)).map(({ key, depth, count }) => `${key} ${depth} ${count}`);

test('what comes in pieces unfolds to two strands, and each of them to its rows', () => {
  const [pieces, madeFrom] = [strandKey('rope', 'pieces'), strandKey('rope', 'made from')];
  expect(shown()).toEqual(['buoy 0 0', 'rope 0 0']);
  expect(shown('rope')).toEqual(['buoy 0 0', 'rope 0 0', 'rope pieces 1 2', 'rope made from 1 1']);
  expect(shown('rope', pieces).slice(2)).toEqual([
    'rope pieces 1 2',
    'rope.1 2 0',
    'rope.0 2 0',
    'rope made from 1 1',
  ]);
  expect(shown('rope', madeFrom, 'ring').slice(2)).toEqual([
    'rope pieces 1 2',
    'rope made from 1 1',
    'ring 2 0',
    'inner 3 0',
  ]);
  // What is unfolded in something folded is not to be seen.
  expect(shown(pieces, 'ring')).toEqual(['buoy 0 0', 'rope 0 0']);
});

test('each that is unfolded branches to the lowest that it holds', () => {
  const entries = entriesOf(rows, new Set(['rope', strandKey('rope', 'pieces')]));
  const threads = threadsOf(entries);
  const middle = (place: number) => place * ROW + ROW / 2;
  // The main line; from the whole to its second strand; from the pieces to the lowest of them.
  expect(threads.map(({ d }) => d.split('V').at(-1))).toEqual([
    `${middle(1)}`,
    `${middle(5)}`,
    `${middle(4)}`,
  ]);
  expect(threads.map(({ live }) => live)).toEqual([false, true, true]);
});
