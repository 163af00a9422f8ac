import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';

import type { Node } from '@/api/types';
import type { Ink } from '@/marks/paint';
import { colourOf } from '@/marks/paint';
import { useDrawing } from '@/stores/drawing';

const FIRST: Ink = { fill: '#3F7355', line: null, opacity: 1 };

/** What new shapes are painted with, kept for each drawing over a reload. */
export const useStyle = defineStore('style', () => {
  const drawing = useDrawing();
  const ink = ref<Ink>(FIRST);
  const kept = computed(() => `dotstack style ${drawing.id}`);
  const fill = computed(() => ink.value.fill);
  const line = computed(() => ink.value.line);

  watch(
    kept,
    (key) => {
      const known = localStorage.getItem(key);
      ink.value = known ? (JSON.parse(known) as Ink) : FIRST;
    },
    { immediate: true },
  );

  function set(fields: Partial<Ink>): void {
    ink.value = { ...ink.value, ...fields };
    localStorage.setItem(kept.value, JSON.stringify(ink.value));
  }

  /** Takes the paint that a shape has. */
  function takeFrom({ look }: Node): void {
    set({ ...look, fill: colourOf(look.fill) });
  }

  return { ink, fill, line, set, takeFrom };
});
