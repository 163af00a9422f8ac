<script setup lang="ts">
import { computed } from 'vue';

import type { AssetOnShelf } from '@/api/types';
import AssetThumb from '@/shelf/AssetThumb.vue';

/** An asset among many: drawn again only if something of it has changed. */
const props = defineProps<{ asset: AssetOnShelf; on: boolean; shown: boolean }>();
defineEmits<{ pick: [event: MouseEvent]; take: []; carry: [event: DragEvent] }>();

const title = computed(() =>
  [props.asset.name, ...props.asset.tags.map((tag) => `#${tag}`)].join(' '),
);
</script>

<template>
  <button
    v-show="shown"
    class="asset"
    :class="{ on }"
    :title="title"
    draggable="true"
    @dragstart="$emit('carry', $event)"
    @click="$emit('pick', $event)"
    @dblclick="$emit('take')"
  >
    <AssetThumb :asset="asset" />
    <span class="name">{{ asset.name }}</span>
  </button>
</template>

<style scoped>
.asset {
  min-width: 0;
  padding: 5px 5px 4px;
  border: 1px solid var(--rule);
  border-radius: 14px;
  background: var(--card);
}
.asset:hover {
  border-color: var(--soft);
}
.asset.on {
  border-color: var(--clay);
  box-shadow: 0 0 0 1px var(--clay);
}
.name {
  display: block;
  margin-top: 3px;
  font-size: 11.5px;
  text-align: center;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
