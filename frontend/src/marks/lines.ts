// The words of lines.
import type { Blend, Line } from '@/api/types';

type Options<K extends keyof Line> = readonly { value: Line[K]; word: string; title: string }[];

export const POSITIONS: Options<'position'> = [
  { value: 'centre', word: 'centre', title: 'half on each side of the outline' },
  { value: 'inside', word: 'inside', title: 'within the outline' },
  { value: 'outside', word: 'outside', title: 'round the outline' },
];
export const CAPS: Options<'cap'> = [
  { value: 'flat', word: 'flat', title: 'ends where the line does' },
  { value: 'round', word: 'round', title: 'half a disc beyond the end' },
  { value: 'square', word: 'square', title: 'half a square beyond the end' },
];
export const MARKS: Options<'start'> = [
  { value: 'none', word: 'plain', title: 'no mark' },
  { value: 'arrow', word: 'arrow', title: 'an arrow that ends there' },
  { value: 'dot', word: 'dot', title: 'a disc round the end' },
  { value: 'bar', word: 'bar', title: 'a bar across the end' },
];

/** Every mode there is, by its name in the compositing standard. */
const ALL: Record<Blend, true> = {
  normal: true,
  multiply: true,
  screen: true,
  overlay: true,
  darken: true,
  lighten: true,
  'color-dodge': true,
  'color-burn': true,
  'hard-light': true,
  'soft-light': true,
  difference: true,
  exclusion: true,
  hue: true,
  saturation: true,
  color: true,
  luminosity: true,
};
export const BLENDS = Object.keys(ALL) as Blend[];
