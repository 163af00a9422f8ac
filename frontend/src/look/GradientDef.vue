<script setup lang="ts">
import type { Piece } from '@/api/types';

/** A gradient where it is painted, for whatever names its id; a conic one has none in SVG. */
defineProps<{ id: string; shade: NonNullable<Piece['shade']> }>();

/** Where a gradient runs before it is mapped: along x from 0 to 1, or round the origin. */
const WAYS = { linear: { x2: 1 }, radial: { cx: 0, cy: 0, r: 1 } };
</script>

<template>
  <component
    :is="`${shade.shape}Gradient`"
    v-if="shade.shape !== 'conic'"
    :id="id"
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
