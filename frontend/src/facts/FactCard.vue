<script setup lang="ts">
/** Something that a shape has several of, on a card: its word, whether it is on, and its facts. */
withDefaults(
  defineProps<{
    word: string;
    /** What it is called where the word alone could be any of several. */
    label?: string;
    /** Whether it is on; left out of what is always on. */
    on?: boolean | undefined;
  }>(),
  { label: undefined, on: undefined },
);
const emit = defineEmits<{ toggle: []; remove: [] }>();
</script>

<template>
  <div class="card" role="group" :aria-label="label ?? word" :class="{ off: on === false }">
    <header>
      <button
        v-if="on !== undefined"
        type="button"
        class="eye"
        :aria-pressed="on"
        :aria-label="`${label ?? word}: ${on ? 'switch off' : 'switch on'}`"
        :title="on ? 'switch off, and keep it' : 'switch on'"
        @click="emit('toggle')"
      >
        <i />
      </button>
      <b>{{ word }}</b>
      <slot name="acts" />
      <button
        type="button"
        :aria-label="`Remove ${label ?? word}`"
        title="remove"
        @click="emit('remove')"
      >
        ×
      </button>
    </header>
    <slot />
  </div>
</template>

<style scoped>
.card {
  display: grid;
  gap: 4px;
  padding: 6px 10px 9px;
  border: 1px solid var(--rule);
  border-radius: 12px;
}
.off > :deep(:not(header)) {
  opacity: 0.5;
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
}
header b {
  flex: 1;
  font-weight: 500;
}
header :deep(button) {
  width: 20px;
  color: var(--soft);
}
header :deep(button:hover) {
  color: var(--ink);
}
/* On or off, as a dot that is filled or not. */
.eye i {
  display: block;
  width: 11px;
  height: 11px;
  border: 1.6px solid var(--tide);
  border-radius: 50%;
}
.eye[aria-pressed='true'] i {
  background: var(--tide);
}
</style>
