import { onScopeDispose } from 'vue';

import type { Outcome } from '@/api/types';
import { NODE_ACTS, SNIP } from '@/marks/nodes';
import type { Point } from '@/marks/numbers';
import { OUTCOME_WORDS } from '@/marks/outcomes';
import { roleOf } from '@/marks/roles';
import { SHAPES } from '@/marks/shapes';
import { spelled } from '@/marks/spelled';
import { useRegionKeys } from '@/regions/keys';
import { useActions } from '@/stores/actions';
import { useClipboard } from '@/stores/clipboard';
import { useCompare } from '@/stores/compare';
import { useColours } from '@/stores/colours';
import { useCorners } from '@/stores/corners';
import { useDrawing } from '@/stores/drawing';
import { useInto } from '@/stores/into';
import { useNodes } from '@/stores/nodes';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';
import { useSimplifying } from '@/stores/simplifying';
import { useSnaps } from '@/stores/snaps';
import { useStyle } from '@/stores/style';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** What keys do that the stores cannot do alone. */
interface Parts {
  /** Leaves a gesture or card on the desk; answers whether there was one. */
  leave(): boolean;
  fit(): void;
  fitSelection(): void;
  /** Zooms by a factor; null shows the plate at 100 %. */
  zoom(factor: number | null): void;
  /** Ends a path that is being drawn, closed or open; answers whether there was one. */
  finishPath(closed: boolean): boolean;
  takeBack(): boolean;
  /** Gives the keys to the words that are typed. */
  toWords(): void;
  openMenu(): void;
  /** Asks for the sizes of a new shape, in the middle of the plate. */
  askSize(at: Point): void;
  take(outcome: Outcome): void;
  align(): void;
  rename(id: string): void;
  showKeys(): void;
  showVersions(): void;
  exportMarks(): void;
  /** Puts what is selected on the shelf. */
  keep(): void;
}

