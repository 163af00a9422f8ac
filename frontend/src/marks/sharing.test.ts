import { expect, test } from 'vitest';

import { shared, steady } from '@/marks/sharing';

const drawing = () => ({
  name: 'Quay',
  nodes: [
    { id: 'hull', at: { x: 1, y: 2 } },
    { id: 'mast', at: { x: 3, y: 4 } },
  ],
});

test('what is the same all through is the old object', () => {
  const old = drawing();
  expect(shared(old, drawing())).toBe(old);
});

test('of what has changed in one place all else is the old objects', () => {
  const old = drawing();
  const fresh = drawing();
  fresh.nodes[1]!.at.x = 9;
  const now = shared(old, fresh);
  expect(now).not.toBe(old);
  expect(now).toEqual(fresh);
  expect(now.nodes[0]).toBe(old.nodes[0]);
  expect(now.nodes[1]!.at).not.toBe(old.nodes[1]!.at);
});

test.each([
  ['a longer list', [1, 2], [1, 2, 3]],
  ['a shorter list', [1, 2], [1]],
  ['a field less', { a: 1, b: 2 }, { a: 1 }],
  ['a list for an object', { 0: 'a' }, ['a']],
  ['nothing for something', { a: 1 }, null],
  ['something for nothing', undefined, { a: 1 }],
])('%s is the fresh value', (_, old, fresh) => {
  expect(shared<unknown>(old, fresh)).toBe(fresh);
});

test('a list with the same things in it is the old list', () => {
  const [hull, mast] = drawing().nodes;
  const old = [hull, mast];
  expect(steady(old, [hull, mast])).toBe(old);
  for (const fresh of [[mast, hull], [hull], [hull, mast, mast], [hull, { ...mast }]])
    expect(steady<unknown>(old, fresh)).toBe(fresh);
  const first = [hull];
  expect(steady(undefined, first)).toBe(first);
});
