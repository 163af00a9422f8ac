import type { Gradient } from '@/api/types';

/** The colours of a gradient as they follow each other, as CSS paints them from left to right. */
export function following({ stops }: Gradient): string {
  return `linear-gradient(90deg, ${stops.map(({ colour, at }) => `${colour} ${at * 100}%`).join()})`;
}
