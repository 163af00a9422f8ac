// What a drag does to nodes, handles and sides.
import type { Command, NodeEdit } from '@/api/types';
import type { Gesture, Hands } from '@/desk/gestures';
import { commandGesture, landed, stepped } from '@/desk/gestures';
import type { Snapping } from '@/desk/snapping';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';

/** What a drag on the desk needs to know of what it takes hold of. */
interface Held {
  hands: Hands;
  editing: (edit: NodeEdit) => Command;
  snapper: Snapping;
  from: Point;
}

const placed = ({ x, y }: Point) => `${shortNumber(x)}, ${shortNumber(y)}`;

/** Moves nodes by the one that is gripped, at ``spot``; Shift keeps to one axis. */
export function nodeGesture({ hands, editing, snapper, from }: Held, spot: Point): Gesture {
  return commandGesture(hands, (at, keys) => {
    const exact = { x: spot.x + at.x - from.x, y: spot.y + at.y - from.y };
    const snapped = landed(hands, snapper, exact, keys);
    const across = Math.abs(exact.x - spot.x) > Math.abs(exact.y - spot.y);
    const to = !keys.shift
      ? snapped.at
      : across
        ? { x: snapped.at.x, y: spot.y }
        : { x: spot.x, y: snapped.at.y };
    return {
      command: editing({ do: 'move', dx: to.x - spot.x, dy: to.y - spot.y }),
      said: { text: placed(to), marks: keys.shift ? [] : snapped.marks },
    };
  });
}

/** Drags a handle of the node at ``node``; Alt alone of its two, Shift by steps of 15°. */
export function handleGesture(
  { hands, editing, snapper, from }: Held,
  node: Point,
  handle: Point,
  forward: boolean,
): Gesture {
  return commandGesture(hands, (at, keys) => {
    const exact = { x: handle.x + at.x - from.x, y: handle.y + at.y - from.y };
    const snapped = landed(hands, snapper, exact, keys);
    const to = keys.shift ? stepped(node, exact, hands) : snapped.at;
    const length = Math.hypot(to.x - node.x, to.y - node.y);
    return {
      command: editing({ do: 'handle', forward, x: to.x, y: to.y, alone: keys.alt }),
      said: {
        text: shortNumber(Number(length.toFixed(3))),
        marks: keys.shift ? [] : snapped.marks,
      },
    };
  });
}

/** So many points of a drag count at most. */
const MOST_POINTS = 400;

/** Snips off what a drag touches; between two moves of the pointer too. */
export function snipGesture(
  hands: Hands,
  snip: (at: readonly Point[]) => Command,
  from: Point,
  reach: number,
): Gesture {
  const points = [from];
  return commandGesture(hands, (at) => {
    const last = points.at(-1)!;
    const far = Math.hypot(at.x - last.x, at.y - last.y);
    const steps = Math.min(Math.ceil(far / reach), MOST_POINTS - points.length);
    for (let i = 1; i <= steps; i++)
      points.push({
        x: last.x + ((at.x - last.x) * i) / steps,
        y: last.y + ((at.y - last.y) * i) / steps,
      });
    return { command: snip(points), said: { text: '' } };
  });
}

/** Pulls a side from where it is gripped. A straight one moves, and bends with Alt. */
export function sideGesture(
  { hands, editing, snapper, from }: Held,
  moving: ((edit: NodeEdit) => Command) | null,
): Gesture {
  return commandGesture(hands, (at, keys) => {
    const { at: to, marks } = landed(hands, snapper, at, keys);
    if (moving && !keys.alt) {
      const by = { dx: to.x - from.x, dy: to.y - from.y };
      return {
        command: moving({ do: 'move', ...by }),
        said: { text: `${shortNumber(by.dx)}, ${shortNumber(by.dy)}`, marks },
      };
    }
    return {
      command: editing({ do: 'bend', grip: [from.x, from.y], to: [to.x, to.y] }),
      said: { text: placed(to), marks },
    };
  });
}
