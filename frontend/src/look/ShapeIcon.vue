<script setup lang="ts">
import type { Tool } from '@/marks/shapes';
import { shapeWord } from '@/marks/shapes';

defineProps<{ kind: Tool }>();
</script>

<template>
  <svg
    viewBox="0 0 24 24"
    fill="none"
    stroke="currentColor"
    stroke-width="1.8"
    stroke-linejoin="round"
    aria-hidden="true"
  >
    <path :d="shapeWord(kind).icon" />
  </svg>
</template>
