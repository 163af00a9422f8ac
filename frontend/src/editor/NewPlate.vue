<script setup lang="ts">
import { ref } from 'vue';

import NumberField from '@/facts/NumberField.vue';
import { newId, useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** Asks for a new plate's name and size. */
const SIDES = [24, 64, 256, 512];
const RULE = { min: 0, max: 1e6, above: true };

const props = defineProps<{ number: number }>();
const emit = defineEmits<{ close: [] }>();

const drawing = useDrawing();
const selection = useSelection();
const name = ref(`Plate ${props.number}`);
const width = ref(256);
const height = ref(256);
const fault = ref('');
const fields = ref<InstanceType<typeof NumberField>[]>([]);

function field(each: unknown): void {
  if (each) fields.value.push(each as InstanceType<typeof NumberField>);
}

async function add(): Promise<void> {
  fault.value = name.value.trim() ? '' : 'A name is wanted.';
  if (!fields.value.every((each) => each.commit()) || fault.value) return;
  const id = newId();
  const plate = { id, name: name.value.trim(), width: width.value, height: height.value };
  if (await drawing.run({ kind: 'add-plate', ...plate })) selection.plate = id;
  emit('close');
}
</script>

<template>
  <v-card class="card" rounded="xl" title="New plate">
    <form @submit.prevent="add">
      <v-text-field
        v-model="name"
        label="Name"
        autofocus
        maxlength="120"
        :error-messages="fault"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <div class="sizes">
        <v-btn
          v-for="side in SIDES"
          :key="side"
          size="small"
          :variant="width === side && height === side ? 'flat' : 'outlined'"
          :color="width === side && height === side ? 'ink' : undefined"
          @click="width = height = side"
        >
          {{ side }} × {{ side }}
        </v-btn>
      </div>
      <div class="exact">
        <NumberField
          :ref="field"
          label="width"
          :value="width"
          :rule="RULE"
          @change="width = $event"
          @enter="add"
        />
        <NumberField
          :ref="field"
          label="height"
          :value="height"
          :rule="RULE"
          @change="height = $event"
          @enter="add"
        />
      </div>
      <div class="row">
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn color="primary" variant="flat" type="submit">Add plate</v-btn>
      </div>
    </form>
  </v-card>
</template>

<style scoped>
.card {
  width: 420px;
}
form {
  display: grid;
  gap: 14px;
  padding: 4px 20px 18px;
}
.sizes,
.exact {
  display: flex;
  gap: 8px;
}
.exact > * {
  flex: 1;
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
