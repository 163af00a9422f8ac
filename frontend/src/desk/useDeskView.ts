import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';

import type { Box } from '@/api/types';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** How the desk fits its plate, keeps its size, and pans while Space is held. */
export function useDeskView(element: () => HTMLElement) {
  const drawing = useDrawing();
  const selection = useSelection();
  const view = useView();
  const spaceHeld = ref(false);
  const plate = computed<Box>(() => {
    const head = drawing.shown.heads[selection.plate];
    return { x0: 0, y0: 0, x1: head?.width ?? 1, y1: head?.height ?? 1 };
  });

  function fit(): void {
    view.fit(plate.value);
  }

  function fitSelection(): void {
    view.fit(selection.bounds ?? plate.value);
  }

  function zoom(factor: number | null): void {
    if (factor === null) view.fit(plate.value, 1);
    else view.zoomAt({ x: view.size.width / 2, y: view.size.height / 2 }, factor);
  }

  function onSpace(event: KeyboardEvent): void {
    const typing = (event.target as Element).closest?.('input, textarea, button, [role=button]');
    if (event.code === 'Space' && (event.type === 'keyup' || !typing))
      spaceHeld.value = event.type === 'keydown';
  }

  let observer: ResizeObserver | null = null;
  onMounted(() => {
    observer = new ResizeObserver(([entry]) => {
      const first = view.size.width === 0;
      view.size = { width: entry!.contentRect.width, height: entry!.contentRect.height };
      if (first) fit();
    });
    view.size = { width: 0, height: 0 };
    observer.observe(element());
    window.addEventListener('keydown', onSpace);
    window.addEventListener('keyup', onSpace);
  });
  onBeforeUnmount(() => {
    observer?.disconnect();
    window.removeEventListener('keydown', onSpace);
    window.removeEventListener('keyup', onSpace);
  });
  watch(() => [selection.plate, plate.value.x1, plate.value.y1].join(), fit);

  /** The dots of the desk, which zoom and pan with the plate. */
  const ground = computed(() => {
    let pitch = 10 * view.zoom;
    while (pitch < 14) pitch *= 2;
    while (pitch > 40) pitch /= 2;
    return {
      backgroundSize: `${pitch}px ${pitch}px`,
      backgroundPosition: `${view.pan.x - pitch / 2}px ${view.pan.y - pitch / 2}px`,
    };
  });

  return { spaceHeld, ground, fit, fitSelection, zoom };
}
