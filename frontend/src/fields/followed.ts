// Fields whose numbers follow measures: what they hold is an expression, and its value beside it.
import type { InjectionKey } from 'vue';

import type { Node } from '@/api/types';
import { common } from '@/marks/common';
import type { Fields } from '@/marks/commands';
import { commandOf } from '@/marks/commands';
import { useDrawing } from '@/stores/drawing';
import { useMeasures } from '@/stores/measures';

/** A measure that is made, and what it is. */
export type Made = NonNullable<Fields<'follow'>['makes']>;

/** A number that can follow an expression. */
export interface Followed {
  /** The expression that it follows, if any. */
  text(): string | null;
  /** Lets it follow another, of a measure that it ``makes``, if so; answers why not, if it cannot. */
  take(text: string, makes?: Made): Promise<string | null>;
}

/** How fields find what they follow: by the paths of the fields they stand for, each so many times it. */
export const FOLLOWED: InjectionKey<(paths: readonly string[], times: number) => Followed> =
  Symbol('followed');

/** The numbers of shapes. */
export function ofShapes(nodes: () => readonly Node[]) {
  const measures = useMeasures();
  return (paths: readonly string[], times: number): Followed => ({
    text() {
      const [path] = paths;
      const text = common(
        nodes(),
        (node) => node.formulas.find((each) => each.path === path)?.text,
      );
      return text ? unscaled(text, times) : null;
    },
    take(text, makes) {
      const scaled = times === 1 ? text : `(${text})*${times}`;
      const texts = Object.fromEntries(paths.map((path) => [path, scaled]));
      const ids = nodes().map(({ id }) => id);
      return measures.attempt(commandOf('follow', { ids, texts, makes }));
    },
  });
}

/** The sides of a plate. */
export function ofPlate(plate: () => string) {
  const drawing = useDrawing();
  const measures = useMeasures();
  return ([path]: readonly string[]): Followed => ({
    text: () => drawing.heads[plate()]?.formulas?.find((each) => each.path === path)?.text ?? null,
    take: (text, makes) =>
      measures.attempt(
        commandOf('follow-plate', { plate: plate(), texts: { [path!]: text }, makes }),
      ),
  });
}

/** What was typed of an expression that is kept so many times as large; null if it was not. */
function unscaled(text: string, times: number): string | null {
  if (times === 1) return text;
  const tail = `)*${times}`;
  return text.startsWith('(') && text.endsWith(tail) ? text.slice(1, -tail.length) : null;
}
