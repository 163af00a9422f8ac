// The outcomes' words and keys, most useful first.
import type { Outcome } from '@/api/types';

export interface OutcomeWords {
  word: string;
  /** The name that the result gets. */
  result: string;
  key: string;
  says: string;
}

export const OUTCOME_WORDS: Record<Outcome, OutcomeWords> = {
  join: { word: 'Join', result: 'Join', key: 'J', says: 'one outline round all of them' },
  cut: { word: 'Cut', result: 'Cut', key: 'C', says: 'the lowest minus all above it' },
  'cut-other-way': {
    word: 'Cut other way',
    result: 'Cut',
    key: 'Shift+C',
    says: 'the topmost minus all below it',
  },
  overlap: { word: 'Overlap', result: 'Overlap', key: 'O', says: 'only where all of them lie' },
  alternate: {
    word: 'Alternate',
    result: 'Alternate',
    key: 'T',
    says: 'where an odd number of them lie',
  },
  split: { word: 'Split', result: 'Split', key: 'S', says: 'every region a piece of its own' },
  gap: {
    word: 'Gap',
    result: 'Gap',
    key: 'Shift+K',
    says: 'what lies under the topmost goes from each of the others, each stays by itself',
  },
  window: {
    word: 'Window',
    result: 'Window',
    key: 'W',
    says: 'all that shows through the topmost shape',
  },
  slice: {
    word: 'Slice',
    result: 'Slice',
    key: 'K',
    says: 'cut along the topmost outline; all pieces stay, the slicer goes',
  },
  visible: {
    word: 'Visible',
    result: 'Visible',
    key: '',
    says: 'of each shape the part that can be seen',
  },
  'visible-by-colour': {
    word: 'By colour',
    result: 'Visible by colour',
    key: '',
    says: 'what can be seen; touching pieces of equal fill are one',
  },
  seams: { word: 'Seams', result: 'Seams', key: '', says: 'the edges between regions, as lines' },
  bundle: {
    word: 'Bundle',
    result: 'Bundle',
    key: 'B',
    says: 'one path with all outlines in it, nothing computed',
  },
};

/** Those in sight at once; the others are one step away. */
export const FIRST: readonly Outcome[] = [
  'join',
  'cut',
  'cut-other-way',
  'overlap',
  'alternate',
  'split',
  'gap',
];
export const MORE = (Object.keys(OUTCOME_WORDS) as Outcome[]).filter(
  (outcome) => !FIRST.includes(outcome),
);

/** Those whose pieces are taken hold of at once. */
export const LEAVES_PIECES: readonly Outcome[] = ['split', 'slice', 'visible', 'visible-by-colour'];

/** Those that what is live can be taken as. */
export const STAYS_LIVE: readonly Outcome[] = [...FIRST, 'slice', 'bundle'];
