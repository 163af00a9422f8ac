// Nodes and sides: what they are called, and what is done to those that are picked.
import type { NodeDot, NodeEdit, NodeKind, SideKind } from '@/api/types';
import { shortNumber } from '@/marks/numbers';

/** What a node is, as it is told: a corner with the angle by which the outline turns. */
export function nodeWord({ kind, turn_deg }: Pick<NodeDot, 'kind' | 'turn_deg'>): string {
  return kind === 'corner'
    ? `corner, ${shortNumber(Math.abs(Number(turn_deg.toFixed(1))))}°`
    : kind;
}

/** What a side is, and several of them. */
export const SIDE_WORDS: Record<SideKind, readonly [string, string]> = {
  straight: ['a straight side', 'straight sides'],
  arc: ['an arc', 'arcs'],
  curve: ['a curve', 'curves'],
};

/** What edits need to be picked: nodes, sides, or ends. */
export type Needs = 'nodes' | 'sides' | 'ends';

/** An edit that a click or key does at once. */
export interface NodeAct {
  name: string;
  word: string;
  key: string;
  title: string;
  needs: Needs;
  edit: NodeEdit;
  /** What is drawn in its tile: lines, and dots of nodes. */
  picture: string;
  dots: readonly Spot[];
  /** Ends of handles. */
  knobs?: readonly Spot[] | undefined;
}

type Spot = readonly [number, number];

const KINDS: Record<
  Exclude<NodeKind, 'end'>,
  Pick<NodeAct, 'word' | 'key' | 'title' | 'picture'>
> = {
  corner: {
    word: 'Corner',
    key: 'C',
    title: 'Take the handles of the nodes away',
    picture: 'M10 46L31 14L52 46',
  },
  smooth: {
    word: 'Smooth',
    key: 'S',
    title: 'Bring both sides at the nodes into one line',
    picture: 'M8 46C8 30 24 18 31 18S54 24 54 46M20 18H52',
  },
  even: {
    word: 'Even',
    key: 'V',
    title: 'Handles in one line and of one length',
    picture: 'M8 46C8 24 14 18 31 18S54 24 54 46M13 18H49',
  },
};
const SIDES: Record<SideKind, Pick<NodeAct, 'word' | 'key' | 'title' | 'picture'>> = {
  straight: {
    word: 'Straight',
    key: 'I',
    title: 'Make the sides straight',
    picture: 'M10 44L52 16',
  },
  arc: {
    word: 'Arc',
    key: 'A',
    title: 'Make the sides arcs of circles',
    picture: 'M10 44A30 30 0 0 1 52 16',
  },
  curve: {
    word: 'Curve',
    key: 'U',
    title: 'Make the sides curves with handles',
    picture: 'M10 44C14 4 46 56 52 16',
  },
};

const KNOBS: Record<string, readonly Spot[]> = {
  smooth: [
    [20, 18],
    [52, 18],
  ],
  even: [
    [13, 18],
    [49, 18],
  ],
};
const ENDS = [
  [10, 44],
  [52, 16],
] as const;

/** What removes stretches where it is pointed at: a click or drag while it is on. */
export const SNIP = {
  word: 'Snip',
  key: 'K',
  title: 'Click or drag across stretches between crossings: they go',
  picture: 'M8 30H20M42 30H54M20 14V46M42 14V46',
} as const;

/** All of them, in the order in which they are offered. */
export const NODE_ACTS: readonly NodeAct[] = [
  ...Object.entries(KINDS).map(([kind, words]) => ({
    ...words,
    name: kind,
    needs: 'nodes' as const,
    edit: { do: 'make', to: kind } as NodeEdit,
    dots: [kind === 'corner' ? ([31, 14] as const) : ([31, 18] as const)],
    knobs: KNOBS[kind],
  })),
  ...Object.entries(SIDES).map(([kind, words]) => ({
    ...words,
    name: kind,
    needs: 'sides' as const,
    edit: { do: 'sides', to: kind } as NodeEdit,
    dots: ENDS,
  })),
  {
    name: 'middle',
    word: 'Add node',
    key: 'M',
    title: 'Add a node in the middle of each side; nothing else changes',
    needs: 'sides',
    edit: { do: 'add', where: 'middle' },
    picture: 'M10 44A30 30 0 0 1 52 16',
    dots: [[23.4, 18.5]],
  },
  {
    name: 'extremes',
    word: 'Furthest',
    key: 'X',
    title: 'Add nodes where the sides reach furthest left, right, up and down',
    needs: 'sides',
    edit: { do: 'add', where: 'extremes' },
    picture: 'M10 48C10 8 52 8 52 48M16 18H46',
    dots: [[31, 18]],
  },
  {
    name: 'crossings',
    word: 'Crossings',
    key: 'O',
    title: 'Add nodes where other outlines cross the sides',
    needs: 'sides',
    edit: { do: 'add', where: 'crossings' },
    picture: 'M10 46L52 14M14 12L48 48',
    dots: [[31, 30]],
  },
  {
    name: 'remove',
    word: 'Remove',
    key: 'Delete',
    title: 'Remove the nodes and refit the sides between; with Shift a straight side',
    needs: 'nodes',
    edit: { do: 'remove' },
    picture: 'M8 46C12 8 50 8 54 46M25 12L37 24M37 12L25 24',
    dots: [],
  },
  {
    name: 'split',
    word: 'Split',
    key: 'T',
    title: 'Split the outline at the nodes: a closed one opens, an open one is parted',
    needs: 'nodes',
    edit: { do: 'course', how: 'split' },
    picture: 'M8 44L26 20M36 20L54 44',
    dots: [
      [26, 20],
      [36, 20],
    ],
  },
  {
    name: 'close',
    word: 'Close',
    key: 'Z',
    title: 'Close the outlines of the ends, by a straight side',
    needs: 'ends',
    edit: { do: 'course', how: 'close' },
    picture: 'M16 44C4 10 58 10 46 44M16 44H46',
    dots: [
      [16, 44],
      [46, 44],
    ],
  },
  {
    name: 'runBack',
    word: 'Run back',
    key: 'R',
    title: 'Run the outlines of the nodes the other way',
    needs: 'nodes',
    edit: { do: 'course', how: 'run-back' },
    picture: 'M12 40A20 20 0 1 1 50 40M12 40L9 30M12 40L21 36',
    dots: [],
  },
  {
    name: 'begin',
    word: 'First node',
    key: 'H',
    title: 'Let the outline begin at the node',
    needs: 'nodes',
    edit: { do: 'course', how: 'begin' },
    picture: 'M14 46V14H48V46M14 46L26 46',
    dots: [[14, 46]],
  },
];

/** Where two ends meet that are joined. */
export const JOINED_BY = [
  { value: 'middle', word: 'middle', title: 'In the middle between the two' },
  { value: 'first', word: 'first', title: 'Where the first one is' },
  { value: 'straight', word: 'side', title: 'Both stay, with a straight side between' },
] as const;

/** What brings three or more nodes on one line or circle, or spreads them evenly. */
export const NODE_LINES: readonly { word: string; title: string; edit: NodeEdit }[] = [
  {
    word: 'on a line',
    title: 'On the line they are nearest to',
    edit: { do: 'line-up', to: 'line' },
  },
  {
    word: 'on a circle',
    title: 'On the circle they are nearest to',
    edit: { do: 'line-up', to: 'circle' },
  },
  {
    word: 'even across',
    title: 'Equal steps from left to right',
    edit: { do: 'spread', axis: 'x' },
  },
  { word: 'even down', title: 'Equal steps from top to bottom', edit: { do: 'spread', axis: 'y' } },
];
