import { onMounted, onScopeDispose } from 'vue';

import { spelled } from '@/marks/spelled';
import { useShelf } from '@/stores/shelf';

/** The keys of the shelf page; they rest while something is typed or a dialog is open. */
export function useShelfKeys(parts: {
  remove(): void;
  all(): void;
  leave(): void;
  find(): void;
}): void {
  const shelf = useShelf();

  function onKey(event: KeyboardEvent): void {
    const target = event.target as Element;
    if (target.closest('input, textarea, select, .v-overlay:not(.v-snackbar)')) return;
    const key = spelled(event).toLowerCase();
    const control = event.ctrlKey || event.metaKey;
    if (control && key === 'z') void (event.shiftKey ? shelf.redo() : shelf.undo());
    else if (control && key === 'a') parts.all();
    else if (control) return;
    else if (key === 'delete' || key === 'backspace') parts.remove();
    else if (key === 'escape') parts.leave();
    else if (key === '/') parts.find();
    else return;
    event.preventDefault();
  }

  onMounted(() => window.addEventListener('keydown', onKey));
  onScopeDispose(() => window.removeEventListener('keydown', onKey));
}
