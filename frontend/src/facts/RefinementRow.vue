<script setup lang="ts">
import { computed } from 'vue';

import type { Figure, Refinement } from '@/api/types';
import FactCard from '@/facts/FactCard.vue';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import { shortNumber } from '@/marks/numbers';
import {
  CORNER_SHAPES,
  EVERY_WORDS,
  JOINS,
  refinementWord,
  WHERE_WORDS,
} from '@/marks/refinements';

/** One refinement: its word, its values, whether it is on, and what is to be told of it. */
const props = defineProps<{
  refinement: Refinement;
  /** Where it stands in its shape. */
  path: string;
  note: Figure['notes'][number] | undefined;
  first: boolean;
}>();
const emit = defineEmits<{
  change: [fields: Partial<Refinement>];
  remove: [];
  sooner: [];
  pick: [];
}>();

const LENGTH = { min: 0, max: 1e6 };
const ABOVE = { min: 0, max: 1e6, above: true };
const RINGS = { min: 1, max: 50, whole: true };
const LIMIT = { min: 1, max: 100 };

const word = computed(() => refinementWord(props.refinement));

/** What of the corners does not come out as it was asked for. */
const said = computed(() => {
  const { lost = [], fits = {}, empty = false } = props.note ?? {};
  const found: string[] = [];
  const sizes = Object.values(fits);
  if (sizes.length) {
    const most = shortNumber(Number(Math.min(...sizes).toFixed(3)));
    found.push(`Drawn with ${most}, the most that fits; it comes back when there is room.`);
  }
  if (lost.length)
    found.push(
      lost.length === 1
        ? 'One picked corner is not there any more; it is kept, in case it comes back.'
        : `${lost.length} picked corners are not there any more; they are kept, in case they come back.`,
    );
  if (empty) found.push('Nothing is left of the outline.');
  return found;
});

function choose(name: string, event: Event): void {
  emit('change', { [name]: (event.target as HTMLSelectElement).value });
}
</script>

<template>
  <FactCard
    :word="word"
    :on="refinement.on"
    @toggle="emit('change', { on: !refinement.on })"
    @remove="emit('remove')"
  >
    <template v-if="!first" #acts>
      <button
        type="button"
        :aria-label="`${word} sooner`"
        title="before the one above it"
        @click="emit('sooner')"
      >
        ↑
      </button>
    </template>
    <template v-if="refinement.kind === 'corners'">
      <label class="choice">
        which
        <select
          :value="refinement.every"
          aria-label="Which corners"
          @change="choose('every', $event)"
        >
          <option v-for="(says, value) in EVERY_WORDS" :key="value" :value="value">
            {{ says }}
          </option>
        </select>
      </label>
      <template v-if="refinement.every !== 'none'">
        <NumberField
          label="size"
          :value="refinement.size"
          :path="`${path}.size`"
          :rule="LENGTH"
          @change="emit('change', { size: $event })"
        />
        <ChoicePill
          class="pill"
          :model-value="refinement.shape"
          :options="CORNER_SHAPES"
          label="Shape of corners"
          @update:model-value="emit('change', { shape: $event })"
        />
      </template>
      <p class="soft picked">
        {{ refinement.picked.length }} picked by hand
        <button title="Pick corners on the desk (E)" @click="emit('pick')">pick…</button>
      </p>
    </template>
    <template v-else-if="refinement.kind === 'offset'">
      <NumberField
        label="by"
        says="distance, below 0 to shrink"
        :value="refinement.distance"
        :path="`${path}.distance`"
        @change="emit('change', { distance: $event })"
      />
    </template>
    <template v-else-if="refinement.kind === 'line-area'">
      <NumberField
        label="width"
        :value="refinement.width"
        :path="`${path}.width`"
        :rule="ABOVE"
        @change="emit('change', { width: $event })"
      />
      <label class="keeps">
        <input
          type="checkbox"
          :checked="refinement.filled"
          @change="emit('change', { filled: !refinement.filled })"
        />
        what it goes round belongs to it
      </label>
    </template>
    <template v-else>
      <div class="two">
        <NumberField
          label="width"
          :value="refinement.width"
          :path="`${path}.width`"
          :rule="ABOVE"
          @change="emit('change', { width: $event })"
        />
        <label class="choice">
          <select
            :value="refinement.where"
            aria-label="Where the band lies"
            @change="choose('where', $event)"
          >
            <option v-for="(says, value) in WHERE_WORDS" :key="value" :value="value">
              {{ says }}
            </option>
          </select>
        </label>
        <NumberField
          label="rings"
          :value="refinement.count"
          :path="`${path}.count`"
          :rule="RINGS"
          @change="emit('change', { count: $event })"
        />
        <NumberField
          label="gap"
          :value="refinement.gap"
          :path="`${path}.gap`"
          :rule="LENGTH"
          @change="emit('change', { gap: $event })"
        />
      </div>
      <label class="keeps">
        <input
          type="checkbox"
          :checked="refinement.kept"
          @change="emit('change', { kept: !refinement.kept })"
        />
        the shape itself stays, beyond a gap
      </label>
    </template>
    <template v-if="refinement.kind !== 'corners'">
      <ChoicePill
        class="pill"
        :model-value="refinement.join"
        :options="JOINS"
        label="Joins"
        @update:model-value="emit('change', { join: $event })"
      />
      <NumberField
        v-if="refinement.join === 'sharp'"
        label="limit"
        says="of a sharp join: how many distances its point may lie away"
        :value="refinement.limit"
        :path="`${path}.limit`"
        :rule="LIMIT"
        @change="emit('change', { limit: $event })"
      />
    </template>
    <p v-for="each in said" :key="each" class="note told">{{ each }}</p>
  </FactCard>
</template>

<style scoped>
.choice {
  display: flex;
  align-items: center;
  justify-content: space-between;
  color: var(--soft);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 10px;
}
select {
  min-width: 0;
  padding: 2px 4px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
  color: var(--ink);
}
.pill {
  justify-self: start;
  margin-top: 3px;
  font-size: 12px;
}
.picked {
  margin: 2px 0 0;
}
.picked button {
  color: var(--tide);
}
.told {
  color: #7d5510;
}
</style>
