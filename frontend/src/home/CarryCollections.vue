<script setup lang="ts">
import { computed, ref } from 'vue';

import type { DrawingCard } from '@/api/types';
import MessageCard from '@/look/MessageCard.vue';
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
  <MessageCard title="Save with collections">
    <p>
      Who opens the file gets <b>{{ card.name }}</b>, and is offered these collections:
    </p>
    <div class="list">
      <label v-for="collection in shelf.collections" :key="collection.id">
        <input v-model="carried" type="checkbox" :value="collection.id" />
        {{ collection.name }}
      </label>
    </div>
    <template #foot>
      <v-btn @click="emit('close')">Close</v-btn>
      <v-btn color="primary" variant="flat" :href="address" download @click="emit('close')">
        Save
      </v-btn>
    </template>
  </MessageCard>
</template>

<style scoped>
.list {
  margin-top: 10px;
}
label {
  display: flex;
  gap: 9px;
  padding: 5px 0;
}
</style>
