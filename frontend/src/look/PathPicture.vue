<script setup lang="ts">
import { computed } from 'vue';

import type { Box, Piece } from '@/api/types';
import PiecePaths from '@/look/PiecePaths.vue';

/** Painted pieces in a box, drawn as large as there is room. */
const props = defineProps<{
  pieces: readonly Piece[];
  box: Box;
  margin?: number;
}>();

const viewBox = computed(() => {
  const { x0, y0, x1, y1 } = props.box;
  const room = Math.max(x1 - x0, y1 - y0) * (props.margin ?? 0);
  return `${x0 - room} ${y0 - room} ${x1 - x0 + 2 * room} ${y1 - y0 + 2 * room}`;
});
</script>

<template>
  <svg :viewBox="viewBox" aria-hidden="true">
    <PiecePaths :pieces="pieces" />
  </svg>
</template>
