<script setup lang="ts">
import { onMounted, ref } from 'vue';

import NumberField from '@/fields/NumberField.vue';
import type { Point } from '@/marks/numbers';
import type { Parameter } from '@/marks/parameters';
import { parameterFields } from '@/marks/parameters';
import type { ShapeWord } from '@/marks/shapes';
import { offered } from '@/marks/shapes';

/** Exact sizes and the place, typed where the desk was clicked. */
const props = defineProps<{
  shape: ShapeWord;
  at: Point;
  /** The selected shape, and its middle. */
  beside: { name: string; middle: Point } | null;
  plate: { width: number; height: number };
}>();
const emit = defineEmits<{
  draw: [at: Point, values: Record<string, number>];
  cancel: [];
}>();

const place = ref({ ...props.at });
const values = ref<Record<string, number>>({ ...offered(props.shape, props.plate) });
const fields = ref<InstanceType<typeof NumberField>[]>([]);
const form = ref<HTMLFormElement>();

function draw(): void {
  if (fields.value.map((field) => field.commit()).every(Boolean))
    emit('draw', place.value, values.value);
}

function set(parameter: Parameter, typed: number): void {
  const made = parameterFields(parameter, typed, values.value);
  for (const key of Object.keys(values.value)) if (key in made) values.value[key] = made[key]!;
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
      :value="parameter.of ? parameter.of.shown(values) : values[parameter.key]"
      :unit="parameter.unit"
      :rule="parameter"
      @change="set(parameter, $event)"
      @enter="draw"
    />
    <div class="place">
      <NumberField
        v-for="axis in ['x', 'y'] as const"
        ref="fields"
        :key="axis"
        :label="axis"
        :says="`${axis} of its middle`"
        :value="place[axis]"
        @change="place[axis] = $event"
        @enter="draw"
      />
    </div>
    <button v-if="beside" type="button" class="centred" @click="place = { ...beside.middle }">
      centred in {{ beside.name }}
    </button>
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
.place {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.centred {
  max-width: 100%;
  margin-top: 6px;
  padding: 2px 9px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  font-size: 12px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.centred:hover {
  border-color: var(--clay);
}
.row {
  display: flex;
  justify-content: flex-end;
  gap: 4px;
  margin-top: 10px;
}
</style>
