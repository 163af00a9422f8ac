import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';

import client, { answered, RefusedError } from '@/api/client';
import type { Fewer } from '@/api/types';
import { commandOf } from '@/marks/commands';
import { ontoPlate } from '@/marks/matrix';
import type { Point } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useSelection } from '@/stores/selection';

/** Fewer nodes looked at before they are taken: how many go, and how far outlines stray. */
export const useSimplifying = defineStore('simplifying', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const of = ref<readonly string[]>([]);
  /** How far outlines may stray, in the plate's units. */
  const bound = ref(0.1);
  const told = shallowRef<Fewer | null>(null);
  const fault = ref('');

  const open = computed(() => of.value.length > 0 && of.value.join() === selection.ids.join());
  watch(open, (is) => {
    if (!is) leave();
  });

  const command = () => commandOf('simplify', { ids: [...of.value], bound: bound.value });
  const asked = latestWins(
    (within: number, signal) =>
      answered<Fewer>(
        client.POST('/api/drawings/{drawing_id}/fewer', {
          params: { path: { drawing_id: drawing.id } },
          signal,
          body: { revision: drawing.revision, ids: [...of.value], bound: within },
        }),
      ),
    (found, within) => {
      // What was typed meanwhile is what counts.
      if (within !== bound.value) return;
      told.value = found;
      if (found.after < found.before) drawing.look(command());
      else drawing.stopPreview();
    },
    { failed: (error) => (fault.value = error instanceof RefusedError ? error.message : '') },
  );
  watch([() => of.value, () => bound.value, () => drawing.revision], ([ids]) => {
    told.value = null;
    fault.value = '';
    if (ids.length) asked.ask(bound.value);
    else asked.cancel();
  });

  /** The nodes that would be left, on the plate. */
  const dots = computed<Point[]>(() =>
    open.value
      ? Object.entries(drawing.lookedNodes).flatMap(([id, map]) => {
          const figure = selection.figureById.get(id);
          return figure ? map.nodes.map((dot) => ontoPlate(figure.matrix, dot)) : [];
        })
      : [],
  );

  function begin(): void {
    of.value = [...selection.ids];
    drawing.watched = selection.selected
      .filter(({ node }) => node.kind === 'path')
      .map(({ node }) => node.id);
  }

  /** Answers whether there was something to leave. */
  function leave(): boolean {
    const was = of.value.length > 0;
    if (was) {
      drawing.watched = [];
      drawing.stopPreview();
    }
    of.value = [];
    return was;
  }

  const possible = computed(() => Boolean(told.value && told.value.after < told.value.before));

  async function take(): Promise<void> {
    if (!possible.value) return;
    const taken = command();
    of.value = drawing.watched = [];
    await drawing.run(taken);
  }

  return { bound, told, fault, open, possible, dots, begin, leave, take };
});
