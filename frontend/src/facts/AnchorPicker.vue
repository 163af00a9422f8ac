<script setup lang="ts">
/** What x or y means: the low edge, the centre or the high edge, on three dots. */
const props = defineProps<{ words: readonly [string, string, string]; axis: string }>();
const anchor = defineModel<number>({ required: true });
const SHARES = [0, 0.5, 1];
</script>

<template>
  <span class="anchor" role="radiogroup" :aria-label="`What ${axis} means`">
    <button
      v-for="(share, i) in SHARES"
      :key="share"
      role="radio"
      :aria-checked="anchor === share"
      :aria-label="`${axis} is its ${props.words[i]}`"
      :title="`${axis} is its ${props.words[i]}`"
      :class="{ on: anchor === share }"
      @click="anchor = share"
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
