// The outcomes' words and keys.
import type { Outcome } from '@/api/types';

export interface OutcomeWords {
  word: string;
  /** The name that the compound gets. */
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
};
