<script setup lang="ts">
import { computed } from 'vue';

import type { Piece } from '@/api/types';

/** The filter of a layer's shadows, beneath it and into it, as files have it too. */
const props = defineProps<{ id: string; piece: Piece }>();

const region = computed(() => {
  const { x0, y0, x1, y1 } = props.piece.region!;
  return { x: x0, y: y0, width: x1 - x0, height: y1 - y0 };
});
/** The lowest first, each with the name of its picture. */
const numbered = computed(() =>
  props.piece.shadows.map((shadow, i) => ({ ...shadow, name: `cast-${i}` })).reverse(),
);
</script>

<template>
  <filter :id="id" filterUnits="userSpaceOnUse" v-bind="region" color-interpolation-filters="sRGB">
    <template v-for="shadow in numbered" :key="shadow.name">
      <feComponentTransfer in="SourceAlpha" :result="`of-${shadow.name}`">
        <feFuncA v-if="shadow.inside" type="table" tableValues="1 0" />
      </feComponentTransfer>
      <feGaussianBlur :in="`of-${shadow.name}`" :stdDeviation="shadow.blur / 2" />
      <feOffset :dx="shadow.dx" :dy="shadow.dy" :result="`there-${shadow.name}`" />
      <feFlood :flood-color="shadow.colour" :flood-opacity="shadow.opacity" />
      <feComposite :in2="`there-${shadow.name}`" operator="in" :result="shadow.name" />
      <feComposite
        v-if="shadow.inside"
        :in="shadow.name"
        in2="SourceAlpha"
        operator="in"
        :result="shadow.name"
      />
    </template>
    <feMerge>
      <template v-for="{ name, inside } in numbered" :key="name">
        <feMergeNode v-if="!inside" :in="name" />
      </template>
      <feMergeNode in="SourceGraphic" />
      <template v-for="{ name, inside } in numbered" :key="name">
        <feMergeNode v-if="inside" :in="name" />
      </template>
    </feMerge>
  </filter>
</template>
