// Refinements: what they are called, what they begin with, and how corners are dragged.
import type { CornerHandle, CornerShape, Refinement } from '@/api/types';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';

export const CORNER_SHAPES: readonly { value: CornerShape; word: string; title: string }[] = [
  { value: 'round', word: 'round', title: 'An arc that touches both sides' },
  {
    value: 'straight',
    word: 'straight',
    title: 'Cut off, as far from the corner along both sides',
  },
  { value: 'hollow', word: 'hollow', title: 'An arc bent inward, round the corner itself' },
];

export const JOINS = [
  { value: 'round', word: 'round', title: 'Arcs round the corners' },
  { value: 'sharp', word: 'sharp', title: 'Sides go on until they meet' },
  { value: 'flat', word: 'flat', title: 'Corners are cut off' },
] as const;

export const EVERY_WORDS = {
  none: 'picked ones',
  all: 'all',
  convex: 'convex',
  concave: 'concave',
} as const;

export const WHERE_WORDS = { outside: 'outside', inside: 'inside', both: 'both sides' } as const;

/** What a refinement is called in lists. */
export function refinementWord(refinement: Refinement): string {
  switch (refinement.kind) {
    case 'corners':
      return 'Corners';
    case 'offset':
      return refinement.distance < 0 ? 'Shrink' : 'Grow';
    case 'band':
      return 'Band';
    case 'line-area':
      return 'Line as area';
  }
}

/** A size as a value tag reads it. */
export function sizeTag(shape: CornerShape, size: number, fits: number | null = null): string {
  const word = { round: 'r', straight: 'cut', hollow: 'hollow' }[shape];
  const [asked, drawn] = [size, fits ?? size].map((each) => shortNumber(Number(each.toFixed(2))));
  return fits === null || drawn === asked ? `${word} ${asked}` : `${word} ${drawn} of ${asked}`;
}

/** How far along a corner's bisector what is made of it reaches, for each unit of its size. */
export function reachPerSize({ turn_deg }: Pick<CornerHandle, 'turn_deg'>, shape: CornerShape) {
  const half = ((180 - Math.abs(turn_deg)) * Math.PI) / 360;
  return { round: 1 / Math.sin(half) - 1, straight: Math.cos(half), hollow: 1 }[shape];
}

/** The size that a corner gets where its handle is dragged from one point to another. */
export function draggedSize(
  corner: Pick<CornerHandle, 'turn_deg' | 'size' | 'shape'>,
  inward: Point,
  from: Point,
  to: Point,
): number {
  const unit = Math.hypot(inward.x, inward.y);
  const along = ((to.x - from.x) * inward.x + (to.y - from.y) * inward.y) / (unit * unit);
  return Math.max(0, corner.size + along / Math.max(reachPerSize(corner, corner.shape), 0.02));
}
