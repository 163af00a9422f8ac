<script setup lang="ts">
import { ROLE_WORDS, ROLES } from '@/marks/roles';
import { useInto } from '@/stores/into';

/** Whether what is drawn next goes into the selected shape, and what it does there. */
const into = useInto();
</script>

<template>
  <v-menu>
    <template #activator="{ props: activator }">
      <button
        v-bind="activator"
        class="pill"
        :class="{ on: into.does }"
        :disabled="!into.target"
        :title="
          into.target
            ? 'What is drawn next: by itself, or into the selected shape'
            : 'Select one shape to draw into it'
        "
      >
        <span class="dot" /> {{ into.does ?? 'by itself' }}
      </button>
    </template>
    <div class="choices" role="radiogroup" :aria-label="`In ${into.target?.name}, what is drawn`">
      <p class="soft">What is drawn next</p>
      <button role="radio" :aria-checked="!into.does" @click="into.choose(null)">
        <b>by itself</b> <span class="soft">on top of all</span>
      </button>
      <p class="soft">In {{ into.target?.name }} it</p>
      <button
        v-for="role in ROLES"
        :key="role"
        role="radio"
        :aria-checked="into.does === role"
        @click="into.choose(role)"
      >
        <b>{{ role }}</b> <span class="soft">{{ ROLE_WORDS[role].says }}</span>
        <kbd>{{ ROLE_WORDS[role].key }}</kbd>
      </button>
    </div>
  </v-menu>
</template>

<style scoped>
.pill {
  display: flex;
  align-items: center;
  gap: 5px;
  padding: 3px 9px;
  border: 1px solid var(--rule);
  border-radius: 14px;
  color: var(--soft);
  white-space: nowrap;
}
.pill:disabled {
  opacity: 0.5;
  cursor: default;
}
.dot {
  width: 9px;
  height: 9px;
  border: 1.5px solid currentcolor;
  border-radius: 50%;
}
.pill.on {
  border-color: var(--clay);
  background: var(--chosen);
  color: var(--ink);
}
.on .dot {
  border-color: var(--clay);
  background: var(--clay);
}
.choices {
  display: grid;
  min-width: 280px;
  padding: 10px 8px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 16px;
}
.choices p {
  margin: 4px 10px 2px;
  font-size: 12px;
}
.choices button {
  display: grid;
  grid-template-columns: 76px 1fr auto;
  gap: 6px;
  padding: 5px 10px;
  border-radius: 12px;
  text-align: left;
}
.choices button:hover,
.choices button:focus-visible {
  background: #f5eee1;
}
.choices [aria-checked='true'] {
  background: var(--chosen);
}
</style>
