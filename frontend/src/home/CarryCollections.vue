<script setup lang="ts">
import { computed, ref } from 'vue';

import type { DrawingCard } from '@/api/types';
import { useShelf } from '@/stores/shelf';

/** Asks which collections of the shelf a drawing's file is to carry. */
const props = defineProps<{ card: DrawingCard }>();
const emit = defineEmits<{ close: [] }>();

const shelf = useShelf();
const carried = ref<string[]>([]);

const address = computed(() => {
  const query = carried.value.map((id) => `collection=${id}`).join('&');
  return `/api/drawings/${props.card.id}/file?${query}`;
});
</script>

<template>
  <v-card class="card" rounded="xl" title="Save with collections">
    <p>
      Who opens the file gets <b>{{ card.name }}</b>, and is offered these collections:
    </p>
    <div class="list">
      <label v-for="collection in shelf.collections" :key="collection.id">
        <input v-model="carried" type="checkbox" :value="collection.id" />
        {{ collection.name }}
      </label>
    </div>
    <div class="row">
      <v-btn @click="emit('close')">Close</v-btn>
      <v-btn color="primary" variant="flat" :href="address" download @click="emit('close')">
        Save
      </v-btn>
    </div>
  </v-card>
</template>

<style scoped>
.card {
  width: 430px;
}
p {
  margin: 0;
  padding: 0 24px 10px;
  line-height: 1.5;
}
.list {
  max-height: 260px;
  padding: 0 24px 12px;
  overflow-y: auto;
}
label {
  display: flex;
  gap: 9px;
  padding: 5px 0;
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  padding: 0 20px 18px;
}
</style>
