// What each kind of node is to the interface. The compiler keeps the table complete.
import type { Figure, Node, Role } from '@/api/types';
import { matrixOf } from '@/marks/matrix';
import type { Parameter } from '@/marks/parameters';
import * as typed from '@/marks/parameters';

/** A shape inside another, and the role that it has there. */
export interface Child {
  node: Node;
  role: Role | null;
}

type Of<K extends Node['kind']> = Extract<Node, { kind: K }>;

interface Kind<N> {
  /** What the stack says of it, beside its name. */
  word: string;
  /** Its parameters in Facts, beside place and size. */
  parameters(node: N): readonly Parameter[];
  /** The shapes directly inside it, the lowest first; null where it can hold none. */
  children: ((node: N) => readonly Child[]) | null;
  /** Whether none can be put into it as into a group. */
  closed?: boolean;
  /** Those of them whose paint it shows, the lowest first; none if that is its own. */
  lenders(node: N): readonly Node[];
  /** Those of them that are painted with it. */
  painted(node: N): readonly Node[];
  /** Whether it is what comes of its shapes: these do not show by themselves. */
  live?: boolean | ((node: N) => boolean);
  /** Whether it shows as its shapes or pieces do, and by itself not at all. */
  shapesOnly?: boolean | ((node: N) => boolean);
  /** Whether it comes in pieces that can be held. */
  inPieces?: boolean;
  /** Whether its shapes can be taken as another outcome. */
  retaken?: boolean;
  /** Whether it is open, or a picture, so that nothing can show within it. */
  open?: boolean;
  /** Whether it is a plain outline, with nothing in it to be settled. */
  plain?: boolean;
  /** Whether its own outline can be refined: a group's is that of the shapes in it. */
  refined?: boolean;
}

const REPEATED = {
  spin: [typed.copies, typed.spread, typed.firstTurn, typed.away, typed.lastSize],
  row: [typed.columns, typed.rows, typed.stepAcross, typed.stepDown, typed.shift],
  along: [typed.along, typed.from, typed.stepAlong, typed.lastAlong],
  mirror: [typed.axes, typed.axisTurn],
};
/** A row's, where its steps are clear gaps. */
const CLEAR = [typed.columns, typed.rows, typed.gapAcross, typed.gapDown, typed.shift];

const alone = { children: null, lenders: () => [], painted: () => [] };
const primitive = { ...alone, word: '', refined: true };
const bare = (nodes: readonly unknown[]): Child[] =>
  nodes.map((node) => ({ node: node as Node, role: null }));
const nodesOf = (node: { nodes: readonly unknown[] }) => node.nodes as readonly Node[];
const none = () => [];

const KINDS: { readonly [K in Node['kind']]: Kind<Of<K>> } = {
  ellipse: {
    ...primitive,
    parameters: ({ rx, ry }) => [
      ...(rx === ry ? [typed.radius, typed.diameter] : []),
      typed.begin,
      typed.sweep,
      typed.inner,
    ],
  },
  rectangle: { ...primitive, parameters: () => [typed.corner] },
  polygon: {
    ...primitive,
    parameters: ({ rx, ry }) => [typed.sides, ...(rx === ry ? [typed.side] : []), typed.corner],
  },
  star: {
    ...primitive,
    parameters: () => [typed.points, typed.ratio, typed.tips, typed.notches],
  },
  drop: {
    ...primitive,
    parameters: ({ rx, ry }) => [...(rx === ry ? [typed.radius] : []), typed.tip],
  },
  line: { ...primitive, parameters: () => [typed.length], open: true },
  arc: {
    ...primitive,
    parameters: ({ rx, ry }) => [
      ...(rx === ry ? [typed.radius] : []),
      typed.arcBegin,
      typed.arcSweep,
    ],
    open: true,
  },
  path: { ...primitive, parameters: none, plain: true },
  text: {
    word: 'letters',
    parameters: none,
    children: ({ course }) => (course?.kind === 'line' ? bare([course.line]) : []),
    closed: true,
    lenders: none,
    painted: none,
    live: true,
    refined: true,
  },
  image: { ...alone, word: 'underlay', parameters: none, plain: true, open: true },
  piece: { ...primitive, parameters: none, plain: true, open: true, refined: false },
  group: {
    word: 'group',
    parameters: none,
    children: (node) => bare(node.nodes),
    lenders: nodesOf,
    painted: nodesOf,
    shapesOnly: true,
    retaken: true,
  },
  twin: {
    word: 'twin',
    parameters: none,
    children: ({ inside }) => bare(inside),
    lenders: ({ inside }) => inside as readonly Node[],
    painted: ({ inside }) => inside as readonly Node[],
    shapesOnly: true,
  },
  repeat: {
    word: '',
    parameters: ({ layout }) => {
      if (layout.kind === 'row' && layout.clear) return CLEAR;
      const all = REPEATED[layout.kind];
      // An expression says how large they are.
      return 'size' in layout && layout.size ? all.filter(({ key }) => key !== 'last_size') : all;
    },
    children: ({ line, copies }) => bare(line ? [line, ...copies!] : copies!),
    closed: true,
    lenders: ({ takes, copies }) => (takes === 'each' ? (copies as readonly Node[]) : []),
    painted: ({ takes, copies }) => (takes === 'each' ? (copies as readonly Node[]) : []),
    live: ({ takes }) => takes !== 'each',
    shapesOnly: ({ takes }) => takes === 'each',
    refined: true,
  },
  compound: {
    word: 'live',
    parameters: none,
    children: ({ members, bundled }) =>
      members.map(({ node, role }) => ({ node: node as Node, role: bundled ? null : role })),
    lenders: none,
    painted: none,
    live: true,
    retaken: true,
    refined: true,
  },
  regions: {
    word: 'regions',
    parameters: none,
    children: ({ members }) => bare(members),
    lenders: none,
    painted: ({ members }) => members as readonly Node[],
    live: true,
    inPieces: true,
    retaken: true,
    refined: true,
  },
  clip: {
    word: 'clip',
    parameters: none,
    children: ({ holder, nodes }) => bare([holder, ...nodes]),
    lenders: ({ holder }) => [holder as Node],
    painted: ({ holder }) => [holder as Node],
    live: true,
  },
  parts: {
    word: 'parts',
    parameters: none,
    children: ({ nodes, cutter }) => bare([...nodes, cutter]),
    lenders: nodesOf,
    painted: nodesOf,
    live: true,
    inPieces: true,
    retaken: true,
    refined: true,
  },
};

