<script setup lang="ts" generic="T extends { word: string; icon: string }">
/** What can be done at once, as a row of icons; ``lacks`` says why it cannot now. */
defineProps<{ items: readonly T[]; lacks?: string }>();
const emit = defineEmits<{ choose: [item: T] }>();
</script>

<template>
  <div class="row">
    <button
      v-for="item in items"
      :key="item.word"
      :title="lacks ? `${item.word}: ${lacks}` : item.word"
      :aria-label="item.word"
      :disabled="Boolean(lacks)"
      @click="emit('choose', item)"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true"><path :d="item.icon" /></svg>
    </button>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  gap: 4px;
  margin-top: 7px;
}
button {
  padding: 4px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
}
button:hover:not(:disabled) {
  border-color: var(--clay);
}
button:disabled {
  opacity: 0.4;
  cursor: default;
}
svg {
  display: block;
  width: 24px;
  height: 20px;
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linecap: round;
}
</style>
