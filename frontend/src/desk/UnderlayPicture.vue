<script setup lang="ts">
import { computed } from 'vue';

import type { Node } from '@/api/types';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';

/** A picture to build over: seen in every view, in hand only while it is unlocked. */
const props = defineProps<{ row: Row; node: Extract<Node, { kind: 'image' }> }>();

const selection = useSelection();

const moved = computed(() => selection.isMoved(props.row));
const place = computed(() => {
  const { a, b, c, d, e, f } = selection.figureById.get(props.node.id)!.matrix;
  return `matrix(${[a, b, c, d, e, f].join()})`;
});
</script>

<template>
  <g class="underlay" :class="{ moved }">
    <image
      :data-node="row.held ? undefined : node.id"
      :href="`/api/pictures/${node.picture}`"
      :x="-node.width / 2"
      :y="-node.height / 2"
      :width="node.width"
      :height="node.height"
      preserveAspectRatio="none"
      :transform="place"
      :opacity="node.look.opacity"
      :pointer-events="row.held ? 'none' : 'all'"
    />
  </g>
</template>