/** Whether the copies of a repeat go round a centre, which a row and a line have not. */
export function goesRound({ layout }: Of<'repeat'>): boolean {
  return layout.kind === 'spin' || layout.kind === 'mirror';
}

export function kindOf(node: Node): Kind<Node> {
  return KINDS[node.kind] as Kind<Node>;
}

function says(what: boolean | undefined | ((node: Node) => boolean), node: Node): boolean {
  return typeof what === 'function' ? what(node) : what === true;
}

/** The shapes directly inside a node, the lowest first, with the roles they have there. */
export function childrenOf(node: Node): readonly Child[] {
  return kindOf(node).children?.(node) ?? [];
}

/** Whether it can hold other shapes. */
export function holds(node: Node): boolean {
  const { children, closed } = kindOf(node);
  return children !== null && !closed;
}

/** Whether it stays what comes of its shapes. */
export function staysLive(node: Node): boolean {
  return says(kindOf(node).live, node);
}

/** Whether it shows as its shapes or pieces do, and by itself not at all. */
export function showsAsTheirs(node: Node): boolean {
  return says(kindOf(node).shapesOnly, node) || comesInPieces(node);
}

export function comesInPieces(node: Node): boolean {
  return kindOf(node).inPieces === true;
}

/** The shape whose paint another shows: itself, of what holds several the topmost painted one. */
export function paintOf(node: Node): Node {
  const lender = kindOf(node).lenders(node).at(-1);
  return lender ? paintOf(lender) : node;
}

/** Whether a shape, or any that lends it paint, has a line. */
export function hasLine(node: Node): boolean {
  const lenders = kindOf(node).lenders(node);
  return lenders.length ? lenders.some(hasLine) : node.look.lines.length > 0;
}

/** Whether a shape takes part in outcomes, results and exports. */
export function isActive(node: Node): boolean {
  return node.visible && !node.guide && node.kind !== 'image';
}

/** The outcome that a live thing is, if it is any: of a compound by what its members do. */
export function outcomeOf(node: Node): string | null {
  if (node.kind === 'parts') return node.outcome;
  if (node.kind !== 'compound') return null;
  if (node.bundled) return 'bundle';
  const [role, ...others] = node.members.slice(1).map((member) => member.role);
  if (!role || others.some((other) => other !== role)) return null;
  return { adds: 'join', cuts: 'cut', limits: 'overlap', alternates: 'alternate' }[role];
}

/** Whether any piece of a live thing was moved, or removed, by hand. */
export function areAway(node: Node): boolean {
  const held = 'held' in node ? node.held : [];
  return held.some(({ transform, dropped }) => dropped || !matrixOf(transform).isIdentity);
}

/** The pieces that something comes in, the lowest first, by the figures of all. */
export function piecesOf(whole: string, figures: ReadonlyMap<string, Figure>): Node[] {
  const keys = figures.get(whole)?.piece_ids ?? [];
  return keys.flatMap((key) => (figures.get(key)?.piece as Node | null) ?? []);
}
