<script setup lang="ts">
import { computed } from 'vue';

import { shapeWord } from '@/editor/shapes';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** What the pointer does now, and which keys change it. */
const view = useView();
const selection = useSelection();

interface Hint {
  says: string;
  keys: [string, string][];
}

const hint = computed<Hint>(() => {
  if (view.tool !== 'pick')
    return {
      says: `Drag to draw a ${shapeWord(view.tool).word.toLowerCase()}, or click to type its size.`,
      keys: [
        ['Shift', 'equal sides'],
        ['Alt', 'from the centre'],
        ['Esc', 'back to picking'],
      ],
    };
  if (selection.selected.length === 1)
    return {
      says: 'Drag to move, drag a corner to resize.',
      keys: [
        ['Shift', 'one axis, or proportions'],
        ['Alt', 'resize from the centre'],
        ['arrows', 'nudge'],
        ['Delete', 'remove'],
      ],
    };
  if (selection.selected.length > 1)
    return {
      says: 'Drag to move.',
      keys: [
        ['J C O T', 'combine'],
        ['.', 'same centre'],
        ['Shift-click', 'add or take out'],
      ],
    };
  return {
    says: 'Click a shape to select it.',
    keys: [
      ['wheel', 'zoom'],
      ['Space-drag', 'pan'],
      ['?', 'all keys'],
    ],
  };
});
</script>

<template>
  <div class="hint" aria-live="polite">
    {{ hint.says }}
    <template v-for="([key, does], i) in hint.keys" :key="key">
      <template v-if="i"> · </template><b>{{ key }}</b> {{ does }}
    </template>
  </div>
</template>

<style scoped>
.hint {
  position: absolute;
  left: 14px;
  bottom: 9px;
  padding: 1px 6px;
  border-radius: 8px;
  background: rgb(233 227 214 / 85%);
  color: #4e5b67;
  font-size: 12px;
  pointer-events: none;
}
b {
  font-weight: 600;
}
</style>
