// The lines of the stack, and those that join their dots.
import { staysLive } from '@/marks/kinds';
import type { Row, Strand } from '@/stores/selection';

export const ROW = 36;
const LEFT = 28;
const INDENT = 24;

/** A line of the stack: a shape, or the head of a strand of one. */
export interface Entry {
  key: string;
  /** The key of the entry that it unfolds from. */
  parent: string | null;
  depth: number;
  row: Row;
  /** Of a head of a strand which one, and how many shapes lie in it. */
  strand: Strand | null;
  count: number;
}

export interface Thread {
  d: string;
  /** Whether it is a branch, off what holds other shapes. */
  live: boolean;
}

/** How far from the left the dots of a depth lie. */
export function xOf(depth: number): number {
  return LEFT + INDENT * depth;
}

export function strandKey(whole: string, strand: Strand): string {
  return `${whole} ${strand}`;
}

/** The key of what a row unfolds from. */
export function holderOf(row: Row): string | null {
  return row.strand ? strandKey(row.parent!, row.strand) : row.parent;
}

export function entryOf(row: Row): Entry {
  const { node, depth } = row;
  return { key: node.id, parent: holderOf(row), depth, row, strand: null, count: 0 };
}

/** All lines whose holders are unfolded, with a head before the rows of each strand. */
export function entriesOf(rows: readonly Row[], unfolded: ReadonlySet<string>): Entry[] {
  const found: Entry[] = [];
  const heads = new Map<string, Entry>();
  const shown = new Set<string>();
  const show = (entry: Entry, parent: string | null) => {
    if (parent !== null && !(shown.has(parent) && unfolded.has(parent))) return;
    shown.add(entry.key);
    found.push(entry);
  };
  for (const row of rows) {
    const { strand, parent } = row;
    if (strand) {
      const key = strandKey(parent!, strand);
      let head = heads.get(key);
      if (!head) {
        const whole = rows.find(({ node }) => node.id === parent)!;
        head = { key, parent, depth: row.depth - 1, row: whole, strand, count: 0 };
        heads.set(key, head);
        show(head, parent);
      }
      head.count += 1;
    }
    show(entryOf(row), holderOf(row));
  }
  return found;
}

/** The main line, and a branch from each that is unfolded to the lowest that it holds. */
export function threadsOf(entries: readonly Entry[]): Thread[] {
  const middle = (i: number) => i * ROW + ROW / 2;
  const tops = entries.flatMap(({ depth }, i) => (depth === 0 ? [i] : []));
  const found: Thread[] = [];
  if (tops.length > 1)
    found.push({ d: `M${LEFT} ${middle(tops[0]!)}V${middle(tops.at(-1)!)}`, live: false });
  entries.forEach((entry, i) => {
    const inside = entries.flatMap((other, j) => (other.parent === entry.key ? [j] : []));
    if (!inside.length) return;
    const [from, to] = [xOf(entry.depth), xOf(entry.depth + 1)];
    const [begin, first, last] = [middle(i), middle(inside[0]!), middle(inside.at(-1)!)];
    const branch = `C${from} ${begin + 26} ${to} ${first - 26} ${to} ${first}`;
    found.push({
      d: `M${from} ${begin}${branch}V${last}`,
      live: staysLive(entry.row.node),
    });
  });
  return found;
}
