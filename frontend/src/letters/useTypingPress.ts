import type { Desk, Gesture } from '@/desk/gestures';
import { keysOf, landed } from '@/desk/gestures';
import type { Point } from '@/marks/numbers';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** So near to the words, in heights of their line, a press is meant for them. */
const NEAR = 0.75;

/** The pointer while words are typed: it puts the caret, chooses letters, or leaves. */
export function useTypingPress({ press, place, snapperFor, hands }: Desk) {
  const typing = useTyping();
  const view = useView();

  function pressWords(event: PointerEvent): void {
    // The field keeps what is typed next.
    event.preventDefault();
    const at = view.toPlate(place(event));
    if (!typing.open) {
      const begin = () => {
        void typing.beginAt(landed(hands, snapperFor([]), at, keysOf(event)).at);
        return null;
      };
      press(event, begin, begin);
      return;
    }
    // It is still on its way where the letters are that it may be meant for.
    if (!typing.map && !typing.fresh) return;
    const near = typing.nearest(at);
    if (!near || near.away > NEAR * near.high) {
      void typing.leave();
      return;
    }
    if (typing.spacing) return;
    const anchor = event.shiftKey ? typing.chosen.anchor : near.place;
    void typing.commit();
    typing.choose(near.place, anchor);
    press(
      event,
      () => choosing(anchor),
      () => undefined,
    );
  }

  /** Chooses letters from where the drag began. */
  function choosing(anchor: number): Gesture {
    return {
      move(at) {
        const near = typing.nearest(at);
        if (near) typing.choose(near.place, anchor);
        return { text: '' };
      },
      end: () => Promise.resolve(),
      cancel: () => undefined,
    };
  }

  /** Chooses the word at a point. */
  function chooseWord(at: Point): void {
    const place = typing.nearest(at)?.place;
    if (place === undefined || !typing.typing) return;
    const before = /[\p{L}\p{N}\p{M}]*$/u.exec(typing.draft.slice(0, place))![0].length;
    const after = /^[\p{L}\p{N}\p{M}]*/u.exec(typing.draft.slice(place))![0].length;
    typing.choose(place + after, place - before);
  }

  return { pressWords, chooseWord };
}
