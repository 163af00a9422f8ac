// Placements as matrices.
import type { Placement } from '@/api/types';

/** The matrix of a placement, of which the document leaves out what is as usual. */
export function matrixOf({ a = 1, b = 0, c = 0, d = 1, e = 0, f = 0 }: Placement = {}): DOMMatrix {
  return new DOMMatrix([a, b, c, d, e, f]);
}
