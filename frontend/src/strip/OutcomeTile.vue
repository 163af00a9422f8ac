<script setup lang="ts">
import { computed } from 'vue';

import type { Box, Tile } from '@/api/types';
import PathPicture from '@/look/PathPicture.vue';
import type { OutcomeWords } from '@/strip/outcomes';

/** One outcome as a picture of its real result. */
const props = defineProps<{
  tile: Tile;
  box: Box;
  words: OutcomeWords;
}>();
const emit = defineEmits<{ show: []; hide: []; take: [] }>();

const count = computed(() =>
  props.tile.path ? `${props.tile.pieces} pc · ${props.tile.nodes} nd` : 'nothing left',
);
const spoken = computed(() => {
  const { pieces, nodes, path } = props.tile;
  if (!path) return `${props.words.word}: nothing left`;
  return `${props.words.word}: ${pieces} ${pieces === 1 ? 'piece' : 'pieces'}, ${nodes} nodes`;
});
const pieces = computed(() => [
  { path: props.tile.path, fill: props.tile.fill ?? '#D8CFBF', fill_rule: 'nonzero' },
]);
</script>

<template>
  <button
    class="tile"
    :disabled="!tile.path"
    :aria-label="spoken"
    :title="`${words.word}: ${words.says} (${words.key})`"
    :data-outcome="tile.outcome"
    @pointerenter="emit('show')"
    @pointerleave="emit('hide')"
    @focus="emit('show')"
    @click="emit('take')"
  >
    <PathPicture v-if="tile.path" :pieces="pieces" :box="box" :margin="0.03" />
    <svg v-else viewBox="0 0 66 58" aria-hidden="true">
      <circle
        cx="33"
        cy="29"
        r="20"
        fill="none"
        stroke="#D8CFBF"
        stroke-width="2"
        stroke-dasharray="3 5"
      />
    </svg>
    <b>{{ words.word }}</b>
    <small class="mono">{{ count }}</small>
  </button>
</template>
