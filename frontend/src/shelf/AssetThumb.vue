<script setup lang="ts">
import { computed, watch } from 'vue';

import type { AssetOnShelf } from '@/api/types';
import InSight from '@/look/InSight.vue';
import PathPicture from '@/look/PathPicture.vue';
import { useShelf } from '@/stores/shelf';

/** An asset's picture on the ground that is chosen for all, drawn once it comes into sight. */
const props = defineProps<{ asset: AssetOnShelf }>();

const shelf = useShelf();
const picture = computed(() => shelf.pictures.get(props.asset.id));
watch(
  () => props.asset.revision,
  () => shelf.wantPicture(props.asset),
);
</script>

<template>
  <InSight class="thumb" :class="shelf.ground" @near="shelf.wantPicture(asset)">
    <PathPicture v-if="picture" :pieces="picture.pieces" :box="picture.box" :margin="0.06" />
  </InSight>
</template>

<style scoped>
.thumb {
  display: block;
  aspect-ratio: 1;
  padding: 10%;
  border-radius: 10px;
}
.thumb svg {
  display: block;
  width: 100%;
  height: 100%;
}
.card {
  background: #fff;
}
.dark {
  background: var(--ink);
}
.colour {
  background: var(--mustard);
}
.checker {
  background: repeating-conic-gradient(#d9d2c4 0 25%, #fff 0 50%) 0 0 / 16px 16px;
}
</style>
