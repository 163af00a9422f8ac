<script setup lang="ts">
import type { Format, Options } from '@/export/formats';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';

/** What can be chosen for a format. */
defineProps<{ format: Format }>();
const options = defineModel<Options>('options', { required: true });

const LAYOUTS = [
  { value: 'readable' as const, word: 'readable', title: 'in lines, with groups' },
  { value: 'minimal' as const, word: 'minimal', title: 'as short as can be' },
];
const has = (format: Format, ...formats: Format[]) => formats.includes(format);
</script>

<template>
  <div class="options">
    <template v-if="format === 'svg'">
      <ChoicePill v-model="options.layout" :options="LAYOUTS" label="Layout" />
      <label><input v-model="options.ids" type="checkbox" /> names of shapes as ids</label>
      <label>
        <input v-model="options.words" type="checkbox" /> title and description for screen readers
      </label>
      <label v-if="options.words" class="typed">
        description
        <input v-model="options.description" maxlength="2000" placeholder="what it shows" />
      </label>
      <label title="Smaller, where copies are many; not every reader takes it">
        <input v-model="options.once" type="checkbox" /> equal paths once, and used again
      </label>
    </template>
    <NumberField
      v-if="has(format, 'svg', 'sprite')"
      class="decimals"
      label="decimals"
      :value="options.precision"
      :rule="{ min: 0, max: 9, whole: true }"
      @change="options.precision = $event"
    />
    <label v-if="has(format, 'svg', 'sprite')">
      <input v-model="options.oneColour" type="checkbox" /> one colour, that of the text around
    </label>
    <label v-if="format === 'png'" class="typed">
      sizes in pixels, of the longer side
      <input v-model="options.sizes" maxlength="120" />
    </label>
    <label v-if="format === 'ico'" class="typed">
      sizes in pixels
      <input v-model="options.iconSizes" maxlength="120" />
    </label>
    <label v-if="format === 'dxf'" class="typed">
      width in millimetres; empty for its own
      <input
        :value="options.width ?? ''"
        type="number"
        min="0.001"
        max="1000000"
        step="any"
        @change="options.width = Number(($event.target as HTMLInputElement).value) || null"
      />
    </label>
    <label v-if="format === 'dxf'">
      <input v-model="options.outlined" type="checkbox" /> lines as outlines, of the width they have
    </label>
    <p v-if="format === 'dxf'" class="soft">
      Lines and circles stay exact; other curves become arcs within 0.005 mm.
    </p>
    <label v-if="format === 'font'" class="typed">
      name of the font
      <input v-model="options.family" maxlength="60" />
    </label>
    <label v-if="has(format, 'svg', 'png', 'ico', 'site', 'pdf')">
      <input v-model="options.ground" type="checkbox" /> with the plate's background
    </label>
  </div>
</template>

<style scoped>
.options {
  display: grid;
  gap: 10px;
  justify-items: start;
}
.typed {
  display: grid;
  gap: 3px;
  width: 100%;
  font-size: 12px;
  color: var(--soft);
}
.typed input {
  padding: 5px 10px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
  color: var(--ink);
  font-size: 13px;
}
.decimals {
  width: 120px;
}
p {
  margin: 0;
}
</style>
