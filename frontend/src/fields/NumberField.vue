<script setup lang="ts">
import { computed, inject, nextTick, ref, useId, watch } from 'vue';

import { changed, CHANGES, defined, evaluated, namesIn } from '@/marks/arithmetic';
import { FOLLOWED } from '@/fields/followed';
import { shortNumber } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { useMeasures } from '@/stores/measures';

/**
 * A number that is typed, stepped by the arrow keys, or scrubbed by dragging its label; what
 * makes no sense is said and not taken. ``value`` is undefined where several differ.
 *
 * Names of measures may be typed: what has a ``path`` follows them, and shows the expression;
 * ``gap = 3`` makes a measure of it on the way.
 */
interface Rule {
  min?: number;
  max?: number;
  above?: boolean;
  whole?: boolean;
}
const props = defineProps<{
  label: string;
  value: number | undefined;
  rule?: Rule;
  unit?: string;
  /** What the label stands for, where it is short. */
  says?: string;
  disabled?: boolean;
  /** The fields that it stands for, in what it is about; they are ``times`` what is shown. */
  path?: string | readonly string[];
  times?: number;
}>();
const emit = defineEmits<{
  change: [value: number];
  /** While its label is dragged, and null where that leads nowhere. */
  look: [value: number | null];
  enter: [];
  label: [];
}>();

const SCRUB_PIXELS = 4;

const drawing = useDrawing();
const measures = useMeasures();
const find = inject(FOLLOWED, null);
const followed = computed(() =>
  find && props.path?.length ? find([props.path].flat(), props.times ?? 1) : null,
);
const expression = computed(() => followed.value?.text() ?? null);
const id = useId();
const input = ref<HTMLInputElement>();
const text = ref('');
const fault = ref('');
let touched = false;
/** Where steps have led that are still on their way to be done. */
let stepped: number | null = null;
let scrub: { x: number; value: number } | null = null;
let scrubbed = false;

const shown = computed(() =>
  props.value === undefined ? 'mixed' : shortNumber(props.value) + (props.unit ?? ''),
);
watch(
  // What was refused gives way to what is true.
  [() => props.value, () => expression.value, () => drawing.refusals],
  () => reset(),
  { immediate: true },
);

function reset(): void {
  const editing = input.value && document.activeElement === input.value;
  text.value = (editing && expression.value) || shown.value;
  fault.value = '';
  touched = false;
  stepped = null;
  void marked();
}

/** Marks what is in the field while it has the focus: what is typed next takes its place. */
async function marked(): Promise<void> {
  await nextTick();
  if (!touched && document.activeElement === input.value) input.value?.select();
}

const wanted = computed(() => {
  const { min, max, above, whole } = props.rule ?? {};
  const what = whole ? 'A whole number' : 'A number';
  if (min === undefined || max === undefined) return `${what}, up to a million`;
  return above ? `${what} above ${min}, up to ${max}` : `${what} from ${min} to ${max}`;
});

function fits(value: number): boolean {
  const { min = -1e6, max = 1e6, above = false, whole = false } = props.rule ?? {};
  if (!Number.isFinite(value) || value < min || value > max) return false;
  return !((above && value === min) || (whole && !Number.isInteger(value)));
}

/** Follows an expression, or the measure that is named on the way. */
async function follow(typed: string): Promise<void> {
  const makes = defined(typed);
  if (makes && !makes.text && props.value === undefined) {
    fault.value = wanted.value;
    touched = true;
    return;
  }
  if (makes) makes.text ||= String(props.value);
  const refused = followed.value
    ? await followed.value.take(makes?.name ?? typed, makes ?? undefined)
    : await measures.set(makes!.name, makes!.text);
  // What is typed by now is another matter.
  if (touched) return;
  if (!refused) return reset();
  // It stands there to be mended, or given up.
  fault.value = refused;
  touched = true;
}

/** Takes what is typed; answers whether it made sense. */
function commit(): boolean {
  if (!touched) return true;
  const names = namesIn(text.value);
  const changes = /^[+*/]/.test(text.value.trim());
  if (defined(text.value) || (names.length && followed.value && !changes)) {
    touched = false;
    void follow(text.value);
    return true;
  }
  const value = changed(text.value, props.value, measures.values);
  if (value === null || !fits(value)) {
    const unknown = names.find((name) => !(name in measures.values));
    fault.value = unknown ? `There is no measure called ${unknown}.` : wanted.value;
    return false;
  }
  fault.value = '';
  touched = false;
  if (props.value !== undefined && value === Number(shortNumber(props.value))) reset();
  else emit('change', value);
  return true;
}