/** What lies over the page, but for notices. */
const OVERLAY = '.v-overlay--active:not(.v-snackbar)';
const ZOOM_STEP = 1.25;
const NUDGES: Record<string, readonly [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** Outcomes by the letters that take them, as they are spelled with Shift and without. */
const OUTCOMES: Record<string, Outcome> = Object.fromEntries(
  (Object.keys(OUTCOME_WORDS) as Outcome[]).map((outcome) => {
    const { key } = OUTCOME_WORDS[outcome];
    return [key.startsWith('Shift+') ? key.slice(-1) : key.toLowerCase(), outcome];
  }),
);

/** The editor's keys; they rest while something is typed or a dialog is open. */
export function useKeys(parts: Parts): void {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const snaps = useSnaps();
  const style = useStyle();
  const colours = useColours();
  const clipboard = useClipboard();
  const actions = useActions();
  const regions = useRegions();
  const regionKeys = useRegionKeys();
  const compare = useCompare();
  const corners = useCorners();
  const nodes = useNodes();
  const into = useInto();
  const simplifying = useSimplifying();
  const typing = useTyping();
  let inPlace = false;

  function withControl(event: KeyboardEvent): boolean {
    const key = spelled(event).toLowerCase();
    if (key === 'z') void (event.shiftKey ? drawing.redo() : drawing.undo());
    else if (key === 'y') void drawing.redo();
    else if (key === 'a' && corners.open)
      corners.pick(...corners.corners.map((each) => each.place));
    else if (key === 'a' && nodes.open) nodes.all();
    else if (key === 'a') selection.all();
    else if (key === 'g') return actions.byKey(event.shiftKey ? 'Shift+U' : 'U');
    else if (key === 'v') {
      // The browser's own paste event follows, with what is on the clipboard.
      inPlace = event.shiftKey;
      return false;
    } else if (key === 's') parts.showVersions();
    else return actions.byKey(`Ctrl+${key.toUpperCase()}`);
    return true;
  }

  /** What keys do to letters that are spaced; answers whether they mean something there. */
  function withGaps(event: KeyboardEvent): boolean {
    const direction = NUDGES[spelled(event)];
    const gap = typing.gapInHand;
    if (event.key === 'Tab') typing.walk(event.shiftKey ? -1 : 1);
    else if (direction && gap !== null)
      void typing.space(gap, (direction[0] - direction[1]) * (event.shiftKey ? 10 : 1));
    else if (event.key === 'Delete' && gap !== null) void typing.plain(gap);
    else return false;
    return true;
  }

  function escape(): void {
    if (parts.leave() || colours.leave()) return;
    if (typing.open) {
      void typing.leave();
      return;
    }
    if (nodes.snipping) {
      nodes.snipping = false;
      return;
    }
    if (corners.leave() || nodes.leave() || simplifying.leave()) return;
    if (view.tool !== 'pick') view.tool = 'pick';
    else if (selection.ids.length && !selection.focus) selection.pick();
    else selection.leave();
  }

  function nudge(event: KeyboardEvent, [dx, dy]: readonly [number, number]): boolean {
    if (!selection.ids.length || (event.target as Element).closest('.tiles')) return false;
    const by = event.shiftKey ? 10 : event.altKey ? 0.1 : 1;
    if (corners.open) return resize((dx - dy) * by);
    if (nodes.open) {
      if (nodes.has('nodes')) void nodes.edit({ do: 'move', dx: dx * by, dy: dy * by });
      return true;
    }
    const move = { e: dx * by, f: dy * by };
    const ids = [...selection.ids];
    actions.remember(move, ids);
    void drawing.run({
      kind: 'transform',
      ids,
      by: { a: 1, b: 0, c: 0, d: 1, ...move },
    });
    return true;
  }

  /** Makes the corners in hand larger or smaller. */
  function resize(by: number): boolean {
    const [first] = corners.inHand;
    if (first) corners.make({ size: Math.max(0, Number((first.size + by).toFixed(4))) });
    return true;
  }

  function middle(): Point {
    const { width, height } = drawing.heads[selection.plate]!;
    return { x: width / 2, y: height / 2 };
  }

  function walk(event: KeyboardEvent): boolean {
    // Tab goes on to the fields of the page from any of them.
    const loose = event.target === document.body || (event.target as Element).closest('.desk');
    const by = event.shiftKey ? -1 : 1;
    if (loose && corners.open) corners.walk(by);
    else if (loose && nodes.open) nodes.walk(by);
    else if (loose) selection.walk(by);
    return Boolean(loose);
  }

  function look(key: string): boolean {
    if (key === 'g') view.nextManner();
    else if (key === 'f') parts.fit();
    else if (key === 'F') parts.fitSelection();
    else if (key === '=') parts.zoom(null);
    else if (key === '+') parts.zoom(ZOOM_STEP);
    else if (key === '-') parts.zoom(1 / ZOOM_STEP);
    else if (key === 'v') view.rulers = !view.rulers;
    else if (key === 'n') snaps.all = !snaps.all;
    else if (key === '/') style.seeThrough();
    else if (key === '0') view.tab = view.tab === 'shelf' ? 'stack' : 'shelf';
    else if (key === '?') parts.showKeys();
    else return false;
    return true;
  }

  /** What keys do to nodes that are worked on; answers whether they mean something there. */
  function withNodes(event: KeyboardEvent): boolean {
    const key = named(event);
    const act = NODE_ACTS.find((each) => each.key === key);
    if (key === 'Delete' && event.shiftKey) void nodes.edit({ do: 'remove', straight: true });
    else if (act) nodes.act(act.name);
    else if (key === SNIP.key) nodes.snipping = !nodes.snipping;
    else if (key === 'J') void nodes.joinEnds();
    else if (key === 'Q') nodes.similar();
    else return false;
    return true;
  }

  function plain(event: KeyboardEvent): boolean {
    if (nodes.open && withNodes(event)) return true;
    if (typing.spacing && withGaps(event)) return true;
    const key = spelled(event);
    const shape = SHAPES.find((each) => each.key === named(event));
    const role = roleOf(named(event));
    const direction = NUDGES[key];
    if (shape) view.tool = shape.kind;
    else if (key === 'Escape') escape();
    else if (key === 'Tab') return walk(event);
    else if (key === 'Enter' && simplifying.open) void simplifying.take();
    else if (key === 'Enter' && parts.finishPath(!event.shiftKey)) return true;
    else if (key === 'Enter' && view.tool === 'text') void typing.beginAt(middle());
    else if (key === 'Enter' && !['pick', 'path'].includes(view.tool)) parts.askSize(middle());
    else if (key === 'Backspace' && parts.takeBack()) return true;
    else if (direction) return nudge(event, direction);
    else if (role && view.tool !== 'pick' && into.target) {
      if (!event.repeat) into.choose(role);
    } else if (OUTCOMES[key]) parts.take(OUTCOMES[key]);
    else if (key === ',') parts.align();
    else if (key === '*') parts.keep();
    else if (key === 'E') parts.exportMarks();
    else if (key === 'F2' && selection.only) parts.rename(selection.only.node.id);
    else if (key === 'ContextMenu' || (key === 'F10' && event.shiftKey)) parts.openMenu();
    else return look(key) || actions.byKey(named(event));
    return true;
  }

  function onKey(event: KeyboardEvent): void {
    const target = event.target as Element;
    // A menu or dialog that is open closes by itself, and nothing else does.
    if (event.key === 'Escape' && document.querySelector(OVERLAY)) return;
    if (
      target.closest('input:not([type=checkbox]), select, textarea, .v-overlay:not(.v-snackbar)')
    ) {
      // Esc leaves a field for the desk, where keys mean something again.
      if (event.key === 'Escape' && !target.closest('.v-overlay')) (target as HTMLElement).blur();
      return;
    }
    const onButton = event.key === 'Enter' && target.closest('button, a');
    if (regions.open && !(onButton && target.closest('.strip, .facts'))) {
      if (event.key === 'Escape' && parts.leave()) event.preventDefault();
      else if (regionKeys.press(event) || look(spelled(event))) event.preventDefault();
      return;
    }
    if (onButton) return;
    if (typing.typing && event.key !== 'Escape') {
      // Whatever is typed goes where the caret is.
      parts.toWords();
      return;
    }
    const withCtrl = event.ctrlKey || event.metaKey;
    if (!withCtrl && spelled(event) === 'G') {
      event.preventDefault();
      void compare.hold();
      return;
    }
    const done = withCtrl ? withControl(event) : plain(event);
    if (done) event.preventDefault();
  }

  function onPaste(event: ClipboardEvent): void {
    if ((event.target as Element).closest('input, textarea, .v-overlay:not(.v-snackbar)')) return;
    event.preventDefault();
    const files = [...(event.clipboardData?.files ?? [])];
    if (files.length) {
      void clipboard.pasteFiles(files);
      return;
    }
    const text = event.clipboardData?.getData('text/plain') ?? '';
    void clipboard.paste(text || null, inPlace);
    inPlace = false;
  }

  /** What lasts while a key is held ends with it, or where the page is left. */
  function onRelease(event: KeyboardEvent | FocusEvent): void {
    const key = event instanceof KeyboardEvent ? spelled(event).toLowerCase() : '';
    if (!key || key === 'g' || key === 'shift') compare.release();
    if (event instanceof KeyboardEvent) {
      regionKeys.release(event);
      if (roleOf(named(event))) into.release();
    } else regions.dropping = false;
  }

  window.addEventListener('keyup', onRelease);
  window.addEventListener('blur', onRelease);
  window.addEventListener('keydown', onKey);
  window.addEventListener('paste', onPaste);
  onScopeDispose(() => {
    window.removeEventListener('keyup', onRelease);
    window.removeEventListener('blur', onRelease);
    window.removeEventListener('keydown', onKey);
    window.removeEventListener('paste', onPaste);
  });
}

/** A key as actions name it: letters in capitals, Shift told where it makes no other sign. */
function named(event: KeyboardEvent): string {
  const key = spelled(event);
  if (key === 'Backspace') return 'Delete';
  return /^[A-Z]$/.test(key) ? `Shift+${key}` : key.length === 1 ? key.toUpperCase() : key;
}
