<script setup lang="ts">
import { computed, ref, watch } from 'vue';

import type { ColourAnswer } from '@/api/types';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import { useColours } from '@/stores/colours';

/** A colour by three numbers: as the eye parts colours, as a screen makes them, or by its hue. */
const props = defineProps<{ colour: string; label: string }>();
const emit = defineEmits<{ choose: [colour: string] }>();

interface System {
  words: readonly string[];
  most: readonly number[];
  step: number;
  of(told: ColourAnswer): number[];
  css(values: readonly number[]): string;
}

const SYSTEMS = {
  eye: {
    words: ['light', 'strong', 'hue'],
    most: [100, 37, 360],
    step: 0.1,
    of: ({ oklch: [light, chroma, hue] }) => [100 * light, 100 * chroma, hue],
    css: ([light, strong, hue]) => `oklch(${light}% ${strong! / 100} ${hue})`,
  },
  rgb: {
    words: ['red', 'green', 'blue'],
    most: [255, 255, 255],
    step: 1,
    of: ({ rgb }) => [...rgb],
    css: (values) => `rgb(${values.join(' ')})`,
  },
  hsl: {
    words: ['hue', 'saturation', 'lightness'],
    most: [360, 100, 100],
    step: 0.1,
    of: ({ hsl: [hue, saturation, lightness] }) => [hue, 100 * saturation, 100 * lightness],
    css: ([hue, saturation, lightness]) => `hsl(${hue} ${saturation}% ${lightness}%)`,
  },
} satisfies Record<string, System>;

const CHOICES = [
  { value: 'eye', word: 'by eye', title: 'how light, how strong, of which hue: OKLCH' },
  { value: 'rgb', word: 'RGB', title: 'red, green and blue, each to 255' },
  { value: 'hsl', word: 'HSL', title: 'hue, saturation and lightness' },
] as const;

const colours = useColours();
const name = ref<keyof typeof SYSTEMS>('eye');
const system = computed<System>(() => SYSTEMS[name.value]);
const told = ref<ColourAnswer | null>(null);
const values = ref([0, 0, 0]);
/** What was chosen here last, until it comes back; what was chosen before it comes back too. */
let asked = '';

const tenth = (value: number) => Math.round(10 * value) / 10;

watch(
  () => props.colour,
  async (colour) => {
    // What was chosen here keeps its numbers: a grey has no hue of its own.
    if (asked) {
      if (colour === asked) asked = '';
      return;
    }
    told.value = await colours.tell(colour);
    if (told.value) values.value = system.value.of(told.value).map(tenth);
  },
  { immediate: true },
);
watch(name, () => {
  if (told.value) values.value = system.value.of(told.value).map(tenth);
});

const cssAt = (which: number, value: number) =>
  system.value.css(values.value.map((each, i) => (i === which ? value : each)));
const chosen = computed(() => system.value.css(values.value));
const grounds = computed(() =>
  system.value.most.map((most, which) => {
    const steps = Array.from({ length: 13 }, (_, i) => cssAt(which, (most * i) / 12));
    return `linear-gradient(90deg, ${steps.join()})`;
  }),
);

async function take(which: number, value: number): Promise<void> {
  values.value[which] = value;
  const css = chosen.value;
  const found = await colours.tell(css);
  // What is asked next may be answered first.
  if (!found || css !== chosen.value) return;
  told.value = found;
  asked = found.colour === props.colour ? '' : found.colour;
  emit('choose', found.colour);
}
</script>

<template>
  <div class="sliders">
    <span class="look" :style="{ background: chosen }" />
    <ChoicePill v-model="name" :options="CHOICES" label="Told by" />
    <div v-for="(word, i) in system.words" :key="word">
      <NumberField
        :label="word"
        :value="values[i]"
        :rule="{ min: 0, max: system.most[i]! }"
        @change="take(i, $event)"
      />
      <input
        v-model.number="values[i]"
        type="range"
        min="0"
        :max="system.most[i]"
        :step="system.step"
        :aria-label="`${label}: ${word}`"
        :style="{ background: grounds[i] }"
        @change="take(i, values[i]!)"
      />
    </div>
  </div>
</template>

<style scoped>
.sliders {
  display: grid;
  gap: 8px;
  width: 258px;
  padding: 14px 16px;
}
.look {
  height: 34px;
  border: 1px solid var(--rule);
  border-radius: 12px;
}
.pill {
  justify-self: start;
}
input {
  margin: 0;
  width: 100%;
  height: 14px;
  border: 1px solid var(--rule);
  border-radius: 8px;
  appearance: none;
}
input::-webkit-slider-thumb {
  width: 14px;
  height: 20px;
  border: 2px solid var(--ink);
  border-radius: 8px;
  background: #fff;
  appearance: none;
}
</style>
