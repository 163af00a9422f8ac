<script setup lang="ts">
import { computed } from 'vue';

import { ROW } from '@/stack/thread';
import type { Row, Strand } from '@/stores/selection';
import { useSelection } from '@/stores/selection';

/** The head of a strand: of the pieces of something live, or of what that is made from. */
const props = defineProps<{
  whole: Row;
  strand: Strand;
  count: number;
  indent: number;
  folded: boolean;
}>();
const emit = defineEmits<{ fold: [] }>();

const selection = useSelection();
const on = computed(
  () => selection.focus === props.whole.node.id && selection.strand === props.strand,
);
const titles: Record<Strand, string> = {
  pieces: 'work on the pieces: each can be moved, turned, painted or removed by itself',
  'made from': 'work on the shapes that the pieces are made from',
};
</script>

<template>
  <div
    class="head"
    role="listitem"
    :class="{ on }"
    :style="{ paddingLeft: `${indent + 4}px`, height: `${ROW}px` }"
  >
    <button
      class="dot"
      :aria-label="`${folded ? 'Unfold' : 'Fold'} ${strand} of ${whole.node.name}`"
      :aria-expanded="!folded"
      @click="emit('fold')"
    />
    <button
      class="word"
      :aria-pressed="on"
      :aria-label="`${strand} of ${whole.node.name}`"
      :title="titles[strand]"
      @click="selection.enter(whole.node.id, strand)"
    >
      {{ strand }}
    </button>
    <span class="soft">{{ count }}</span>
  </div>
</template>

<style scoped>
.head {
  position: relative;
  display: flex;
  align-items: center;
  margin: 0 8px;
  padding-right: 10px;
}
.dot {
  position: relative;
  z-index: 2;
  flex: none;
  width: 10px;
  height: 10px;
  margin: 0 9px 0 11px;
  border: 2px solid var(--tide);
  border-radius: 50%;
  background: var(--card);
}
.word {
  flex: 1;
  height: 100%;
  padding: 0 8px;
  text-align: left;
  font-size: 12px;
  color: var(--tide);
}
.on .word {
  font-weight: 600;
}
.word:hover {
  text-decoration: underline;
}
.head span {
  font-size: 11px;
}
</style>
