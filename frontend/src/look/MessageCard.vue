<script setup lang="ts">
/** A small dialog: what is said or asked, and at its foot what can be done. */
defineProps<{ title: string; width?: number }>();
</script>

<template>
  <v-card class="card" rounded="xl" :title="title" :style="{ width: `${width ?? 430}px` }">
    <div class="said"><slot /></div>
    <div class="ends foot"><slot name="foot" /></div>
  </v-card>
</template>

<style scoped>
.card {
  max-height: 70vh;
}
.said {
  padding: 0 24px;
  line-height: 1.5;
  overflow-y: auto;
}
.said :deep(p) {
  margin: 0;
}
.foot {
  padding: 14px 20px 18px;
}
</style>
