import { ref } from 'vue';

import { useRegions } from '@/stores/regions';

const STEP_PIXELS = 4;

/** The region under a point of the screen: that of a dot first. */
function spotAt(x: number, y: number): number | null {
  const under = document.elementsFromPoint(x, y);
  const named = (name: string) =>
    under.find((element) => element.hasAttribute(name))?.getAttribute(name) ?? null;
  const found = named('data-dot') ?? named('data-region');
  return found === null ? null : Number(found);
}

/** A stroke of the brush in hand over regions: from where the pointer goes down to where it goes up. */
export function useStroke() {
  const regions = useRegions();
  const touched = ref<readonly number[]>([]);
  const hovered = ref<number | null>(null);
  let last: { x: number; y: number } | null = null;

  function touch(x: number, y: number): void {
    const spot = spotAt(x, y);
    if (spot !== null && !touched.value.includes(spot)) touched.value = [...touched.value, spot];
  }

  function press(event: PointerEvent): void {
    last = { x: event.clientX, y: event.clientY };
    touched.value = [];
    touch(last.x, last.y);
  }

  function move(event: PointerEvent): void {
    const to = { x: event.clientX, y: event.clientY };
    if (!last) {
      hovered.value = spotAt(to.x, to.y);
      return;
    }
    // A fast pointer skips: all that lies on its way is touched.
    const steps = Math.ceil(Math.hypot(to.x - last.x, to.y - last.y) / STEP_PIXELS) || 1;
    for (let i = 1; i <= steps; i++)
      touch(last.x + ((to.x - last.x) * i) / steps, last.y + ((to.y - last.y) * i) / steps);
    last = to;
  }

  function release(): void {
    if (!last) return;
    last = null;
    regions.stroke(touched.value);
    touched.value = [];
  }

  /** Leaves a stroke that is being made; answers whether there was one. */
  function cancel(): boolean {
    const something = last !== null;
    last = null;
    touched.value = [];
    return something;
  }

  return { touched, hovered, press, move, release, cancel };
}
