// A path while it is drawn: clicked corners and dragged curves.
import type { Point } from '@/marks/numbers';

/** A node with its handles, which mirror each other; none at a corner. */
export interface PathNode extends Point {
  /** From the node to the handle before the way it leaves. */
  out: Point | null;
}

/** SVG path data through the nodes, in the plate's axes. */
export function pathData(nodes: readonly PathNode[], closed: boolean): string {
  if (!nodes.length) return '';
  const first = nodes[0]!;
  const pieces = [`M${text(first)}`];
  const order = closed ? [...nodes.slice(1), first] : nodes.slice(1);
  let before = first;
  for (const node of order) {
    if (before.out || node.out) {
      const leave = before.out ? plus(before, before.out, 1) : before;
      const enter = node.out ? plus(node, node.out, -1) : node;
      pieces.push(`C${text(leave)} ${text(enter)} ${text(node)}`);
    } else if (!(closed && node === first)) pieces.push(`L${text(node)}`);
    before = node;
  }
  return pieces.join('') + (closed ? 'Z' : '');
}

function plus(at: Point, by: Point, times: number): Point {
  return { x: at.x + by.x * times, y: at.y + by.y * times };
}

function text({ x, y }: Point): string {
  return `${Number(x.toFixed(6))} ${Number(y.toFixed(6))}`;
}
