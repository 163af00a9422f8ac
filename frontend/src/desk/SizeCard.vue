<script setup lang="ts">
import { onMounted, ref } from 'vue';

import type { ShapeWord } from '@/editor/shapes';
import NumberField from '@/facts/NumberField.vue';

/** Exact sizes, typed where the desk was clicked. */
const props = defineProps<{ shape: ShapeWord }>();
const emit = defineEmits<{
  draw: [values: Record<string, number>];
  cancel: [];
}>();

const values = ref<Record<string, number>>(
  Object.fromEntries(props.shape.typed.map((parameter) => [parameter.key, parameter.start])),
);
const fields = ref<InstanceType<typeof NumberField>[]>([]);
const form = ref<HTMLFormElement>();

function draw(): void {
  if (fields.value.map((field) => field.commit()).every(Boolean)) emit('draw', values.value);
}

onMounted(() => form.value?.querySelector('input')?.select());
</script>

<template>
  <form
    ref="form"
    class="card"
    :aria-label="`Exact size of the ${shape.word.toLowerCase()}`"
    @submit.prevent="draw"
    @keydown.esc.stop="emit('cancel')"
    @pointerdown.stop
  >
    <h3>{{ shape.word }} here</h3>
    <NumberField
      v-for="parameter in shape.typed"
      ref="fields"
      :key="parameter.key"
      :label="parameter.word"
      :value="values[parameter.key]"
      :unit="parameter.unit"
      :rule="parameter"
      @change="values[parameter.key] = $event"
      @enter="draw"
    />
    <div class="row">
      <v-btn size="small" @click="emit('cancel')">Cancel</v-btn>
      <v-btn size="small" color="primary" variant="flat" type="submit">Draw</v-btn>
    </div>
  </form>
</template>

<style scoped>
.card {
  position: absolute;
  z-index: 3;
  width: 208px;
  padding: 12px 14px 10px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 16px;
}
h3 {
  font-size: 13px;
  margin-bottom: 4px;
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 4px;
  margin-top: 10px;
}
</style>
