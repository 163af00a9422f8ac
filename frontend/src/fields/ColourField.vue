<script setup lang="ts">
import { computed, ref, watch } from 'vue';

import type { Gradient, Look, Swatch } from '@/api/types';
import { cssOf } from '@/marks/paint';
import ColourSliders from '@/fields/ColourSliders.vue';
import { useColours } from '@/stores/colours';
import { useDrawing } from '@/stores/drawing';

/** A colour: by swatch, by eye, by name or hex, from the desk, or none. ``fill`` is undefined where several differ. */
const props = defineProps<{
  fill: string | null | undefined;
  label: string;
  none?: boolean;
  /** Whether kept gradients can be chosen too. */
  gradients?: boolean;
}>();
const emit = defineEmits<{ choose: [colour: string | null]; shade: [gradient: Gradient] }>();

const drawing = useDrawing();
const colours = useColours();
/** On the desk alone there is something to take a colour from. */
const samples = computed(() => drawing.id !== '');
const text = ref('');
const fault = ref('');

const offered = computed(() =>
  drawing.swatches.filter(({ paint }) => props.gradients || typeof paint === 'string'),
);

watch(
  [() => props.fill, () => drawing.refusals],
  () => {
    text.value = shown();
    fault.value = '';
  },
  { immediate: true },
);

function shown(): string {
  return props.fill === undefined ? 'mixed' : (props.fill ?? 'none');
}

async function commit(): Promise<void> {
  const typed = text.value.trim();
  if (typed === 'mixed' || typed === shown()) return;
  if (props.none && typed.toLowerCase() === 'none') {
    choose(null);
    return;
  }
  const told = await colours.tell(typed);
  if (told) choose(told.colour);
  else fault.value = colours.refused;
}

function take(paint: Swatch['paint']): void {
  if (typeof paint === 'string') choose(paint);
  else emit('shade', paint as Gradient);
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
      <v-menu :close-on-content-click="false">
        <template #activator="{ props: activator }">
          <button
            v-bind="activator"
            type="button"
            class="swatch"
            :class="{ nothing: fill === null, mixed: fill === undefined }"
            :style="{ background: fill ?? undefined }"
            :title="`${label}: choose by eye`"
            :aria-label="`${label} by eye`"
          />
        </template>
        <v-card rounded="xl">
          <ColourSliders :colour="fill ?? '#22303C'" :label="label" @choose="choose" />
        </v-card>
      </v-menu>
      <input
        v-model="text"
        class="mono hex"
        :aria-label="label"
        autocomplete="off"
        :aria-invalid="fault ? 'true' : undefined"
        @keydown.enter.prevent="(commit(), ($event.target as HTMLInputElement).select())"
        @blur="commit"
      />
      <button
        v-if="samples"
        type="button"
        class="sample"
        :aria-label="`${label} from the desk`"
        title="take a colour from the desk: click there, with Alt the mean of a small disc"
        @click="colours.takeFrom(choose)"
      >
        <svg viewBox="0 0 16 16" width="15" height="15" aria-hidden="true">
          <circle cx="8" cy="8" r="5.2" />
          <path d="M8 .5v4M8 11.5v4M.5 8h4M11.5 8h4" />
        </svg>
      </button>
      <slot />
    </div>
    <span v-if="fault" role="alert" class="fault">{{ fault }}</span>
    <div class="row">
      <button
        v-for="swatch in offered"
        :key="swatch.name"
        type="button"
        class="swatch"
        :class="{ on: JSON.stringify(swatch.paint) === JSON.stringify(fill) }"
        :style="{ background: cssOf(swatch.paint as Look['fill'])! }"
        :aria-label="`${label} ${swatch.name}`"
        :title="swatch.name"
        @click="take(swatch.paint)"
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
.sample {
  display: flex;
  color: var(--soft);
}
.sample:hover {
  color: var(--ink);
}
.sample svg {
  fill: none;
  stroke: currentColor;
  stroke-width: 1.4;
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
