<script setup lang="ts">
import { computed, useId } from 'vue';

import type { Piece } from '@/api/types';
import GradientDef from '@/look/GradientDef.vue';
import ShadowFilter from '@/look/ShadowFilter.vue';
import { conicOf, strokeOf } from '@/marks/paint';

/** Painted pieces and layers of such, the lowest first, to stand inside an SVG element. */
const props = defineProps<{ pieces: readonly Piece[] }>();

const id = useId();
const clips = computed(() => [...new Set(props.pieces.flatMap((piece) => piece.clip ?? []))]);
const within = (piece: Piece) => ({
  opacity: piece.opacity,
  style: piece.blend === 'normal' ? undefined : { mixBlendMode: piece.blend },
  'clip-path': piece.clip ? `url(#${id}-${clips.value.indexOf(piece.clip)})` : undefined,
});
const fillOf = (piece: Piece, i: number) =>
  piece.shade && piece.shade.shape !== 'conic' ? `url(#${id}-fill-${i})` : (piece.fill ?? 'none');
</script>

<template>
  <clipPath v-for="(clip, i) in clips" :id="`${id}-${i}`" :key="clip"><path :d="clip" /></clipPath>
  <template v-for="(piece, i) in pieces" :key="i">
    <g v-if="piece.items.length" v-bind="within(piece)">
      <ShadowFilter v-if="piece.region" :id="`${id}-shadow-${i}`" :piece="piece" />
      <g class="cast" :filter="piece.region ? `url(#${id}-shadow-${i})` : undefined">
        <PiecePaths :pieces="piece.items" />
      </g>
    </g>
    <template v-else>
      <GradientDef v-if="piece.shade" :id="`${id}-fill-${i}`" :shade="piece.shade" />
      <GradientDef v-if="piece.line?.shade" :id="`${id}-line-${i}`" :shade="piece.line.shade" />
      <g v-if="piece.shade?.shape === 'conic'" v-bind="within(piece)">
        <clipPath :id="`${id}-area-${i}`">
          <path :d="piece.path" :clip-rule="piece.fill_rule" />
        </clipPath>
        <g :clip-path="`url(#${id}-area-${i})`">
          <!-- SVG has no such gradient, and CSS has. -->
          <foreignObject v-bind="conicOf(piece.shade).box">
            <div class="conic" :style="{ background: conicOf(piece.shade).background }" />
          </foreignObject>
        </g>
        <path class="piece" :d="piece.path" fill="none" v-bind="strokeOf(piece.line)" />
      </g>
      <path
        v-else
        class="piece"
        :d="piece.path"
        :fill="fillOf(piece, i)"
        :fill-rule="piece.fill_rule"
        v-bind="{
          ...strokeOf(piece.line, piece.line?.shade ? `url(#${id}-line-${i})` : undefined),
          ...within(piece),
        }"
      />
    </template>
  </template>
</template>

<style scoped>
.conic {
  width: 100%;
  height: 100%;
}
</style>
