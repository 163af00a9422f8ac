<script setup lang="ts">
import { computed, ref, useId, watch } from 'vue';

import { shortNumber } from '@/desk/gestures';

/** A number that is typed; what makes no sense is said and not taken. */
interface Rule {
  min?: number;
  max?: number;
  above?: boolean;
  whole?: boolean;
}
const props = defineProps<{
  label: string;
  value: number;
  rule?: Rule;
  unit?: string;
  /** What the label stands for, where it is short. */
  says?: string;
}>();
const emit = defineEmits<{ change: [value: number]; enter: [] }>();

const id = useId();
const text = ref('');
const fault = ref('');
let touched = false;

const shown = computed(() => shortNumber(props.value) + (props.unit ?? ''));
watch(
  () => props.value,
  () => reset(),
  { immediate: true },
);

function reset(): void {
  text.value = shown.value;
  fault.value = '';
  touched = false;
}

const wanted = computed(() => {
  const { min, max, above, whole } = props.rule ?? {};
  const what = whole ? 'A whole number' : 'A number';
  if (min === undefined || max === undefined) return `${what}, up to a million`;
  return above ? `${what} above ${min}, up to ${max}` : `${what} from ${min} to ${max}`;
});

function read(): number | null {
  const typed = text.value.trim().replace(/°$/, '').replace(',', '.');
  if (!/^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(typed)) return null;
  const value = Number(typed);
  const { min = -1e6, max = 1e6, above = false, whole = false } = props.rule ?? {};
  if (!Number.isFinite(value) || value < min || value > max) return null;
  if ((above && value === min) || (whole && !Number.isInteger(value))) return null;
  return value;
}

/** Takes what is typed; answers whether it made sense. */
function commit(): boolean {
  if (!touched) return true;
  const value = read();
  if (value === null) {
    fault.value = wanted.value;
    return false;
  }
  fault.value = '';
  touched = false;
  if (value === Number(shortNumber(props.value))) text.value = shown.value;
  else emit('change', value);
  return true;
}

function onInput(): void {
  touched = true;
  fault.value = '';
}

function onEnter(event: Event): void {
  if (!commit()) return;
  (event.target as HTMLInputElement).select();
  emit('enter');
}

defineExpose({ commit });
</script>

<template>
  <div class="field" :class="{ faulty: fault }">
    <label :for="id" :title="says">{{ label }}</label>
    <input
      :id="id"
      v-model="text"
      class="mono"
      autocomplete="off"
      spellcheck="false"
      :aria-invalid="fault ? 'true' : undefined"
      :aria-describedby="fault ? `${id}-fault` : undefined"
      @input="onInput"
      @blur="commit"
      @focus="($event.target as HTMLInputElement).select()"
      @keydown.enter.prevent="onEnter"
      @keydown.esc="touched && ($event.stopPropagation(), reset())"
    />
    <span v-if="fault" :id="`${id}-fault`" role="alert" class="fault">{{ fault }}</span>
  </div>
</template>

<style scoped>
.field {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 0 8px;
  border-bottom: 1px solid var(--rule);
  padding: 4px 2px;
  min-width: 0;
}
.field:focus-within {
  border-color: var(--tide);
}
.faulty {
  border-color: #9e331f;
}
label {
  color: var(--soft);
  white-space: nowrap;
}
input {
  flex: 1;
  min-width: 0;
  width: 40px;
  text-align: right;
  background: none;
  border: 0;
  outline: none;
}
.fault {
  flex-basis: 100%;
  color: #9e331f;
  font-size: 11.5px;
  line-height: 1.25;
}
</style>
