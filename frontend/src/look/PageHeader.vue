<script setup lang="ts">
import { RouterLink } from 'vue-router';

import DotLogo from '@/look/DotLogo.vue';

/** The head of the pages beside the editor: where one is, and what stands at its right. */
defineProps<{ here: 'Drawings' | 'Shelf' }>();
const PAGES = [
  { word: 'Drawings', to: '/' },
  { word: 'Shelf', to: '/shelf' },
];
</script>

<template>
  <header>
    <DotLogo />
    <h1>Dot Stack</h1>
    <nav>
      <RouterLink
        v-for="page in PAGES"
        :key="page.to"
        :to="page.to"
        :class="{ here: page.word === here }"
      >
        {{ page.word }}
      </RouterLink>
    </nav>
    <div class="right"><slot /></div>
  </header>
</template>

<style scoped>
header {
  display: flex;
  align-items: center;
  gap: 26px;
  height: 64px;
  padding: 0 40px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
  font-size: 14px;
}
h1 {
  font-size: 20px;
}
nav {
  display: flex;
  gap: 22px;
}
a {
  padding: 20px 0 18px;
  border-bottom: 3px solid transparent;
  color: var(--soft);
  text-decoration: none;
}
a:hover {
  color: var(--ink);
}
.here {
  border-bottom-color: var(--clay);
  color: var(--ink);
}
.right {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-left: auto;
}
</style>
