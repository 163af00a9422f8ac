<script setup lang="ts" generic="T">
import ChoicePill from '@/look/ChoicePill.vue';

/** One of a few, behind the word for what is chosen. */
defineProps<{
  word: string;
  options: readonly { value: T; word: string; title: string }[];
  label: string;
}>();
const chosen = defineModel<T>({ required: true });
</script>

<template>
  <div class="row">
    <span class="soft">{{ word }}</span>
    <ChoicePill v-model="chosen" class="pill" :options="options" :label="label" />
  </div>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.pill {
  font-size: 12px;
}
.pill :deep(button) {
  padding: 3px 8px;
}
</style>
