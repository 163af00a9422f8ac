<script setup lang="ts">
import { computed } from 'vue';

import NumberField from '@/fields/NumberField.vue';
import { shortNumber } from '@/marks/numbers';
import { useSimplifying } from '@/stores/simplifying';
import StripTile from '@/strip/StripTile.vue';

/** How many nodes can go within a bound, before they do. */
const simplifying = useSimplifying();

const BOUND = { min: 0, max: 1e6, above: true };
/** Of more circles only how many they are is told. */
const MOST_TOLD = 3;

const circles = computed(() => {
  const found = simplifying.told?.circles ?? [];
  const radii = found.slice(0, MOST_TOLD).map((r) => `r ${shortNumber(Number(r.toFixed(3)))}`);
  if (!found.length) return '';
  if (found.length === 1) return `One contour is a circle, ${radii[0]}.`;
  const more = found.length > MOST_TOLD ? ' …' : '';
  return `${found.length} contours are circles: ${radii.join(', ')}${more}.`;
});
</script>

<template>
  <div class="bound">
    <NumberField
      label="may stray by"
      says="how far outlines may stray from what they are"
      :value="simplifying.bound"
      :rule="BOUND"
      @change="simplifying.bound = $event"
    />
  </div>
  <p v-if="simplifying.fault" class="soft advice" role="alert">{{ simplifying.fault }}</p>
  <p v-else-if="!simplifying.told" class="soft advice" role="status">Counting…</p>
  <template v-else>
    <StripTile
      v-if="simplifying.possible"
      word="Take"
      how="Enter"
      title="Take the outlines with fewer nodes"
      @click="simplifying.take()"
    >
      <path d="M10 46C12 4 50 4 52 46" />
      <circle cx="10" cy="46" r="4.5" class="dot" />
      <circle cx="52" cy="46" r="4.5" class="dot" />
    </StripTile>
    <StripTile word="Leave" how="Esc" title="Leave all as it is" @click="simplifying.leave()">
      <path d="M10 46L16 28L24 18L31 14L38 18L46 28L52 46" />
      <circle
        v-for="[x, y] in [
          [16, 28],
          [24, 18],
          [31, 14],
          [38, 18],
          [46, 28],
        ]"
        :key="`${x} ${y}`"
        :cx="x"
        :cy="y"
        r="3"
        class="dot"
      />
    </StripTile>
    <p class="advice told" data-testid="fewer">
      <b>{{ simplifying.told.before }} → {{ simplifying.told.after }} nodes.</b>
      <template v-if="simplifying.possible">
        Outlines stray by {{ shortNumber(simplifying.told.strays) }} at most. {{ circles }}
      </template>
      <template v-else
        >Within this bound no node can go; a larger one lets more of them go.</template
      >
    </p>
  </template>
</template>

<style scoped>
.bound {
  flex: none;
  width: 150px;
  align-self: center;
}
.told {
  color: var(--soft);
}
</style>
