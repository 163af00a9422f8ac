// All keys, as they are pressed, shown in the sheet and in tooltips, and listed in docs/keys.md.
import { NODE_ACTS, SNIP } from '@/marks/nodes';
import { OUTCOME_WORDS } from '@/marks/outcomes';
import { ROLES, ROLE_WORDS } from '@/marks/roles';
import { SHAPES } from '@/marks/shapes';

/** A key, and what it does. */
type Row = readonly [string, string];

/** A word with its article: a box, an arc; several have none. */
export function articled(word: string): string {
  if (word.endsWith('s')) return word;
  return `${/^[aeiou]/.test(word) ? 'an' : 'a'} ${word}`;
}

function lower(title: string): string {
  return title[0]!.toLowerCase() + title.slice(1);
}

/** What actions are called, and their keys: '' for none. */
export const ACTION_WORDS = {
  copy: { word: 'Copy', key: 'Ctrl+C' },
  cutOut: { word: 'Cut out', key: 'Ctrl+X' },
  import: { word: 'Import files', key: 'Shift+I' },
  duplicate: { word: 'Duplicate', key: 'Ctrl+D' },
  again: { word: 'Again', key: 'Y' },
  remove: { word: 'Remove', key: 'Delete' },
  group: { word: 'Group', key: 'U' },
  makeTwin: { word: 'Make twin', key: '"' },
  allTwins: { word: 'Select all twins of this', key: "'" },
  followAgain: { word: 'Follow again', key: '' },
  freeTwins: { word: 'Free it', key: '' },
  ungroup: { word: 'Ungroup', key: 'Shift+U' },
  spin: { word: 'Spin', key: '@' },
  row: { word: 'Row', key: ':' },
  mirrorLive: { word: 'Live mirror', key: '|' },
  bringBack: { word: 'Bring left out copies back', key: '' },
  type: { word: 'Type', key: 'Enter' },
  focus: { word: 'Work inside', key: 'Enter' },
  regions: { word: 'Pick regions', key: 'R' },
  clip: { word: 'Show only within the lowest', key: 'Shift+W' },
  takeOut: { word: 'Take out of the clip', key: 'Shift+W' },
  spaceLetters: { word: 'Space letters', key: 'Shift+V' },
  putOnLine: { word: 'Put on the line', key: 'Shift+Q' },
  takeOffLine: { word: 'Take off the line', key: 'Shift+Q' },
  breakIntoLetters: { word: 'Break into letters', key: 'Shift+Y' },
  nodes: { word: 'Nodes', key: 'E' },
  corners: { word: 'Corners', key: 'E' },
  simplify: { word: 'Simplify', key: 'Shift+N' },
  joinEnds: { word: 'Join ends', key: 'Shift+J' },
  completeHalf: { word: 'Mirror and close', key: 'Shift+X' },
  grow: { word: 'Grow or shrink', key: 'Shift+O' },
  band: { word: 'Band', key: 'Shift+T' },
  lineToOutline: { word: 'Line to outline', key: 'Shift+L' },
  settle: { word: 'Settle', key: 'Shift+S' },
  allHome: { word: 'All pieces home', key: '' },
  unbundle: { word: 'Unbundle', key: 'Shift+B' },
  role: { word: 'Next role', key: 'Shift+R' },
  liftOut: { word: 'Lift out', key: '>' },
  raise: { word: 'Raise', key: 'PageUp' },
  lower: { word: 'Lower', key: 'PageDown' },
  top: { word: 'Raise to top', key: 'Home' },
  bottom: { word: 'Lower to bottom', key: 'End' },
  hide: { word: 'Hide or show', key: 'H' },
  showAll: { word: 'Show all hidden', key: 'Shift+H' },
  lock: { word: 'Lock or unlock', key: 'L' },
  guide: { word: 'Guide shape or not', key: 'I' },
  mirrorX: { word: 'Mirror left to right', key: 'M' },
  mirrorY: { word: 'Mirror top to bottom', key: 'Shift+M' },
  mirrorPlate: { word: 'Mirror on the plate', key: 'Shift+D' },
  otherHalf: { word: 'Mirrored copy on the plate', key: 'D' },
  mirrorLine: { word: 'Mirror across the line', key: 'X' },
  turn: { word: 'Turn by 15°', key: ')' },
  turnBack: { word: 'Turn back by 15°', key: '(' },
  quarter: { word: 'A quarter turn', key: ']' },
  quarterBack: { word: 'A quarter turn back', key: '[' },
  sameCentre: { word: 'Same centre', key: '.' },
  sameSize: { word: 'Same size', key: 'Z' },
  sameAngle: { word: 'Same angle', key: 'Shift+Z' },
  copyPaint: { word: 'Paint like the first', key: 'Shift+P' },
  takePaint: { word: 'Paint of new shapes from this', key: 'P' },
  likeFill: { word: 'Select the same fill', key: 'A' },
  likeLine: { word: 'Select the same line', key: 'Shift+A' },
  likeKind: { word: 'Select the same kind', key: 'Q' },
} as const;
export type ActionName = keyof typeof ACTION_WORDS;
export const ACTION_NAMES = Object.keys(ACTION_WORDS) as ActionName[];

