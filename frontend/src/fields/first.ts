import type { Directive } from 'vue';

/**
 * Gives a field the focus, once, when what it lies in is there to be seen: a dialog comes in
 * hidden, and who has gone on to another field by then is not called back.
 */
export const vFirst: Directive<HTMLElement> = {
  mounted(element) {
    const field = element.querySelector('input')!;
    const take = (): void => {
      field.focus({ preventScroll: true });
      if (document.activeElement !== field && element.isConnected) requestAnimationFrame(take);
    };
    take();
  },
};
