<script setup lang="ts">
import type { Tool } from '@/editor/shapes';

defineProps<{ kind: Tool }>();
</script>

<template>
  <svg viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="1.8" aria-hidden="true">
    <circle v-if="kind === 'ellipse'" cx="12" cy="12" r="8.5" />
    <rect v-else-if="kind === 'rectangle'" x="3.5" y="5.5" width="17" height="13" rx="2" />
    <path v-else-if="kind === 'polygon'" d="M12 3.5 20 9.5 17 19H7L4 9.5z" />
    <path
      v-else-if="kind === 'drop'"
      d="M12 3c3 4.6 5.5 7.2 5.5 11a5.5 5.5 0 0 1-11 0c0-3.8 2.5-6.4 5.5-11z"
      stroke-linejoin="round"
    />
    <g v-else-if="kind === 'ring'">
      <circle cx="12" cy="12" r="8.5" />
      <circle cx="12" cy="12" r="4" />
    </g>
    <path v-else-if="kind === 'line'" d="M5 19 19 5" />
    <path v-else-if="kind === 'path'" d="M3.5 15C6 6 10.500 6 12 12s6 6 8.500-3" />
    <path
      v-else
      d="M12 3l2.3 6.2 6.6.3-5.2 4.1 1.8 6.4L12 16.3 6.5 20l1.8-6.4L3.1 9.5l6.6-.3z"
      stroke-linejoin="round"
    />
  </svg>
</template>
