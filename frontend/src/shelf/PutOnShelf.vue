<script setup lang="ts">
import { ref } from 'vue';

import { RefusedError } from '@/api/client';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useShelf } from '@/stores/shelf';

/** Keeps a shape on the shelf, under a name. */
const props = defineProps<{ node: string; suggestion: string }>();
const emit = defineEmits<{ close: [] }>();

const drawing = useDrawing();
const shelf = useShelf();
const notices = useNotices();
const name = ref(props.suggestion);
const section = ref<string | null>(null);
const fault = ref('');

const loading = shelf
  .load()
  .then(() => (section.value ??= shelf.sections[0]?.id ?? null))
  .catch((error: Error) => (fault.value = error.message));

async function put(): Promise<void> {
  if (!name.value.trim()) {
    fault.value = 'A name is wanted.';
    return;
  }
  await loading;
  if (!section.value) {
    fault.value = 'A section is wanted.';
    return;
  }
  try {
    await shelf.put(drawing.id, props.node, section.value, name.value.trim());
    notices.say(`${name.value.trim()} is on the shelf.`);
    emit('close');
  } catch (error) {
    fault.value = error instanceof RefusedError ? error.message : 'The shelf cannot be reached.';
  }
}
</script>

<template>
  <v-card class="card" rounded="xl" title="Put on shelf">
    <form @submit.prevent="put">
      <v-text-field
        v-model="name"
        label="Name"
        autofocus
        maxlength="120"
        :error-messages="fault"
        @focus="($event.target as HTMLInputElement).select()"
        @update:model-value="fault = ''"
      />
      <v-select v-model="section" label="Section" :items="shelf.sections" item-value="id" />
      <div class="row">
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn color="primary" variant="flat" type="submit">Put on shelf</v-btn>
      </div>
    </form>
  </v-card>
</template>

<style scoped>
.card {
  width: 380px;
}
form {
  display: grid;
  gap: 14px;
  padding: 4px 20px 18px;
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
