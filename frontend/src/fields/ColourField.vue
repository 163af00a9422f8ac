<script setup lang="ts">
import { computed, ref, watch } from 'vue';

import type { Look } from '@/api/types';
import { colourOf, cssOf, gradientOf } from '@/marks/paint';
import { useDrawing } from '@/stores/drawing';

/** A colour: by swatch, by eye, by hex, or none. ``fill`` is undefined where several differ. */
const props = defineProps<{
  fill: Look['fill'] | undefined;
  label: string;
  none?: boolean;
}>();
const emit = defineEmits<{ choose: [colour: string | null] }>();

const drawing = useDrawing();
const text = ref('');
const fault = ref('');

/** The fill as one colour; undefined where several differ. */
const colour = computed(() => (props.fill === undefined ? undefined : colourOf(props.fill)));
const gradient = computed(() => gradientOf(props.fill));
const ground = computed(() => (props.fill && cssOf(props.fill)) ?? undefined);

watch(
  () => [props.fill, drawing.refusals],
  () => {
    text.value = shown();
    fault.value = '';
  },
  { immediate: true },
);

function shown(): string {
  if (gradient.value) return 'gradient';
  return colour.value === undefined ? 'mixed' : (colour.value ?? 'none');
}

function commit(): void {
  const typed = text.value.trim();
  if (typed === 'mixed' || typed === shown()) return;
  const hex = /^#?([0-9a-f]{6})$/i.exec(typed)?.[1];
  const short = /^#?([0-9a-f])([0-9a-f])([0-9a-f])$/i.exec(typed);
  const none = typed.toLowerCase() === 'none';
  if (hex) choose(`#${hex.toUpperCase()}`);
  else if (short)
    choose(
      `#${short
        .slice(1)
        .map((d) => d + d)
        .join('')
        .toUpperCase()}`,
    );
  else if (none && props.none) choose(null);
  else fault.value = `Hex digits like #1D6A83${props.none ? ', or none' : ''}`;
}

function choose(chosen: string | null): void {
  text.value = chosen ?? 'none';
  fault.value = '';
  if (chosen !== props.fill) emit('choose', chosen);
}
</script>

<template>
  <div>
    <div class="now">
      <label
        class="swatch"
        :class="{ nothing: colour === null, mixed: colour === undefined }"
        :style="{ background: ground }"
        :title="`${label}: choose by eye`"
      >
        <input
          type="color"
          :value="colour ?? '#22303C'"
          :aria-label="`${label} by eye`"
          @change="choose(($event.target as HTMLInputElement).value.toUpperCase())"
        />
      </label>
      <input
        v-model="text"
        class="mono hex"
        :aria-label="label"
        autocomplete="off"
        :aria-invalid="fault ? 'true' : undefined"
        @keydown.enter.prevent="(commit(), ($event.target as HTMLInputElement).select())"
        @blur="commit"
      />
      <slot />
    </div>
    <span v-if="fault" role="alert" class="fault">{{ fault }}</span>
    <div class="row">
      <button
        v-for="swatch in drawing.swatches"
        :key="swatch.name"
        type="button"
        class="swatch"
        :class="{ on: swatch.colour === colour && !gradient }"
        :style="{ background: swatch.colour }"
        :aria-label="`${label} ${swatch.name}`"
        :title="swatch.name"
        @click="choose(swatch.colour)"
      />
      <button
        v-if="none"
        type="button"
        class="swatch nothing"
        :aria-label="`No ${label.toLowerCase()}`"
        title="none"
        @click="choose(null)"
      />
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
.hex {
  width: 84px;
  padding: 3px 2px;
  background: none;
  border: 0;
  border-bottom: 1px solid transparent;
  outline: none;
}
.hex:hover,
.hex:focus {
  border-color: var(--rule);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 7px;
}
.swatch {
  position: relative;
  flex: none;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  border: 1px solid var(--ink);
}
.swatch input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  opacity: 0;
  cursor: pointer;
}
button.swatch:hover,
.on {
  box-shadow:
    0 0 0 2px var(--card),
    0 0 0 3.5px var(--clay);
}
.nothing {
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
