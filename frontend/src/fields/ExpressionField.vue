<script setup lang="ts">
import { ref, useId, watch } from 'vue';

/** An expression that stays one; what it cannot be is said and not taken. */
const props = defineProps<{
  label: string;
  text: string | null | undefined;
  /** What one may look like. */
  example: string;
  says: string;
  /** Takes what was typed; answers why not, if it is refused. */
  take: (text: string) => Promise<string | null>;
}>();

const id = useId();
const typed = ref('');
const fault = ref('');
/** What was asked for last, and stands there since. */
let asked: string | null = null;

function reset(): void {
  typed.value = props.text ?? '';
  fault.value = '';
  asked = null;
}
watch(() => props.text, reset, { immediate: true });

/** Takes what is typed, once: leaving the field asks no second time for what was just asked. */
async function commit(): Promise<void> {
  const text = typed.value.trim();
  if (text === (props.text ?? '')) return reset();
  if (text === asked) return;
  asked = text;
  fault.value = (await props.take(text)) ?? '';
}
</script>

<template>
  <div class="field" :class="{ faulty: fault }">
    <label :for="id" :title="says">{{ label }}</label>
    <input
      :id="id"
      v-model="typed"
      class="mono"
      maxlength="200"
      autocomplete="off"
      spellcheck="false"
      :placeholder="example"
      :aria-invalid="fault ? 'true' : undefined"
      :aria-describedby="fault ? `${id}-fault` : undefined"
      @input="fault = ''"
      @blur="commit"
      @keydown.enter.prevent="commit"
      @keydown.esc="typed !== (text ?? '') && ($event.stopPropagation(), reset())"
    />
    <span v-if="fault" :id="`${id}-fault`" role="alert" class="fault">{{ fault }}</span>
  </div>
</template>

<style scoped src="./field.css"></style>
