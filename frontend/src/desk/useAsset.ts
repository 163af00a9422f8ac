import { computed, ref } from 'vue';

import type { Piece } from '@/api/types';
import type { Desk, Gesture } from '@/desk/gestures';
import { landed } from '@/desk/gestures';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';
import { placeAsset } from '@/shelf/placing';
import { useShelf } from '@/stores/shelf';
import { useView } from '@/stores/view';

/** Drawing the asset that was chosen on the shelf: dragged to a size, or put by a click. */
export function useAsset({ hands, press, place, snapperFor }: Desk) {
  const shelf = useShelf();
  const view = useView();
  const at = ref<{ centre: Point; scale: number } | null>(null);
  const picture = computed(() => (shelf.inHand ? shelf.pictures.get(shelf.inHand.id) : undefined));

  /** The asset as it would stand there. */
  const ghost = computed<{ pieces: readonly Piece[]; transform: string } | null>(() => {
    if (!at.value || !picture.value) return null;
    const { centre, scale } = at.value;
    return {
      pieces: picture.value.pieces,
      transform: `translate(${centre.x} ${centre.y}) scale(${scale})`,
    };
  });

  /** From corner to corner, in its own proportions; Alt draws from the centre. */
  function draws(from: Point): Gesture {
    const box = picture.value!.box;
    const own = { width: box.x1 - box.x0, height: box.y1 - box.y0 };
    const snapper = snapperFor([]);
    let start: Point | null = null;
    return {
      move(to, keys) {
        start ??= landed(hands, snapper, from, keys).at;
        const { at: end, marks } = landed(hands, snapper, to, keys);
        const reach = keys.alt ? 2 : 1;
        const dx = end.x - start.x;
        const dy = end.y - start.y;
        const scale = reach * Math.max(Math.abs(dx) / own.width, Math.abs(dy) / own.height);
        const half = { x: (own.width * scale) / 2, y: (own.height * scale) / 2 };
        const centre = keys.alt
          ? start
          : { x: start.x + Math.sign(dx || 1) * half.x, y: start.y + Math.sign(dy || 1) * half.y };
        at.value = scale > 0 ? { centre, scale } : null;
        const size = `${shortNumber(2 * half.x)} × ${shortNumber(2 * half.y)}`;
        return { text: `${size} · ${Math.round(100 * scale)} %`, marks };
      },
      async end() {
        const drawn = at.value;
        const asset = shelf.inHand;
        if (drawn && asset) await placeAsset(asset.id, drawn.centre, drawn.scale);
        leave();
      },
      cancel: leave,
    };
  }

  function pressAsset(event: PointerEvent): void {
    press(
      event,
      (from) => (picture.value ? draws(from) : null),
      () => void (shelf.inHand && put(shelf.inHand.id, view.toPlate(place(event)))),
    );
  }

  /** Puts an asset at a point, at the size that is typed on the shelf. */
  async function put(asset: string, point: Point): Promise<void> {
    const centre = { x: view.rounded(point.x), y: view.rounded(point.y) };
    leave();
    await placeAsset(asset, centre, shelf.percent / 100);
  }

  /** Lets go of the asset; answers whether there was one. */
  function leave(): boolean {
    const something = shelf.inHand !== null;
    shelf.inHand = at.value = null;
    return something;
  }

  return { ghost, pressAsset, put, leave };
}
