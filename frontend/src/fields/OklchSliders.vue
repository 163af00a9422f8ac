<script setup lang="ts">
import { computed, ref, watch } from 'vue';

import { shortNumber } from '@/marks/numbers';
import { useColours } from '@/stores/colours';

/** A colour by eye: how light it is, how strong, and of which hue. */
const props = defineProps<{ colour: string; label: string }>();
const emit = defineEmits<{ choose: [colour: string] }>();

const colours = useColours();
/** Lightness and chroma in hundredths, hue in degrees. */
const values = ref([0, 0, 0]);
const MOST = [100, 37, 360] as const;
const WORDS = ['light', 'strong', 'hue'] as const;
let asked = '';

watch(
  () => props.colour,
  async (colour) => {
    if (colour === asked) return;
    const told = await colours.tell(colour);
    if (told) values.value = [100 * told.lightness, 100 * told.chroma, told.hue];
  },
  { immediate: true },
);

const cssAt = (which: number, value: number) => {
  const [l, c, h] = values.value.map((each, i) => (i === which ? value : each));
  return `oklch(${l}% ${c! / 100} ${h})`;
};
const grounds = computed(() =>
  MOST.map((most, which) => {
    const steps = Array.from({ length: 13 }, (_, i) => cssAt(which, (most * i) / 12));
    return `linear-gradient(90deg, ${steps.join()})`;
  }),
);

async function take(): Promise<void> {
  const told = await colours.tell(cssAt(-1, 0));
  if (!told) return;
  asked = told.colour;
  emit('choose', told.colour);
}
</script>

<template>
  <div class="sliders">
    <span class="look" :style="{ background: cssAt(-1, 0) }" />
    <label v-for="(word, i) in WORDS" :key="word">
      <span class="soft">{{ word }}</span>
      <input
        v-model.number="values[i]"
        type="range"
        min="0"
        :max="MOST[i]"
        step="0.1"
        :aria-label="`${label}: ${word}`"
        :style="{ background: grounds[i] }"
        @change="take"
      />
      <span class="mono soft">{{ shortNumber(Math.round(values[i]! * 10) / 10) }}</span>
    </label>
  </div>
</template>

<style scoped>
.sliders {
  display: grid;
  gap: 7px;
  width: 258px;
  padding: 14px 16px;
}
.look {
  height: 34px;
  border: 1px solid var(--rule);
  border-radius: 12px;
}
label {
  display: grid;
  grid-template-columns: 44px 1fr 40px;
  gap: 8px;
  align-items: center;
}
label .mono {
  text-align: right;
}
input {
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
