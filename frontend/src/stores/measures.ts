import { defineStore } from 'pinia';
import { computed } from 'vue';

import { RefusedError } from '@/api/client';
import type { Command, Node, PlateHead } from '@/api/types';
import { namesIn } from '@/marks/arithmetic';
import { childrenOf } from '@/marks/kinds';
import { commandOf } from '@/marks/commands';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** The measures of the drawing: numbers under a name, and what uses them. */
export const useMeasures = defineStore('measures', () => {
  const drawing = useDrawing();
  const selection = useSelection();

  const values = computed<Record<string, number>>(() =>
    Object.fromEntries(drawing.measures.map(({ name, value }) => [name, value])),
  );

  /** Does a command; answers why it is refused, if it is, for the field to say. */
  async function attempt(command: Command): Promise<string | null> {
    let fault: string | null = null;
    // In its turn, so that what is done next does not overtake it.
    await drawing.runFound(async () => {
      try {
        await drawing.tried(command);
      } catch (error) {
        if (!(error instanceof RefusedError) || error.problem.current) throw error;
        fault = error.message;
        return null;
      }
      return command;
    });
    return fault;
  }

  function set(name: string, text: string): Promise<string | null> {
    return attempt(commandOf('set-measure', { measure: { name, text } }));
  }

  /** The shapes of this plate that use a measure, and which measures do. */
  function usersOf(name: string): { shapes: string[]; measures: string[] } {
    const shapes = selection.rows.filter(({ node }) => uses(node, name)).map(({ node }) => node.id);
    const measures = drawing.measures
      .filter(({ text }) => namesIn(text).includes(name))
      .map((measure) => measure.name);
    return { shapes, measures };
  }

  /** How many shapes of the drawing use a measure, plates counted. */
  function countOf(name: string): number {
    const within = (node: Node): number =>
      Number(uses(node, name)) +
      childrenOf(node).reduce((sum, { node: inner }) => sum + within(inner), 0);
    const plates = Object.values(drawing.heads).filter((head) => uses(head, name)).length;
    return Object.values(drawing.nodes).reduce((sum, node) => sum + within(node), plates);
  }

  return { values, attempt, set, usersOf, countOf };
});

function uses(of: Pick<Node, 'formulas'> | PlateHead, name: string): boolean {
  return (of.formulas ?? []).some(({ text }) => namesIn(text).includes(name));
}
