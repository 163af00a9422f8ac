<script setup lang="ts">
import { computed, nextTick, ref } from 'vue';

import type { Figure, Node } from '@/api/types';
import type { Tag } from '@/desk/tags';
import { placeOf, tagsOf } from '@/desk/tags';
import NumberField from '@/fields/NumberField.vue';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';
import type { Values } from '@/marks/parameters';
import { parameterFields } from '@/marks/parameters';
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
const typing = ref<string | null>(null);
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
  const parameters = parameterFields(tag.parameter, value, props.node as unknown as Values);
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

async function type(tag: Tag, event: MouseEvent): Promise<void> {
  typing.value = tag.parameter.key;
  const tags = (event.currentTarget as Element).parentElement;
  await nextTick();
  tags?.querySelector('input')?.select();
}

async function typed(tag: Tag, value: number): Promise<void> {
  typing.value = null;
  await drawing.run(command(tag, value));
}
</script>

<template>
  <div class="tags" :style="place">
    <template v-for="tag in tags" :key="tag.parameter.key">
      <div
        v-if="typing === tag.parameter.key"
        class="typing"
        @pointerdown.stop
        @keydown.esc.stop="typing = null"
        @focusout="typing = null"
      >
        <NumberField
          :label="tag.parameter.word"
          :value="Number(shortNumber(tag.value))"
          :rule="tag.parameter"
          @change="typed(tag, $event)"
        />
      </div>
      <button
        v-else
        class="tag mono"
        :title="`${tag.parameter.word}: drag to change, double-click to type`"
        :data-tag="tag.parameter.key"
        @pointerdown.stop="onDown(tag, $event)"
        @pointermove="onMove"
        @pointerup="onUp"
        @dblclick.stop="type(tag, $event)"
        @keydown.enter.stop.prevent="type(tag, $event as unknown as MouseEvent)"
      >
        {{ tag.text }}
      </button>
    </template>
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
.tag,
.typing {
  border: 1px solid var(--tide);
  border-radius: 11px;
  background: var(--card);
  color: var(--tide);
  white-space: nowrap;
}
.tag {
  padding: 0 8px;
  font-size: 11px;
  line-height: 18px;
  cursor: ew-resize;
  touch-action: none;
}
.tag:hover {
  background: #fff;
  box-shadow: 0 0 0 1.5px var(--tide);
}
.typing {
  width: 150px;
  padding: 2px 10px 4px;
  color: var(--ink);
}
</style>
