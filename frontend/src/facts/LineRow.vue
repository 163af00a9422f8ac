<script lang="ts">
import { ref } from 'vue';

/** Who has unfolded one line wants to see that of all. */
const unfolded = ref(false);
</script>

<script setup lang="ts">
import { computed } from 'vue';

import type { Line } from '@/api/types';
import FactCard from '@/facts/FactCard.vue';
import InkField from '@/fields/InkField.vue';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import ChoiceRow from '@/look/ChoiceRow.vue';
import { CAPS, MARKS, POSITIONS } from '@/marks/lines';
import { JOINS } from '@/marks/refinements';

/** One line along an outline: its paint and width, and all else when it is unfolded. */
const props = defineProps<{ line: Line; path: string; label: string; ends: boolean }>();
const emit = defineEmits<{ change: [fields: Partial<Line>]; remove: [] }>();

const WIDTH = { min: 0, max: 1e6 };
const LIMIT = { min: 1, max: 100 };
const ENDS = { start: 'begins', end: 'ends' } as const;

const pattern = ref('');
const fault = ref('');
const dashed = computed(() => props.line.dashes !== null);
const shown = computed(() => props.line.dashes?.pattern.join(' ') ?? '');

/** Takes the lengths of dashes and gaps as they are typed, parted by spaces. */
function setPattern(text: string): void {
  const numbers = text
    .trim()
    .split(/[\s,]+/u)
    .filter(Boolean)
    .map(Number);
  const sum = numbers.reduce((whole, each) => whole + each, 0);
  fault.value = '';
  if (!numbers.length) emit('change', { dashes: null });
  else if (numbers.some((each) => !(each >= 0)) || !(sum > 0) || numbers.length > 20)
    fault.value = 'Lengths of dash, gap, dash …, like 8 4; some length together.';
  else
    emit('change', { dashes: { start: 0, fitted: true, ...props.line.dashes, pattern: numbers } });
}

/** Dashes, or round dots, as long as suits the width. */
function begin(kind: 'dashes' | 'dots'): void {
  const { width } = props.line;
  const lengths = kind === 'dots' ? [0, 2 * width] : [3 * width, 2 * width];
  const dashes = { start: 0, fitted: true, pattern: lengths };
  emit('change', kind === 'dots' ? { dashes, cap: 'round' } : { dashes });
}
</script>

<template>
  <FactCard :word="label" @remove="emit('remove')">
    <template #acts>
      <button
        type="button"
        :aria-expanded="unfolded"
        :aria-label="`${label}: more`"
        title="ends, joins, dashes, where it lies"
        @click="unfolded = !unfolded"
      >
        {{ unfolded ? '–' : '…' }}
      </button>
    </template>
    <InkField
      :fill="line.paint"
      :label="label"
      none
      @choose="$event ? emit('change', { paint: $event }) : emit('remove')"
    >
      <NumberField
        label="width"
        :value="line.width"
        :path="`${path}.width`"
        :rule="WIDTH"
        @change="$event ? emit('change', { width: $event }) : emit('remove')"
      />
    </InkField>
    <template v-if="unfolded">
      <ChoicePill
        class="pill"
        :model-value="line.position"
        :options="POSITIONS"
        :label="`${label} lies`"
        @update:model-value="emit('change', { position: $event })"
      />
      <NumberField
        label="away"
        says="from the outline, below 0 inside"
        :value="line.away"
        :path="`${path}.away`"
        @change="emit('change', { away: $event })"
      />
      <ChoiceRow
        word="joins"
        :model-value="line.join"
        :options="JOINS"
        :label="`Joins of ${label}`"
        @update:model-value="emit('change', { join: $event })"
      />
      <NumberField
        v-if="line.join === 'sharp'"
        label="limit"
        says="of a sharp join: how many half widths its point may lie away"
        :value="line.limit"
        :path="`${path}.limit`"
        :rule="LIMIT"
        @change="emit('change', { limit: $event })"
      />
      <ChoiceRow
        word="caps"
        :model-value="line.cap"
        :options="CAPS"
        :label="`Caps of ${label}`"
        @update:model-value="emit('change', { cap: $event })"
      />
      <div class="pair">
        <label class="soft" :for="`dashes ${label}`">dashes</label>
        <span>
          <input
            :id="`dashes ${label}`"
            v-model.lazy="pattern"
            class="mono pattern"
            :placeholder="shown || 'none'"
            :aria-label="`Dashes of ${label}`"
            :aria-invalid="fault ? 'true' : undefined"
            autocomplete="off"
            @focus="pattern = shown"
            @keydown.enter.prevent="setPattern(($event.target as HTMLInputElement).value)"
            @blur="setPattern(($event.target as HTMLInputElement).value)"
          />
          <template v-if="!dashed">
            <button type="button" class="soft" @click="begin('dashes')">dashes</button>
            <button type="button" class="soft" @click="begin('dots')">dots</button>
          </template>
        </span>
      </div>
      <span v-if="fault" role="alert" class="fault">{{ fault }}</span>
      <template v-if="line.dashes">
        <NumberField
          label="start"
          says="how far into the pattern it begins"
          :value="line.dashes.start"
          @change="emit('change', { dashes: { ...line.dashes!, start: $event } })"
        />
        <label class="keeps">
          <input
            type="checkbox"
            :checked="line.dashes.fitted"
            @change="emit('change', { dashes: { ...line.dashes!, fitted: !line.dashes!.fitted } })"
          />
          fit a whole number
        </label>
      </template>
      <template v-if="ends">
        <ChoiceRow
          v-for="(word, end) in ENDS"
          :key="end"
          :word="word"
          :model-value="line[end]"
          :options="MARKS"
          :label="`${label} ${word}`"
          @update:model-value="emit('change', { [end]: $event })"
        />
      </template>
    </template>
  </FactCard>
</template>

<style scoped>
.pair {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.pair span {
  display: flex;
  gap: 8px;
}
.pair button:hover {
  color: var(--ink);
}
.pill {
  justify-self: start;
  font-size: 12px;
}
.pattern {
  width: 72px;
  padding: 2px;
  text-align: right;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--rule);
  outline: none;
}
.fault {
  color: #9e331f;
  font-size: 11.5px;
}
</style>
