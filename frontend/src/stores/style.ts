import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';

import type { Node } from '@/api/types';
import type { Ink } from '@/marks/paint';
import { colourOf } from '@/marks/paint';
import { useDrawing } from '@/stores/drawing';

const FIRST: Ink = { fill: '#3F7355', lines: [], opacity: 1 };

const HALF = 0.5;

/** What new shapes are painted with, kept for each drawing over a reload. */
export const useStyle = defineStore('style', () => {
  const drawing = useDrawing();
  const ink = ref<Ink>(FIRST);
  const kept = computed(() => `dotstack ink ${drawing.id}`);
  const fill = computed(() => ink.value.fill);
  const line = computed(() => ink.value.lines[0] ?? null);

  watch(
    kept,
    (key) => {
      const known = localStorage.getItem(key);
      ink.value = { ...FIRST, ...(known ? (JSON.parse(known) as Ink) : {}) };
    },
    { immediate: true },
  );

  function set(fields: Partial<Ink>): void {
    ink.value = { ...ink.value, ...fields };
    localStorage.setItem(kept.value, JSON.stringify(ink.value));
  }

  /** Takes the paint that a shape has. */
  function takeFrom({ look }: Node): void {
    set({ fill: colourOf(look.fill), lines: look.lines, opacity: look.opacity });
  }

  /** New shapes let through what lies beneath, or do so no more. */
  function seeThrough(): void {
    set({ opacity: ink.value.opacity < 1 ? 1 : HALF });
  }

  return { ink, fill, line, set, takeFrom, seeThrough };
});
