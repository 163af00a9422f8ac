<script setup lang="ts">
import { computed } from 'vue';

import type { Figure } from '@/api/types';
import { ontoPlate } from '@/desk/gestures';
import SizeGrips from '@/desk/SizeGrips.vue';
import type { Point } from '@/stores/view';

/** A shape's outline, and what is taken hold of to size it: of a line its two ends. */
const props = defineProps<{ figure: Figure; zoom: number; held: boolean; line: boolean }>();
const emit = defineEmits<{
  grab: [grip: Point, event: PointerEvent];
  grabEnd: [atStart: boolean, event: PointerEvent];
}>();

const ends = computed(() => {
  const { box, matrix } = props.figure;
  return [box.x0, box.x1].map((x) => ontoPlate(matrix, { x, y: 0 }));
});
</script>

<template>
  <g>
    <path class="casing" :d="figure.path" />
    <path class="outline" :d="figure.path" />
    <template v-if="held && line">
      <circle
        v-for="(end, i) in ends"
        :key="i"
        class="end"
        :cx="end.x"
        :cy="end.y"
        :r="6 / zoom"
        :data-end="i ? 'end' : 'start'"
        @pointerdown.stop="emit('grabEnd', i === 0, $event)"
      />
    </template>
    <SizeGrips
      v-else-if="held"
      :figure="figure"
      :zoom="zoom"
      @grab="(grip, event) => emit('grab', grip, event)"
    />
  </g>
</template>

<style scoped>
/* A hairline beside the edge: the paint and the line that it marks stay to be seen. */
.casing,
.outline {
  fill: none;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.casing {
  stroke: #fff;
  stroke-opacity: 0.8;
  stroke-width: 3;
}
.outline {
  stroke: var(--clay);
  stroke-width: 1.2;
}
.end {
  fill: #fff;
  stroke: var(--clay);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
  cursor: move;
}
</style>
