<script setup lang="ts">
import { ref } from 'vue';

import { SWATCHES } from '@/look/swatches';

/** A fill: by swatch, by hex, or none. ``fill`` is undefined where several differ. */
const props = defineProps<{ fill: string | null | undefined }>();
const emit = defineEmits<{ paint: [fill: string | null] }>();

const text = ref(props.fill === undefined ? 'mixed' : (props.fill ?? 'none'));
const fault = ref('');

function commit(): void {
  const typed = text.value.trim();
  if (typed === 'mixed') return;
  const hex = /^#?([0-9a-f]{6})$/i.exec(typed)?.[1];
  if (typed.toLowerCase() === 'none' || hex) {
    fault.value = '';
    const fill = hex ? `#${hex.toUpperCase()}` : null;
    if (fill !== props.fill) emit('paint', fill);
  } else {
    fault.value = 'Six hex digits like #1D6A83, or none';
  }
}

function choose(fill: string | null): void {
  text.value = fill ?? 'none';
  fault.value = '';
  if (fill !== props.fill) emit('paint', fill);
}
</script>

<template>
  <div class="paint">
    <div class="now">
      <span
        class="swatch"
        :class="{ none: fill === null, mixed: fill === undefined }"
        :style="{ background: fill ?? undefined }"
      />
      <input
        v-model="text"
        class="mono"
        aria-label="Fill"
        autocomplete="off"
        :aria-invalid="fault ? 'true' : undefined"
        @keydown.enter="commit"
        @blur="commit"
      />
    </div>
    <span v-if="fault" role="alert" class="fault">{{ fault }}</span>
    <div class="row">
      <button
        v-for="swatch in SWATCHES"
        :key="swatch.fill"
        class="swatch"
        :class="{ on: swatch.fill === fill }"
        :style="{ background: swatch.fill }"
        :aria-label="`Fill with ${swatch.name}`"
        :title="swatch.name"
        @click="choose(swatch.fill)"
      />
      <button class="swatch none" aria-label="No fill" title="none" @click="choose(null)" />
    </div>
  </div>
</template>

<style scoped>
.now {
  display: flex;
  align-items: center;
  gap: 9px;
  margin: 8px 0;
}
input {
  width: 100px;
  padding: 3px 2px;
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  outline: none;
}
input:hover,
input:focus {
  border-color: var(--rule);
}
.row {
  display: flex;
  gap: 7px;
}
.swatch {
  flex: none;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  border: 1px solid var(--ink);
}
button.swatch:hover,
.on {
  box-shadow:
    0 0 0 2px var(--card),
    0 0 0 3.5px var(--clay);
}
.none {
  background: linear-gradient(45deg, #fff 46%, var(--clay) 46%, var(--clay) 54%, #fff 54%);
}
.mixed {
  border-style: dashed;
}
.fault {
  display: block;
  margin-bottom: 6px;
  color: #9e331f;
  font-size: 11.5px;
}
</style>
