// The lines that join the dots of the stack.
import type { Row } from '@/stores/selection';
import { LIVE_KINDS } from '@/stores/selection';

export const ROW = 36;
const LEFT = 28;
const INDENT = 24;

export interface Thread {
  d: string;
  /** Whether it is a branch, off what holds other shapes. */
  live: boolean;
}

/** How far from the left the dots of a depth lie. */
export function xOf(depth: number): number {
  return LEFT + INDENT * depth;
}

/** The main line, and a branch from each unfolded compound or group to its lowest shape. */
export function threadsOf(rows: readonly Row[]): Thread[] {
  const middle = (i: number) => i * ROW + ROW / 2;
  const tops = rows.flatMap((row, i) => (row.depth === 0 ? [i] : []));
  const found: Thread[] = [];
  if (tops.length > 1)
    found.push({ d: `M${LEFT} ${middle(tops[0]!)}V${middle(tops.at(-1)!)}`, live: false });
  rows.forEach((row, i) => {
    const inside = rows.flatMap((other, j) => (other.parent === row.node.id ? [j] : []));
    if (!inside.length) return;
    const [from, to] = [xOf(row.depth), xOf(row.depth + 1)];
    const [begin, first, last] = [middle(i), middle(inside[0]!), middle(inside.at(-1)!)];
    const branch = `C${from} ${begin + 26} ${to} ${first - 26} ${to} ${first}`;
    found.push({
      d: `M${from} ${begin}${branch}V${last}`,
      live: LIVE_KINDS.includes(row.node.kind),
    });
  });
  return found;
}
