import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';

import type { Role } from '@/api/types';
import { isActive } from '@/marks/kinds';
import { ROLE_WORDS } from '@/marks/roles';
import type { Onto } from '@/marks/shapes';
import { newId } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** Drawing into a shape: what is drawn becomes a member of it, with a role. */
export const useInto = defineStore('into', () => {
  const selection = useSelection();
  const view = useView();
  const role = ref<Role | null>(null);
  const chosen = ref<string | null>(null);
  /** What was drawn last: it is selected then, and yet what the next one goes into stays. */
  const drawn = ref<string | null>(null);
  /** Whether something was drawn since the key went down that chose the role. */
  let used = false;

  /** The shape that takes in what is drawn. */
  const target = computed(() => {
    const only = selection.only?.node;
    const picked = only && only.id !== drawn.value ? only.id : chosen.value;
    const node = picked === null ? null : selection.rowById.get(picked)?.node;
    const takes = node && isActive(node) && !node.locked;
    return takes ? { id: node.id, name: node.name } : null;
  });
  /** What it does there, if it goes into a shape at all. */
  const does = computed(() => (target.value ? role.value : null));

  function leave(): void {
    role.value = chosen.value = drawn.value = null;
  }

  /** Draws into the selected shape with a role; the same one again: by itself. */
  function choose(next: Role | null): void {
    if (!next || next === role.value) return leave();
    chosen.value = target.value?.id ?? null;
    role.value = next;
    used = false;
  }

  /** The key is let go that chose the role: held while something was drawn, it ends with it. */
  function release(): void {
    if (used) leave();
  }

  /** Where a new shape goes. */
  function onto(): Onto {
    const { plate } = selection;
    if (!does.value) return { plate };
    const { result } = ROLE_WORDS[does.value];
    const into = { id: target.value!.id, role: does.value, whole: newId(), name: result };
    return { plate, into };
  }

  /** A shape was drawn; the next one goes into what this one lies in. */
  function drew(id: string): void {
    if (!does.value) return;
    chosen.value = selection.rowById.get(id)?.parent ?? chosen.value;
    drawn.value = id;
    used = true;
  }

  watch(
    () => view.tool,
    (tool) => tool === 'pick' && leave(),
  );
  watch(() => selection.plate, leave);

  return { role, target, does, choose, release, onto, drew };
});
