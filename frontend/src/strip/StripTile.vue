<script setup lang="ts">
/** Something that can be done, as a picture with its word and how it is done. */
defineProps<{ word: string; how?: string; title: string }>();
</script>

<template>
  <button class="tile" :title="title">
    <svg viewBox="0 0 62 58" fill="none" aria-hidden="true"><slot /></svg>
    <b>{{ word }}</b>
    <small v-if="how" class="mono">{{ how }}</small>
  </button>
</template>

<style scoped>
svg {
  stroke: var(--ink);
  stroke-width: 2;
}
svg :slotted(.dot) {
  fill: var(--clay);
  stroke: none;
}
svg :slotted(.node) {
  fill: #fff;
  stroke: var(--clay);
}
</style>
