import type { ComputedRef, InjectionKey, Ref } from 'vue';

import type { Mark } from '@/desk/snapping';
import type { Said } from '@/desk/gestures';
import type { Point } from '@/marks/numbers';

/** What is said of what is in hand, and where the pointer is on the desk. */
export interface SaidAt extends Said {
  at: Point;
}

/** What is said at each move of the pointer: only what shows it is rendered again. */
export const SAID: InjectionKey<{
  said: Ref<SaidAt | null>;
  /** Why something snapped: what is in hand, or the next node of a path. */
  marks: ComputedRef<readonly Mark[]>;
}> = Symbol('said');
