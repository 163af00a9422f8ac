<script setup lang="ts">
import { computed, provide } from 'vue';

import type { PlateHead } from '@/api/types';
import MeasureFacts from '@/facts/MeasureFacts.vue';
import ColourField from '@/fields/ColourField.vue';
import NumberField from '@/fields/NumberField.vue';
import { FOLLOWED, ofPlate } from '@/fields/followed';
import { isActive } from '@/marks/kinds';
import { boxRound } from '@/marks/matrix';
import { shortNumber } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** Where nothing is selected: the plate, and the measures of the mark on it. */
const SIDE = { min: 0, max: 1e6, above: true };

const drawing = useDrawing();
const selection = useSelection();
const plate = computed(() => drawing.heads[selection.plate]!);

provide(
  FOLLOWED,
  ofPlate(() => selection.plate),
);

function set(fields: Partial<PlateHead>): void {
  void drawing.do('set-plate', { plate: selection.plate, ...fields });
}

function rename(event: Event): void {
  const field = event.target as HTMLInputElement;
  const name = field.value.trim();
  if (!name) field.value = plate.value.name;
  else if (name !== plate.value.name) set({ name });
}

/** The shapes that make the mark, as they stand. */
const figures = computed(() =>
  selection.rows
    .filter((row) => row.depth === 0 && isActive(row.node))
    .flatMap((row) => selection.figureById.get(row.node.id) ?? []),
);
const measures = computed<[string, string][]>(() => {
  if (!figures.value.length) return [];
  const { x0, y0, x1, y1 } = boxRound(figures.value.map((figure) => figure.bounds));
  const { width, height } = plate.value;
  const nodes = figures.value.reduce((sum, figure) => sum + figure.node_count, 0);
  return [
    ['size', `${shortNumber(x1 - x0)} × ${shortNumber(y1 - y0)}`],
    ['left, right', `${shortNumber(x0)}, ${shortNumber(width - x1)}`],
    ['above, below', `${shortNumber(y0)}, ${shortNumber(height - y1)}`],
    ['shapes, nodes', `${figures.value.length}, ${nodes}`],
  ];
});
</script>

<template>
  <section>
    <h3>Plate</h3>
    <div class="fields">
      <label class="named">
        <span class="soft">name</span>
        <input
          :value="plate.name"
          maxlength="120"
          aria-label="Name of the plate"
          @change="rename"
        />
      </label>
      <NumberField
        label="width"
        path="width"
        :value="plate.width"
        :rule="SIDE"
        @change="set({ width: $event })"
      />
      <NumberField
        label="height"
        path="height"
        :value="plate.height"
        :rule="SIDE"
        @change="set({ height: $event })"
      />
    </div>
  </section>
  <section>
    <h3>Ground</h3>
    <ColourField
      :fill="plate.background ?? null"
      label="Ground"
      none
      @choose="set({ background: $event })"
    />
  </section>
  <section v-if="measures.length">
    <h3>The mark</h3>
    <p v-for="[word, value] in measures" :key="word" class="measure">
      <span class="soft">{{ word }}</span> <span class="mono">{{ value }}</span>
    </p>
  </section>
  <MeasureFacts />
  <section>
    <p class="soft note">Select a shape to see its exact numbers, and to type them.</p>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 8px;
  margin-top: 6px;
}
.named {
  grid-column: 1 / -1;
  display: flex;
  gap: 8px;
  padding: 4px 2px;
  border-bottom: 1px solid var(--rule);
}
.named input {
  flex: 1;
  min-width: 0;
  text-align: right;
  background: none;
  border: 0;
  outline: none;
}
.named:focus-within {
  border-color: var(--tide);
}
.measure {
  display: flex;
  justify-content: space-between;
  margin: 6px 2px 0;
}
</style>
