<script setup lang="ts">
import { computed, useId } from 'vue';

import type { Piece } from '@/api/types';

/** Painted pieces, the lowest first, to stand inside an SVG element. */
const props = defineProps<{ pieces: readonly Piece[] }>();

const id = useId();
const clips = computed(() => [...new Set(props.pieces.flatMap((piece) => piece.clip ?? []))]);
</script>

<template>
  <clipPath v-for="(clip, i) in clips" :id="`${id}-${i}`" :key="clip"><path :d="clip" /></clipPath>
  <path
    v-for="(piece, i) in pieces"
    :key="i"
    class="piece"
    :d="piece.path"
    :fill="piece.fill ?? 'none'"
    :fill-rule="piece.fill_rule"
    :stroke="piece.line?.colour"
    :stroke-width="piece.line?.width"
    :opacity="piece.opacity"
    :clip-path="piece.clip ? `url(#${id}-${clips.indexOf(piece.clip)})` : undefined"
  />
</template>
