<script setup lang="ts">
import { computed } from 'vue';

import type { Gradient, Look } from '@/api/types';
import ColourField from '@/fields/ColourField.vue';
import GradientField from '@/fields/GradientField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import type { GradientShape } from '@/marks/gradients';
import { GRADIENT_SHAPES, shadedAs } from '@/marks/gradients';
import { colourOf, gradientOf } from '@/marks/paint';

/** What something is painted with: a colour, a gradient, or none. */
const props = defineProps<{ fill: Look['fill'] | undefined; label: string; none?: boolean }>();
const emit = defineEmits<{ choose: [fill: Look['fill']] }>();

const gradient = computed(() => gradientOf(props.fill));
const shape = computed<GradientShape | 'colour'>(() => gradient.value?.shape ?? 'colour');

function take(next: GradientShape | 'colour'): void {
  if (next === shape.value) return;
  if (next === 'colour') emit('choose', gradient.value!.stops[0]!.colour);
  else emit('choose', shadedAs(next, props.fill ?? null));
}
</script>

<template>
  <div class="ink">
    <ChoicePill
      v-if="fill !== undefined"
      class="pill"
      :model-value="shape"
      :options="GRADIENT_SHAPES"
      :label="`${label} as`"
      @update:model-value="take"
    />
    <GradientField
      v-if="gradient"
      :gradient="gradient as Gradient"
      :label="label"
      @change="emit('choose', $event)"
    >
      <slot />
    </GradientField>
    <ColourField
      v-else
      :fill="fill === undefined ? undefined : colourOf(fill)"
      :label="label"
      :none="none"
      gradients
      @choose="emit('choose', $event)"
      @shade="emit('choose', $event)"
    >
      <slot />
    </ColourField>
  </div>
</template>

<style scoped>
.pill {
  width: max-content;
  margin: 6px 0 2px;
  font-size: 12px;
}
.pill :deep(button) {
  padding: 3px 10px;
}
</style>
