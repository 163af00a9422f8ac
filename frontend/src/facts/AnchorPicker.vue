<script setup lang="ts">
/** What x or y means: the low edge, the middle or the high edge, on three dots; null is none. */
const props = defineProps<{
  share: number | null;
  words: readonly [string, string, string];
  axis: string;
}>();
defineEmits<{ choose: [share: number] }>();
const SHARES = [0, 0.5, 1];
</script>

<template>
  <span class="anchor" role="radiogroup" :aria-label="`What ${axis} means`">
    <button
      v-for="(each, i) in SHARES"
      :key="each"
      role="radio"
      :aria-checked="share === each"
      :aria-label="`${axis} is its ${props.words[i]}`"
      :title="`${axis} is its ${props.words[i]}`"
      :class="{ on: share === each }"
      @click="$emit('choose', each)"
    />
  </span>
</template>

<style scoped>
.anchor {
  display: flex;
  gap: 2px;
}
button {
  width: 8px;
  height: 8px;
  border: 1px solid var(--soft);
  border-radius: 50%;
}
button.on {
  background: var(--clay);
  border-color: var(--clay);
}
</style>
