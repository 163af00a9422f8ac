<script setup lang="ts">
import { storeToRefs } from 'pinia';
import { computed } from 'vue';

import type { Command, Figure } from '@/api/types';
import AnchorPicker from '@/facts/AnchorPicker.vue';
import { common } from '@/facts/common';
import NumberField from '@/facts/NumberField.vue';
import { useDrawing } from '@/stores/drawing';
import { useView } from '@/stores/view';

/** Place, size and angle of one shape or of several at once. */
const props = defineProps<{ figures: Figure[] }>();

const SIZE = { min: 0, max: 1e6, above: true };
const ANGLE = { min: -360, max: 360 };
const ACROSS = ['left', 'centre', 'right'] as const;
const DOWN = ['top', 'middle', 'bottom'] as const;

const drawing = useDrawing();
const view = useView();
const { anchor, ratioLocked: locked } = storeToRefs(view);

const ids = computed(() => props.figures.map((figure) => figure.id));
const x = computed(() => common(props.figures, (figure) => placeOf(figure, 'x')));
const y = computed(() => common(props.figures, (figure) => placeOf(figure, 'y')));
const width = computed(() => common(props.figures, (figure) => figure.width));
const height = computed(() => common(props.figures, (figure) => figure.height));
const angle = computed(() => common(props.figures, (figure) => figure.angle_deg));

function placeOf(figure: Figure, axis: 'x' | 'y'): number {
  const share = anchor.value[axis];
  if (share === 0.5) return figure[axis];
  return figure.bounds[`${axis}${share}` as 'x0' | 'x1' | 'y0' | 'y1'];
}

function place(fields: { x?: number; y?: number; angle_deg?: number }): void {
  const at = [anchor.value.x, anchor.value.y];
  void drawing.run({ kind: 'place', ids: ids.value, anchor: at, ...fields } as Command);
}

function resize(fields: { width?: number; height?: number }): void {
  const only = props.figures[0]!;
  const size = { ...fields };
  // With the ratio locked the other side follows, where there is one shape and one ratio.
  if (locked.value && props.figures.length === 1 && only.width && only.height) {
    size.width ??= (only.width * fields.height!) / only.height;
    size.height ??= (only.height * fields.width!) / only.width;
  }
  void drawing.run({ kind: 'resize', ids: ids.value, ...size } as Command);
}
</script>

<template>
  <div class="grid">
    <NumberField
      label="x"
      :says="`x of its ${ACROSS[anchor.x * 2]}`"
      :value="x"
      @change="place({ x: $event })"
    >
      <AnchorPicker v-model="anchor.x" axis="x" :words="ACROSS" />
    </NumberField>
    <NumberField
      label="y"
      :says="`y of its ${DOWN[anchor.y * 2]}`"
      :value="y"
      @change="place({ y: $event })"
    >
      <AnchorPicker v-model="anchor.y" axis="y" :words="DOWN" />
    </NumberField>
    <NumberField
      label="w"
      says="width along its own axes"
      :value="width"
      :rule="SIZE"
      :disabled="width === 0"
      @change="resize({ width: $event })"
    />
    <NumberField
      label="h"
      says="height along its own axes"
      :value="height"
      :rule="SIZE"
      :disabled="height === 0"
      @change="resize({ height: $event })"
    />
    <NumberField
      label="angle"
      :value="angle"
      :rule="ANGLE"
      unit="°"
      @change="place({ angle_deg: $event })"
    />
    <button
      class="ratio"
      :aria-pressed="locked"
      title="Whether width and height keep their ratio"
      @click="locked = !locked"
    >
      <span class="soft">ratio</span><span class="mono">{{ locked ? 'locked' : 'free' }}</span>
    </button>
  </div>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 8px;
  margin-top: 6px;
}
.ratio {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  padding: 4px 2px;
  border-bottom: 1px solid var(--rule);
}
</style>
