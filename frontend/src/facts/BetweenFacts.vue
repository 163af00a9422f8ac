<script setup lang="ts">
import { computed, ref, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { Measured } from '@/api/types';
import { shortNumber } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';

/** How two shapes stand to each other: the clear gap, and the way between their centres. */
const props = defineProps<{ ids: string[] }>();

const drawing = useDrawing();
const found = ref<Measured | null>(null);

const asked = latestWins(
  (ids: string[]) =>
    answered<Measured>(
      client.POST('/api/drawings/{drawing_id}/measure', {
        params: { path: { drawing_id: drawing.id } },
        body: { revision: drawing.revision, ids: ids as [string, string] },
      }),
    ),
  (measured) => (found.value = measured),
);
watch([() => props.ids.join(), () => drawing.revision], () => asked.ask([...props.ids]), {
  immediate: true,
});

const gap = computed(() =>
  found.value?.gap === null
    ? 'no outline'
    : found.value?.gap
      ? shortNumber(found.value.gap)
      : 'none',
);
</script>

<template>
  <section v-if="found" data-testid="between">
    <h3>Between them</h3>
    <dl>
      <dt>clear gap</dt>
      <dd class="mono">{{ gap }}</dd>
      <dt>centres</dt>
      <dd class="mono">{{ shortNumber(found.dx) }}, {{ shortNumber(found.dy) }}</dd>
    </dl>
  </section>
</template>

<style scoped>
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 4px 10px;
  margin: 6px 0 0;
}
dt {
  color: var(--soft);
}
dd {
  margin: 0;
  text-align: right;
}
</style>
