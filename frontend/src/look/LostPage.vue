<script setup lang="ts">
import { RouterLink } from 'vue-router';

import DotLogo from '@/look/DotLogo.vue';

defineProps<{ why?: string }>();
</script>

<template>
  <main class="lost">
    <DotLogo />
    <h1>Nothing at this address</h1>
    <p>{{ why ?? 'There is no page here.' }}</p>
    <RouterLink to="/">All drawings</RouterLink>
  </main>
</template>

<style scoped>
.lost {
  display: grid;
  justify-items: center;
  gap: 10px;
  padding-top: 26vh;
  text-align: center;
}
h1 {
  font-size: 20px;
}
p {
  margin: 0;
  color: var(--soft);
}
a {
  margin-top: 8px;
  padding: 7px 16px;
  border-radius: 16px;
  background: var(--clay);
  color: #fff;
  text-decoration: none;
}
</style>