function onInput(): void {
  touched = true;
  fault.value = '';
}

function onEnter(): void {
  if (!commit()) return;
  void marked();
  emit('enter');
}

/** The nearest value that is allowed, with no more decimals than the step has. */
function allowed(value: number): number | null {
  const { min = -1e6, max = 1e6 } = props.rule ?? {};
  const clamped = Number(Math.min(max, Math.max(min, value)).toFixed(4));
  return fits(clamped) ? clamped : null;
}

function stepOf(event: { shiftKey: boolean; altKey: boolean }): number {
  if (props.rule?.whole) return event.shiftKey ? 10 : 1;
  const fine = (props.rule?.max ?? 1e6) <= 1;
  return (event.shiftKey ? 10 : event.altKey ? 0.1 : 1) * (fine ? 0.01 : 1);
}

function onStep(event: KeyboardEvent, way: number): void {
  const from = touched ? changed(text.value, props.value) : (stepped ?? props.value);
  if (from === null || from === undefined) return;
  const next = allowed(from + way * stepOf(event));
  touched = false;
  if (next === null || next === from) return;
  stepped = next;
  text.value = shortNumber(next) + (props.unit ?? '');
  emit('change', next);
}

function onLabelDown(event: PointerEvent): void {
  if (props.value === undefined || props.disabled || event.button !== 0) return;
  (event.target as Element).setPointerCapture(event.pointerId);
  scrub = { x: event.clientX, value: props.value };
  scrubbed = false;
}

function onLabelMove(event: PointerEvent): void {
  if (!scrub) return;
  const steps = Math.trunc((event.clientX - scrub.x) / SCRUB_PIXELS);
  if (steps) scrubbed = true;
  if (!scrubbed) return;
  const next = allowed(scrub.value + steps * stepOf(event));
  if (next === null) return;
  text.value = shortNumber(next) + (props.unit ?? '');
  emit('look', next);
}

function onLabelUp(): void {
  const was = scrub;
  scrub = null;
  if (!was) return;
  if (!scrubbed) return emit('label');
  const value = evaluated(text.value);
  if (value !== null && value !== props.value && fits(value)) emit('change', value);
  else {
    emit('look', null);
    reset();
  }
}

/** What is edited is the expression, where there is one. */
function onFocus(): void {
  if (!touched && expression.value) text.value = expression.value;
  void marked();
}

function onBlur(): void {
  const typed = touched;
  if (commit() && !typed) text.value = shown.value;
}

defineExpose({ commit });
</script>

<template>
  <div class="field" :class="{ faulty: fault }">
    <label
      :for="id"
      :title="`${says ?? label}: drag to change`"
      @pointerdown="onLabelDown"
      @pointermove="onLabelMove"
      @pointerup="onLabelUp"
      @click="scrubbed && $event.preventDefault()"
      >{{ label }}</label
    >
    <slot />
    <input
      :id="id"
      ref="input"
      v-model="text"
      :title="value === undefined ? undefined : CHANGES"
      class="mono"
      autocomplete="off"
      spellcheck="false"
      :disabled="disabled"
      :aria-label="label"
      :aria-invalid="fault ? 'true' : undefined"
      :aria-describedby="fault ? `${id}-fault` : undefined"
      @input="onInput"
      @blur="onBlur"
      @focus="onFocus"
      @keydown.enter.prevent="onEnter()"
      @keydown.up.prevent="onStep($event, 1)"
      @keydown.down.prevent="onStep($event, -1)"
      @keydown.esc="touched && ($event.stopPropagation(), reset())"
    />
    <span v-if="expression && !fault" class="expression mono" :title="`follows ${expression}`"
      >= {{ expression }}</span
    >
    <span v-if="fault" :id="`${id}-fault`" role="alert" class="fault">{{ fault }}</span>
  </div>
</template>

<style scoped src="./field.css"></style>
<style scoped>
label {
  cursor: ew-resize;
  touch-action: none;
}
</style>
