import { describe, expect, test } from 'vitest';

import { changed, defined, evaluated, namesIn } from '@/marks/arithmetic';

describe('what is typed is evaluated', () => {
  test.each([
    ['12', 12],
    ['-0.5', -0.5],
    ['.25', 0.25],
    ['1,5', 1.5],
    ['1e3', 1000],
    ['120/2+4', 64],
    ['2+3*4', 14],
    ['(2+3)*4', 20],
    ['2*-3', -6],
    ['--3', 3],
    ['10−4×2÷4', 8],
    ['1in', 96],
    ['25.4mm', 96],
    ['2.54 cm', 96],
    ['72 PT', 96],
    ['3px+1in/2', 51],
    ['(1+1)in', 192],
    ['45°', 45],
    ['50%', 30],
    ['10 + 10%', 16],
  ])('%s is %d', (typed, value) => {
    expect(evaluated(typed, 60)).toBeCloseTo(value, 9);
  });

  test.each(['', ' ', 'abc', '1+', '*2', '(1', '1)', '1 2', '1/0', '0/0', '1e999', '3 miles', '%'])(
    '%j makes no sense',
    (typed) => expect(evaluated(typed)).toBeNull(),
  );
});

describe('what begins with a sign changes what is there', () => {
  test.each([
    ['+90', 30, 120],
    ['+-10', 30, 20],
    ['*2', 30, 60],
    ['/3', 30, 10],
    ['×1,5', 30, 45],
    ['÷ 4', 30, 7.5],
    ['+50%', 30, 45],
    ['+10', -4, 6],
    // A minus alone is a negative number: nobody can mistake it.
    ['-10', 30, -10],
    ['7', 30, 7],
  ])('%s on %d makes %d', (typed, now, value) => {
    expect(changed(typed, now)).toBeCloseTo(value, 9);
  });

  test('where several shapes differ there is nothing to change', () => {
    expect(changed('+10', undefined)).toBeNull();
    expect(changed('10', undefined)).toBe(10);
  });
});

describe('names of measures', () => {
  const names = { gap: 3, module: 8, größe: 2 };
  test.each([
    ['gap', 3],
    ['module*2 + gap', 19],
    ['-(gap - module)/größe', 2.5],
    ['gap+1in', 99],
    ['2e1*gap', 60],
  ])('%s is %d', (typed, value) => expect(evaluated(typed, 1, names)).toBeCloseTo(value, 9));

  test.each(['mast', 'gap gap', '2gap', 'gap(2)', 'toString', 'constructor', 'gap.x'])(
    '%j makes no sense',
    (typed) => expect(evaluated(typed, 1, names)).toBeNull(),
  );

  test('what is there can be changed by them', () => {
    expect(changed('*gap', 10, names)).toBe(30);
    expect(changed('+module', 10, names)).toBe(18);
  });

  test('are told from units, and from numbers', () => {
    expect(namesIn('gap*2mm + 1e3 - Module2')).toEqual(['gap', 'Module2']);
  });

  test.each([
    ['gap = 3', { name: 'gap', text: '3' }],
    [' gap=module * 2 ', { name: 'gap', text: 'module * 2' }],
    ['gap =', { name: 'gap', text: '' }],
    ['3 = gap', null],
    ['gap', null],
  ])('%j is a measure that is named', (typed, found) => expect(defined(typed)).toEqual(found));
});
