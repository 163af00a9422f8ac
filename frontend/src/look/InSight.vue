<script setup lang="ts">
import { onMounted, onScopeDispose, ref } from 'vue';

/** Tells once when it comes near what is to be seen, so that pictures are made as wanted. */
const emit = defineEmits<{ near: [] }>();
const root = ref<HTMLElement>();
let observer: IntersectionObserver | undefined;

onMounted(() => {
  observer = new IntersectionObserver(
    (entries) => {
      if (!entries.some((entry) => entry.isIntersecting)) return;
      observer?.disconnect();
      emit('near');
    },
    { rootMargin: '200px' },
  );
  observer.observe(root.value!);
});
onScopeDispose(() => observer?.disconnect());
</script>

<template>
  <span ref="root"><slot /></span>
</template>
