import { defineStore } from 'pinia';
import { computed } from 'vue';

import type { Command, Node } from '@/api/types';
import { matrixOf } from '@/marks/matrix';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { wordOf } from '@/stores/waiting';

/** What waits to be done to a shape, and where that brings it. */
export interface WaitingMark {
  key: string;
  path: string;
  by: DOMMatrix;
  /** Its corner, for the words. */
  corner: DOMPoint;
  words: string[];
}

/** What was done while the server is away, as far as it is known without the server. */
export const useWaitingMarks = defineStore('waiting marks', () => {
  const drawing = useDrawing();
  const selection = useSelection();

  const byShape = computed(() => {
    const found = new Map<string, WaitingMark>();
    if (drawing.saveState !== 'offline') return found;
    for (const { command } of drawing.waiting)
      for (const mark of touched(command, found)) {
        if (command.kind === 'transform') mark.by = matrixOf(command.by).multiply(mark.by);
        mark.words.push(wordOf(command));
        found.set(mark.key, mark);
      }
    return found;
  });
  const marks = computed(() => [...byShape.value.values()]);

  /** Where waiting moves bring what is painted of a shape, as an attribute. */
  function moveOf(key: string): string | undefined {
    const found = selection.chainOf(key).find((each) => byShape.value.has(each));
    return found && byShape.value.get(found)!.by.toString();
  }

  /** The shapes that a step is about, with what waits for them already. */
  function touched(command: Command, found: ReadonlyMap<string, WaitingMark>): WaitingMark[] {
    if (command.kind === 'add-shape')
      return command.plate === selection.plate ? [markOf(command.node as Node)] : [];
    const keys = 'ids' in command ? (command.ids ?? []) : 'id' in command ? [command.id] : [];
    return keys.flatMap((key) => {
      const figure = selection.figureById.get(key);
      if (found.has(key)) return [found.get(key)!];
      if (!figure) return [];
      const corner = new DOMPoint(figure.bounds.x0, figure.bounds.y0);
      return [{ key, path: figure.path, by: new DOMMatrix(), corner, words: [] }];
    });
  }

  return { marks, moveOf };
});

/** A new shape as far as it is known: circle, box, line and path, else the box round it. */
function markOf(node: Node): WaitingMark {
  const [width, height] = sizeOf(node);
  const corner = new DOMPoint(-width / 2, -height / 2);
  const { x, y } = corner;
  let path = `M${x} ${y}h${width}v${height}h${-width}Z`;
  if (node.kind === 'path') path = node.data;
  else if (node.kind === 'line') path = `M${-node.length / 2} 0h${node.length}`;
  else if (node.kind === 'ellipse') {
    const half = `a${node.rx} ${node.ry} 0 1 0 `;
    path = `M${x} 0${half}${width} 0${half}${-width} 0Z`;
  }
  return { key: node.id, path, by: matrixOf(node.transform), corner, words: [] };
}

function sizeOf(node: Node): [number, number] {
  if ('rx' in node) return [2 * node.rx, 2 * node.ry];
  return 'height' in node ? [node.width, node.height] : [0, 0];
}
