// All keys of the editor beside those of the actions, as the sheet and the README list them.
import { SHAPES } from '@/marks/shapes';
import { OUTCOME_WORDS } from '@/marks/outcomes';

export const KEYS: readonly (readonly [string, string])[] = [
  ...SHAPES.map((shape) => [shape.digit, `draw a ${shape.word.toLowerCase()}`] as const),
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
  ['Shift+G', 'held: before the last outcome'],
  ['F', 'fit the plate'],
  ['Shift+F', 'fit the selection'],
  ['=', 'show at 100 %'],
  ['+ and −', 'zoom in and out'],
  ['V', 'rulers'],
  ['N', 'snapping on or off'],
  ['Space', 'pan while held'],
  ['Ctrl', 'no snapping while held'],
  ['Shift+F10', 'the menu of the selection'],
  ['?', 'this sheet'],
];
