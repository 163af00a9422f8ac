<script setup lang="ts">
import { computed, useId } from 'vue';

import type { Piece } from '@/api/types';

/** Painted pieces, the lowest first, to stand inside an SVG element. */
const props = defineProps<{ pieces: readonly Piece[] }>();

const id = useId();
const clips = computed(() => [...new Set(props.pieces.flatMap((piece) => piece.clip ?? []))]);
/** Where a gradient runs before it is mapped: along x from 0 to 1, or round the origin. */
const WAYS = { linear: { x2: 1 }, radial: { cx: 0, cy: 0, r: 1 } };
</script>

<template>
  <clipPath v-for="(clip, i) in clips" :id="`${id}-${i}`" :key="clip"><path :d="clip" /></clipPath>
  <template v-for="({ shade }, i) in pieces" :key="i">
    <component
      :is="`${shade.shape}Gradient`"
      v-if="shade"
      :id="`${id}-shade-${i}`"
      gradientUnits="userSpaceOnUse"
      v-bind="WAYS[shade.shape]"
      :gradientTransform="`matrix(${shade.matrix.join()})`"
    >
      <stop
        v-for="(stop, at) in shade.stops"
        :key="at"
        :offset="stop.at"
        :stop-color="stop.colour"
        :stop-opacity="stop.opacity"
      />
    </component>
  </template>
  <path
    v-for="(piece, i) in pieces"
    :key="i"
    class="piece"
    :d="piece.path"
    :fill="piece.shade ? `url(#${id}-shade-${i})` : (piece.fill ?? 'none')"
    :fill-rule="piece.fill_rule"
    :stroke="piece.line?.colour"
    :stroke-width="piece.line?.width"
    :opacity="piece.opacity"
    :clip-path="piece.clip ? `url(#${id}-${clips.indexOf(piece.clip)})` : undefined"
  />
</template>
