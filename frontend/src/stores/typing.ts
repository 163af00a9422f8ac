import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { Command, LetterMap } from '@/api/types';
import { commandOf } from '@/marks/commands';
import type { Point } from '@/marks/numbers';
import type { Manner } from '@/marks/shapes';
import type { Onto } from '@/marks/shapes';
import { textOf } from '@/marks/shapes';
import { newId, useDrawing } from '@/stores/drawing';
import { useFonts } from '@/stores/fonts';
import { latestWins } from '@/stores/latestWins';
import { useInto } from '@/stores/into';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useStyle } from '@/stores/style';
import { useView } from '@/stores/view';

/** So long nothing is typed before what was typed becomes a step. */
const REST_MS = 1500;
/** What Alt and an arrow add between two letters, in thousandths of the body size. */
const NUDGE = 5;

/** Where a text goes that has no letter yet, and how it is set. */
interface Fresh {
  onto: Onto;
  at: Point;
  manner: Manner;
}

/** The words of one text, typed on the desk until Esc; or its gaps, spaced one by one. */
export const useTyping = defineStore('typing', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const fonts = useFonts();
  const into = useInto();
  const notices = useNotices();
  const style = useStyle();
  const view = useView();

  /** The text in hand, and what is done with it. */
  const of = ref<string | null>(null);
  const manner = ref<'typing' | 'spacing'>('typing');
  const fresh = shallowRef<Fresh | null>(null);
  /** What is in the field, and what of it is a step already. */
  const draft = ref('');
  const saved = ref('');
  /** What is chosen of the words, from where to where; the caret is at its moving end. */
  const chosen = ref<{ anchor: number; head: number }>({ anchor: 0, head: 0 });
  const known = shallowRef<LetterMap | null>(null);
  /** The gap in hand while letters are spaced, by the character behind it. */
  const gapInHand = ref<number | null>(null);
  let composing = false;
  let resting: ReturnType<typeof setTimeout> | undefined;

  const typing = computed(() => of.value !== null && manner.value === 'typing');
  const spacing = computed(() => of.value !== null && manner.value === 'spacing');
  const open = computed(() => of.value !== null);
  const text = computed(() => {
    const node = of.value ? selection.rowById.get(of.value)?.node : undefined;
    return node?.kind === 'text' ? node : null;
  });
  const map = computed(() => drawing.lookedLetters ?? known.value);

  const asked = latestWins(
    (id: string) =>
      answered<LetterMap>(
        client.POST('/api/drawings/{drawing_id}/letters', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, id, gaps: spacing.value },
        }),
      ),
    (found) => (known.value = found),
  );
  watch([() => of.value, () => drawing.revision], ([id]) => {
    if (!id || fresh.value) {
      asked.cancel();
      return;
    }
    if (!text.value) {
      // It was taken back, or removed elsewhere.
      close();
      return;
    }
    // What was done elsewhere, or undone, is taken; what is being typed stays.
    const isTyped = draft.value !== saved.value;
    saved.value = text.value.words;
    if (!isTyped) draft.value = saved.value;
    asked.ask(id);
    if (draft.value !== saved.value) look();
  });

  /** Takes a text in hand; a new one where there is none yet. */
  async function begin(id: string, how: 'typing' | 'spacing' = 'typing'): Promise<void> {
    if (of.value) await leave();
    const node = selection.rowById.get(id)?.node;
    if (node?.kind !== 'text') return;
    if (selection.figureById.get(id)?.font_missing) {
      notices.say(
        `The font ${node.font.family} is not here: choose another in Facts, or add its file.`,
      );
      return;
    }
    fresh.value = null;
    known.value = null;
    draft.value = saved.value = node.words;
    manner.value = how;
    gapInHand.value = null;
    choose(node.words.length);
    of.value = drawing.watchedText = id;
  }

  async function beginAt(at: Point): Promise<void> {
    if (of.value) await leave();
    const onto = into.onto();
    const set = await fonts.manner(drawing.heads[onto.plate]!);
    if (!set) return;
    selection.pick();
    known.value = null;
    draft.value = saved.value = '';
    manner.value = 'typing';
    choose(0);
    fresh.value = { onto, at, manner: set };
    of.value = drawing.watchedText = newId();
  }

  /** The command that makes a step of what was typed. */
  function command(): Command {
    const id = of.value!;
    if (!fresh.value) return commandOf('set-words', { id, words: draft.value });
    const { onto, at, manner: set } = fresh.value;
    return textOf(onto, id, style.ink, at, draft.value, set);
  }

  /** Shows what was typed. */
  function look(): void {
    if (draft.value.trim()) drawing.look(command());
    else drawing.stopPreview();
  }

  function type(words: string): void {
    draft.value = words;
    // Its facts are there as soon as it is.
    if (fresh.value) selection.pick(of.value!);
    look();
    clearTimeout(resting);
    resting = setTimeout(() => void commit(), REST_MS);
  }

  function compose(on: boolean): void {
    composing = on;
  }

  /** Makes a step of what was typed, but for letters that are still being composed. */
  async function commit(): Promise<void> {
    clearTimeout(resting);
    if (!of.value || composing || draft.value === saved.value || !draft.value.trim()) return;
    await step();
  }

  /** Makes a step of what is in the field; answers whether it was taken. */
  async function step(): Promise<boolean> {
    const before = { words: saved.value, fresh: fresh.value };
    const made = command();
    const id = of.value!;
    if (fresh.value) fonts.remember(fresh.value.manner);
    saved.value = draft.value;
    fresh.value = null;
    if (await drawing.run(made)) {
      if (before.fresh) into.drew(id);
      return true;
    }
    if (of.value === id) {
      saved.value = before.words;
      fresh.value = before.fresh;
    }
    return false;
  }

  /** Takes back what was typed since the last step, or that. */
  function undo(): void {
    clearTimeout(resting);
    if (draft.value === saved.value) void drawing.undo();
    else {
      draft.value = saved.value;
      drawing.stopPreview();
    }
  }

  function close(): void {
    clearTimeout(resting);
    of.value = drawing.watchedText = null;
    fresh.value = null;
    known.value = null;
    asked.cancel();
  }

  /**
   * Ends typing; words without a letter go, and what is refused stays in the field, to be changed.
   * Answers whether there was something to leave.
   */
  async function leave(): Promise<boolean> {
    const id = of.value;
    if (!id) return false;
    composing = false;
    clearTimeout(resting);
    const gone = !draft.value.trim();
    const had = gone && saved.value.trim();
    if (gone && fresh.value) drawing.stopPreview();
    else if (draft.value !== saved.value && !(await step())) return true;
    if (of.value === id) close();
    if (had) notices.say('The words are gone, and the shape with them.');
    if (view.tool === 'text') view.tool = 'pick';
    return true;
  }

  // Who takes something else in hand, or another tool, has done with the words.
  watch(
    () =>
      selection.picked.includes(of.value ?? '') || (fresh.value !== null && !draft.value.trim()),
    (inHand) => {
      if (!inHand) void leave();
    },
  );
  watch(
    () => view.tool,
    (tool) => {
      if (tool !== 'text' && tool !== 'pick') void leave();
    },
  );

  /** Puts the caret before a character; what lies between it and the anchor is chosen. */
  function choose(head: number, anchor = head): void {
    chosen.value = { anchor, head };
  }

  /** The character before which the caret stands that is nearest to a point of the plate. */
  function nearest(at: Point): { place: number; away: number; high: number } | null {
    // Of letters as they were told last some may have gone since.
    const cells = (map.value?.cells ?? []).slice(0, draft.value.length + 1);
    let found: { place: number; away: number; high: number } | null = null;
    cells.forEach(({ before: [x0, y0, x1, y1] }, place) => {
      const high = Math.hypot(x1 - x0, y1 - y0) || 1;
      const along = ((at.x - x0) * (x1 - x0) + (at.y - y0) * (y1 - y0)) / high ** 2;
      const part = Math.min(1, Math.max(0, along));
      const away = Math.hypot(at.x - x0 - part * (x1 - x0), at.y - y0 - part * (y1 - y0));
      if (!found || away < found.away) found = { place, away, high };
    });
    return found;
  }

  function spaced(before: number, by: number): Command {
    return commandOf('space-letters', { id: of.value!, before, by: Number(by.toFixed(2)) });
  }

  /** Adds room before a character, or takes some away. */
  async function space(place: number, steps: number): Promise<void> {
    await commit();
    if (place <= 0 || place >= draft.value.length) return;
    // One press after another adds to what the one before has led to.
    await drawing.runFound(async () =>
      text.value ? spaced(place, (text.value.pairs[place] ?? 0) + steps * NUDGE) : null,
    );
  }

  /** Leaves a gap as the font has it. */
  async function plain(place: number): Promise<void> {
    if (text.value?.pairs[place]) await drawing.run(spaced(place, 0));
  }

  /** Goes on to the next gap, or back. */
  function walk(by: number): void {
    const gaps = map.value?.gaps ?? [];
    if (!gaps.length) return;
    const at = gaps.findIndex(({ before }) => before === gapInHand.value);
    const next = at < 0 ? (by > 0 ? 0 : gaps.length - 1) : (at + by + gaps.length) % gaps.length;
    gapInHand.value = gaps[next]!.before;
  }

  return {
    of,
    fresh,
    typing,
    spacing,
    open,
    draft,
    chosen,
    map,
    gapInHand,
    begin,
    beginAt,
    type,
    compose,
    commit,
    undo,
    leave,
    choose,
    nearest,
    spaced,
    space,
    plain,
    walk,
  };
});
