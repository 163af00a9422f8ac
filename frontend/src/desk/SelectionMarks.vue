<script setup lang="ts">
import { computed } from 'vue';

import type { Figure, Line } from '@/api/types';
import SizeGrips from '@/desk/SizeGrips.vue';
import { ontoPlate } from '@/marks/matrix';
import { colourOf } from '@/marks/paint';
import type { Point } from '@/marks/numbers';

/**
 * A shape's outline, and what is taken hold of to size it: of a line or arc its ends. The line that
 * a shape has is seen as it is, with the mark on both sides of it.
 */
const props = defineProps<{
  figure: Figure;
  ink: Line | null;
  zoom: number;
  held: boolean;
}>();
const emit = defineEmits<{
  grab: [grip: Point, event: PointerEvent];
  grabEnd: [held: number, event: PointerEvent];
}>();

/** What the mark is wider by for the shape's own line, in pixels. */
const width = computed(() => (props.ink ? props.ink.width * props.zoom + 1.2 : 0));

/** Of a line its ends, of an arc its middle between them too. */
const ends = computed(() => {
  const { grips, matrix } = props.figure;
  const names = grips.length > 2 ? ['start', 'middle', 'end'] : ['start', 'end'];
  return grips.map(([x, y], i) => ({ ...ontoPlate(matrix, { x, y }), name: names[i] }));
});
</script>

<template>
  <g>
    <path class="casing" :d="figure.path" :stroke-width="3 + width" />
    <path class="outline" :d="figure.path" :stroke-width="1.2 + width" />
    <path
      v-if="ink"
      class="ink"
      :d="figure.path"
      :stroke="colourOf(ink.paint) ?? undefined"
      :stroke-width="ink.width * zoom"
    />
    <template v-if="held && ends.length">
      <circle
        v-for="(end, i) in ends"
        :key="i"
        class="end"
        :cx="end.x"
        :cy="end.y"
        :r="6 / zoom"
        :data-end="end.name"
        @pointerdown.stop="emit('grabEnd', i, $event)"
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
.outline,
.ink {
  fill: none;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.casing {
  stroke: #fff;
  stroke-opacity: 0.8;
}
.outline {
  stroke: var(--clay);
}
.end {
  fill: #fff;
  stroke: var(--clay);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
  cursor: move;
}
</style>
