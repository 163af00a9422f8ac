import { onScopeDispose } from 'vue';

import type { Outcome } from '@/api/types';
import { SHAPES } from '@/editor/shapes';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** What keys do that the stores cannot do alone. */
interface Parts {
  /** Leaves a gesture or card on the desk; answers whether there was one. */
  leave(): boolean;
  fit(): void;
  take(outcome: Outcome): void;
  sameCentre(): void;
  rename(id: string): void;
  showKeys(): void;
}

const NUDGES: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
const OUTCOMES: Record<string, Outcome> = {
  j: 'join',
  c: 'cut',
  C: 'cut-other-way',
  o: 'overlap',
  t: 'alternate',
};

/** The editor's keys; they rest while something is typed or a dialog is open. */
export function useKeys(parts: Parts): void {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();

  function withControl(event: KeyboardEvent): boolean {
    const key = event.key.toLowerCase();
    if (key === 'z') void (event.shiftKey ? drawing.redo() : drawing.undo());
    else if (key === 'a') selection.all();
    else return false;
    return true;
  }

  function escape(): void {
    if (parts.leave()) return;
    if (view.tool !== 'pick') view.tool = 'pick';
    else selection.pick();
  }

  function nudge(event: KeyboardEvent, [dx, dy]: readonly [number, number]): boolean {
    if (!selection.ids.length || (event.target as Element).closest('.tiles')) return false;
    const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    void drawing.run({
      kind: 'transform',
      ids: [...selection.ids],
      by: { a: 1, b: 0, c: 0, d: 1, e: dx * by, f: dy * by },
    });
    return true;
  }

  function plain(event: KeyboardEvent): boolean {
    const key = event.key;
    const shape = SHAPES.find((each) => each.digit === key);
    const outcome = OUTCOMES[key];
    const direction = NUDGES[key];
    if (shape) view.tool = shape.kind;
    else if (key === '0') view.tab = view.tab === 'shelf' ? 'stack' : 'shelf';
    else if (key === 'Escape') escape();
    else if (direction) return nudge(event, direction);
    else if (outcome) parts.take(outcome);
    else if (key === '.') parts.sameCentre();
    else if (key === 'f') parts.fit();
    else if (key === '?') parts.showKeys();
    else if (key === 'F2' && selection.only) parts.rename(selection.only.node.id);
    else if ((key === 'Delete' || key === 'Backspace') && selection.ids.length) {
      void drawing.run({ kind: 'remove', ids: [...selection.ids] });
    } else return false;
    return true;
  }

  function onKey(event: KeyboardEvent): void {
    const target = event.target as Element;
    if (target.closest('input, select, textarea, .v-overlay')) return;
    const done = event.ctrlKey || event.metaKey ? withControl(event) : plain(event);
    if (done) event.preventDefault();
  }

  window.addEventListener('keydown', onKey);
  onScopeDispose(() => window.removeEventListener('keydown', onKey));
}
