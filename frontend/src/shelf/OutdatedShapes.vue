<script setup lang="ts">
import { shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { Outdated } from '@/api/types';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';

/** Placed copies whose assets have other marks by now: told, and changed only if wanted. */
const drawing = useDrawing();
const selection = useSelection();
const shelf = useShelf();
const found = shallowRef<Outdated['shapes']>([]);

const asking = latestWins(
  (id: string) =>
    answered<Outdated>(
      client.GET('/api/drawings/{drawing_id}/outdated', { params: { path: { drawing_id: id } } }),
    ),
  (answer) => (found.value = answer.shapes),
  { restMs: 300 },
);
watch([() => drawing.id, () => drawing.revision, () => shelf.state], ([id]) => asking.ask(id), {
  immediate: true,
});

async function each(keep: boolean): Promise<void> {
  for (const shape of found.value) if (!(await drawing.renew(shape.id, keep))) return;
}
</script>

<template>
  <section v-if="found.length" class="told" aria-label="Changed on the shelf">
    <p>
      <template v-for="(shape, i) in found.slice(0, 3)" :key="shape.id">
        <template v-if="i">, </template>
        <button class="name" @click="selection.pick(shape.id)">{{ shape.name }}</button>
      </template>
      <template v-if="found.length > 3"> and {{ found.length - 3 }} more</template>
      {{ found.length === 1 ? 'has' : 'have' }} changed on the shelf since.
    </p>
    <div class="row">
      <v-btn size="small" variant="outlined" @click="each(false)">Take the new mark</v-btn>
      <v-btn size="small" @click="each(true)">Keep</v-btn>
    </div>
  </section>
</template>

<style scoped>
.told {
  margin: 8px 10px;
  padding: 10px 12px;
  border: 1px solid var(--mustard);
  border-radius: 14px;
}
p {
  margin: 0 0 8px;
  line-height: 1.4;
}
.name {
  font-weight: 600;
}
.row {
  display: flex;
  gap: 6px;
}
</style>