const EDITOR: readonly Row[] = [
  ...SHAPES.map(({ key, word }) => [key, `draw ${articled(word.toLowerCase())}`] as const),
  ['0', 'show the shelf'],
  ['*', 'put the selection on the shelf'],
  ['Esc', 'leave, step out, then pick'],
  ['Enter', 'ask for the sizes of the shape to be drawn; close the path in hand'],
  ['Shift+Enter', 'leave the path in hand open'],
  ['Backspace', 'take its last node back'],
  ['Tab', 'walk down the stack; Shift+Tab up'],
  ...Object.values(OUTCOME_WORDS)
    .filter(({ key }) => key)
    .map(({ key, word }) => [key, word] as const),
  [',', 'align and spread'],
  ['arrows', 'nudge by 1'],
  ['Shift+arrows', 'nudge by 10'],
  ['Alt+arrows', 'nudge by 0.1'],
  ['F2', 'rename'],
  ['Ctrl+A', 'select all'],
  ['Ctrl+V', 'paste'],
  ['Ctrl+Shift+V', 'paste in place'],
  ['Ctrl+Z', 'undo'],
  ['Ctrl+Shift+Z', 'redo, as Ctrl+Y'],
  ['Ctrl+G', 'group; with Shift ungroup'],
  ['Shift+E', 'export'],
  ['Ctrl+S', 'versions: name this state, go back to one'],
  ['G', 'Solid, Glass, Wire'],
  ['Shift+G', 'held: before the last outcome, or a shape before its refinements'],
  ['F', 'fit the plate'],
  ['Shift+F', 'fit the selection'],
  ['=', 'show at 100 %'],
  ['+ and −', 'zoom in and out'],
  ['V', 'rulers'],
  ['N', 'snapping on or off'],
  ['/', 'new shapes see-through, or not'],
  ['Space', 'pan while held'],
  ['Ctrl', 'no snapping while held'],
  ['Shift+F10', 'the menu of the selection'],
  ['?', 'this sheet'],
];

const REGIONS: readonly Row[] = [
  ['Tab', 'the next dot; Shift+Tab the one before'],
  ['arrows', 'the dot on that side'],
  ['Space', 'use the brush on the dot in hand'],
  ['Shift+Space', 'fuse it with the piece of the dot before'],
  ['X', 'drop while held; alone the dot in hand'],
  ['1 2 3', 'Keep, Fuse, Drop'],
  ['R', 'the rest stays or goes'],
  ['P', 'paint of topmost, lowest, new'],
  ['C', 'the next colour for the piece in hand'],
  ['Ctrl+Z', 'take the last stroke back'],
  ['Enter', 'apply'],
  ['Esc', 'leave all as it was'],
];

const CORNERS: readonly Row[] = [
  ['Tab', 'the next corner; Shift+Tab the one before'],
  ['Ctrl+A', 'all corners'],
  ['arrows', 'larger or smaller by 1; with Shift by 10, with Alt by 0.1'],
  ['E', 'its nodes'],
  ['Esc', 'back to the shape'],
];

const INTO: readonly Row[] = ROLES.map((role) => [
  ROLE_WORDS[role].key,
  `it ${role} there: ${ROLE_WORDS[role].says}; held, the next one alone`,
]);

const TYPING: readonly Row[] = [
  ['Alt+← Alt+→', 'closer or wider at the caret; with Shift by ten times as much'],
  ['Ctrl+Z', 'take back what was typed since the last pause'],
  ['Esc', 'done'],
];

const SPACING: readonly Row[] = [
  ['Tab', 'the next gap; Shift+Tab the one before'],
  ['arrows', 'closer or wider; with Shift by ten times as much'],
  ['Delete', 'as the font has it'],
  ['Esc', 'back to the shape'],
];

const NODES: readonly Row[] = [
  ['Tab', 'the next node; Shift+Tab the one before'],
  ['Ctrl+A', 'all nodes'],
  ['arrows', 'move by 1; with Shift by 10, with Alt by 0.1'],
  ...NODE_ACTS.map(({ key, title }) => [key, lower(title)] as const),
  [SNIP.key, 'snip stretches between crossings off by click or drag; again: no more'],
  ['Shift+Delete', 'remove the nodes, with straight sides between'],
  ['J', 'join the two ends that are picked, or all that lie near each other'],
  ['Q', 'pick all nodes that are alike: corners, smooth ones, ends'],
  ['E', 'the corners of the shape'],
  ['Esc', 'back to the shapes'],
];

/** All keys, under the titles that tell when they mean this. */
export const KEY_LISTS: readonly { title: string; keys: readonly Row[] }[] = [
  {
    title: '',
    keys: [
      ...EDITOR,
      ...Object.values(ACTION_WORDS)
        .filter(({ key }) => key)
        .map(({ key, word }) => [key, word.toLowerCase()] as const),
    ],
  },
  { title: 'While a shape is drawn, with one selected', keys: INTO },
  { title: 'While letters are typed', keys: TYPING },
  { title: 'While letters are spaced', keys: SPACING },
  { title: 'While nodes are worked on', keys: NODES },
  { title: 'While corners are worked on', keys: CORNERS },
  { title: 'While regions are picked', keys: REGIONS },
];
