<script setup lang="ts">
import { computed } from 'vue';

import type { Figure, Node } from '@/api/types';
import type { Tag } from '@/desk/tags';
import { placeOf, tagsOf } from '@/desk/tags';
import ValueTag from '@/desk/ValueTag.vue';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';
import { parameterFields, valuesOf } from '@/marks/parameters';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** A primitive's parameters beside it on the desk: dragged to change, double-clicked to type. */
const props = defineProps<{
  node: Node;
  figure: Figure;
  /** The compass ring: its centre on the plate, its radius on the desk. */
  ring: { centre: Point; radius: number };
}>();

const drawing = useDrawing();
const selection = useSelection();
const view = useView();
let held: { tag: Tag; from: Point; value: number } | null = null;
let asked: number | null = null;

const tags = computed(() => tagsOf(props.node, props.figure));
/** The boxes of what is painted, on the desk. */
const painted = computed(() =>
  selection.rows
    .filter((row) => !row.dimmed && !row.inside && row.node.kind !== 'image')
    .flatMap(({ node }) => {
      const bounds = selection.figureById.get(node.id)?.bounds;
      if (!bounds) return [];
      const [from, to] = [
        view.toDesk({ x: bounds.x0, y: bounds.y0 }),
        view.toDesk({ x: bounds.x1, y: bounds.y1 }),
      ];
      return [{ x0: from.x, y0: from.y, x1: to.x, y1: to.y }];
    }),
);
const place = computed(() => {
  const { centre, radius } = props.ring;
  const { x, y } = view.toDesk(centre);
  const round = { x0: x - radius, y0: y - radius, x1: x + radius, y1: y + radius };
  const at = placeOf(tags.value.length, round, view.size, painted.value);
  return { left: `${at.x}px`, top: `${at.y}px` };
});

function command(tag: Tag, value: number) {
  const parameters = parameterFields(tag.parameter, value, valuesOf(props.node));
  return { kind: 'set-parameters' as const, ids: [props.node.id], parameters };
}

/** Where the pointer is on the plate. */
function pointer(event: PointerEvent): Point {
  const box = (event.target as Element).closest('.desk')!.getBoundingClientRect();
  return view.toPlate({ x: event.clientX - box.left, y: event.clientY - box.top });
}

function onDown(tag: Tag, event: PointerEvent): void {
  if (event.button !== 0) return;
  (event.target as Element).setPointerCapture(event.pointerId);
  held = { tag, from: pointer(event), value: tag.value };
  asked = null;
}

function onMove(event: PointerEvent): void {
  if (!held) return;
  const exact = held.tag.dragged(held.from, pointer(event), view.zoom);
  const { key } = held.tag.parameter;
  const isLength = !['inner', 'ratio', 'tip'].includes(key);
  asked = isLength ? Math.max(held.tag.parameter.min, view.rounded(exact)) : exact;
  if (held.tag.parameter.above && asked <= held.tag.parameter.min) asked = view.step;
  drawing.look(command(held.tag, asked));
}

async function onUp(): Promise<void> {
  const done = held;
  held = null;
  if (done && asked !== null && asked !== done.value) await drawing.run(command(done.tag, asked));
  else drawing.stopPreview();
}
</script>

<template>
  <div class="tags" :style="place">
    <ValueTag
      v-for="tag in tags"
      :key="tag.parameter.key"
      :text="tag.text"
      :label="tag.parameter.word"
      :value="Number(shortNumber(tag.value))"
      :rule="tag.parameter"
      :data-tag="tag.parameter.key"
      @pointerdown.stop="onDown(tag, $event)"
      @pointermove="onMove"
      @pointerup="onUp"
      @change="drawing.run(command(tag, $event))"
    />
  </div>
</template>

<style scoped>
.tags {
  position: absolute;
  z-index: 2;
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 4px;
}
</style>
