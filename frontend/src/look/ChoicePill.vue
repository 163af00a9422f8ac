<script setup lang="ts" generic="T">
/** One of a few, all in sight. */
defineProps<{ options: readonly { value: T; word: string; title: string }[]; label: string }>();
const chosen = defineModel<T>({ required: true });
</script>

<template>
  <span class="pill" role="radiogroup" :aria-label="label">
    <button
      v-for="option in options"
      :key="option.word"
      type="button"
      role="radio"
      :aria-checked="option.value === chosen"
      :class="{ on: option.value === chosen }"
      :title="option.title"
      @click="chosen = option.value"
    >
      {{ option.word }}
    </button>
  </span>
</template>

<style scoped>
.pill {
  display: flex;
  overflow: hidden;
  border: 1px solid var(--rule);
  border-radius: 14px;
}
button {
  padding: 3px 11px;
}
.on {
  background: var(--ink);
  color: #fff;
}
</style>
