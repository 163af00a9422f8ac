<script setup lang="ts">
import { computed } from 'vue';

import type { Box, Tile } from '@/api/types';
import PathPicture from '@/look/PathPicture.vue';
import type { OutcomeWords } from '@/marks/outcomes';

/** One outcome as a picture of its real result, in its real paint. */
const props = defineProps<{
  tile: Tile;
  box: Box;
  words: OutcomeWords;
  /** Whether it is the outcome that has been taken. */
  taken?: boolean;
}>();
const emit = defineEmits<{ show: []; hide: []; take: [] }>();

/** As many letters stand in a line of the tile. */
const FITS = 14;

const isEmpty = computed(() => props.tile.count === 0);
const count = computed(() => {
  if (isEmpty.value) return 'nothing left';
  if (props.tile.unchanged) return 'changes nothing';
  const both = [`${props.tile.count} pc`, `${props.tile.nodes} nd`];
  const inOne = both.join(' · ');
  return inOne.length > FITS ? both.join('\n') : inOne;
});
const spoken = computed(() => {
  const { count: pieces, nodes } = props.tile;
  if (isEmpty.value || props.tile.unchanged) return `${props.words.word}: ${count.value}`;
  return `${props.words.word}: ${pieces} ${pieces === 1 ? 'piece' : 'pieces'}, ${nodes} nodes`;
});
/** What takes no part is named, so that nobody wonders where it went. */
const idle = computed(() =>
  props.tile.idle.map(({ name, why }) => `\n${name} takes no part: ${why}`).join(''),
);
const title = computed(() => {
  const { word, says, key } = props.words;
  return `${word}: ${says}${key ? ` (${key})` : ''}${idle.value}`;
});
/** Results without paint are shown all the same. */
const pieces = computed(() =>
  props.tile.pieces.map((piece) =>
    piece.fill || piece.line ? piece : { ...piece, fill: '#D8CFBF' },
  ),
);
</script>

<template>
  <button
    class="tile"
    :class="{ taken }"
    :disabled="isEmpty || tile.unchanged"
    :aria-pressed="taken || undefined"
    :aria-label="spoken"
    :title="title"
    :data-outcome="tile.outcome"
    @pointerenter="emit('show')"
    @pointerleave="emit('hide')"
    @focus="emit('show')"
    @click="$event.detail < 2 && !taken && emit('take')"
  >
    <PathPicture v-if="!isEmpty" :pieces="pieces" :box="box" :margin="0.03" />
    <svg v-else viewBox="0 0 66 58" aria-hidden="true">
      <circle
        cx="33"
        cy="29"
        r="20"
        fill="none"
        stroke="var(--rule)"
        stroke-width="2"
        stroke-dasharray="3 4"
      />
    </svg>
    <b>{{ words.word }}</b>
    <small class="mono count">{{ count }}</small>
    <small v-if="tile.idle.length" class="without">
      without {{ tile.idle.map(({ name }) => name).join(', ') }}
    </small>
  </button>
</template>

<style scoped>
.tile .count {
  margin: 0 -4px;
  letter-spacing: -0.03em;
  text-align: center;
  white-space: pre-line;
}
.without {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
}
.taken {
  border-color: var(--tide);
  box-shadow: 0 0 0 1.5px var(--tide);
}
</style>
