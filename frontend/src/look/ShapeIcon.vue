<script setup lang="ts">
import type { ShapeKind } from '@/editor/shapes';

defineProps<{ kind: ShapeKind }>();
</script>

<template>
  <svg viewBox="0 0 24 24" fill="none" stroke="currentColor" stroke-width="1.8" aria-hidden="true">
    <circle v-if="kind === 'ellipse'" cx="12" cy="12" r="8.5" />
    <rect v-else-if="kind === 'rectangle'" x="3.5" y="5.5" width="17" height="13" rx="2" />
    <path v-else-if="kind === 'polygon'" d="M12 3.5 20 9.5 17 19H7L4 9.5z" />
    <path
      v-else
      d="M12 3l2.3 6.2 6.6.3-5.2 4.1 1.8 6.4L12 16.3 6.5 20l1.8-6.4L3.1 9.5l6.6-.3z"
      stroke-linejoin="round"
    />
  </svg>
</template>
