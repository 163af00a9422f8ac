<script setup lang="ts">
import { computed, nextTick, onMounted, onScopeDispose, ref, watch } from 'vue';

import type { Point } from '@/marks/numbers';
import { useDrawing } from '@/stores/drawing';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** The caret and what is chosen of the words in hand, and the field that they are typed in. */
const drawing = useDrawing();
const typing = useTyping();
const view = useView();
const field = ref<HTMLTextAreaElement>();
/** Where the caret blinks anew: it stays lit while one types. */
const beat = ref(0);

const spot = ([x, y]: readonly [number, number]) => view.toDesk({ x, y });
type Edge = readonly [number, number, number, number];
const ends = ([x0, y0, x1, y1]: Edge): [Point, Point] => [spot([x0, y0]), spot([x1, y1])];

/** The caret from its foot to its head, on the desk. */
const caret = computed<[Point, Point] | null>(() => {
  const cells = typing.map?.cells;
  if (cells?.length) {
    const place = Math.min(typing.chosen.head, cells.length - 1);
    return ends(cells[place]!.before);
  }
  if (!typing.fresh) return null;
  // There is no letter yet: as high as one will be.
  const { at, manner } = typing.fresh;
  const high = manner.size * (manner.measure === 'body' ? 0.8 : 1.1);
  return [view.toDesk({ x: at.x, y: at.y + high / 5 }), view.toDesk({ x: at.x, y: at.y - high })];
});
const chosen = computed(() => {
  const { anchor, head } = typing.chosen;
  const cells = typing.map?.cells.slice(Math.min(anchor, head), Math.max(anchor, head)) ?? [];
  return cells.map(({ before, after }) => {
    const [a, b] = ends(before);
    const [c, d] = ends(after);
    return [a, b, d, c].map(({ x, y }) => `${x},${y}`).join(' ');
  });
});

function focus(): void {
  field.value?.focus({ preventScroll: true });
}
onMounted(focus);
defineExpose({ focus });

/** What is chosen in the field is what is chosen on the desk, and the reverse. */
function fromField(): void {
  const { selectionStart, selectionEnd, selectionDirection } = field.value!;
  const [anchor, head] =
    selectionDirection === 'backward'
      ? [selectionEnd, selectionStart]
      : [selectionStart, selectionEnd];
  if (anchor !== typing.chosen.anchor || head !== typing.chosen.head) typing.choose(head, anchor);
}
watch(
  [() => typing.chosen, () => typing.draft],
  async () => {
    beat.value += 1;
    await nextTick();
    const { anchor, head } = typing.chosen;
    if (field.value && field.value.value === typing.draft) {
      const [from, to] = [Math.min(anchor, head), Math.max(anchor, head)];
      const { selectionStart, selectionEnd } = field.value;
      if (selectionStart !== from || selectionEnd !== to)
        field.value.setSelectionRange(from, to, head < anchor ? 'backward' : 'forward');
    }
  },
  { immediate: true },
);
document.addEventListener('selectionchange', onSelection);
onScopeDispose(() => document.removeEventListener('selectionchange', onSelection));
function onSelection(): void {
  if (document.activeElement === field.value) fromField();
}

function onInput(): void {
  // A text has lines and spaces, and no tabs.
  const words = field.value!.value.replaceAll('\t', ' ');
  typing.type(words);
  fromField();
}

function onKey(event: KeyboardEvent): void {
  event.stopPropagation();
  if (event.isComposing) return;
  const withCtrl = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  if (key === 'escape' || (key === 'enter' && withCtrl)) void typing.leave();
  else if (withCtrl && key === 'z' && !event.shiftKey) typing.undo();
  else if (withCtrl && (key === 'y' || key === 'z')) void typing.commit().then(drawing.redo);
  else if (event.altKey && (key === 'arrowleft' || key === 'arrowright')) {
    // The browser tells of a caret that has just moved only later.
    fromField();
    const { anchor, head } = typing.chosen;
    const steps = (key === 'arrowleft' ? -1 : 1) * (event.shiftKey ? 10 : 1);
    if (anchor === head) void typing.space(head, steps);
  } else return;
  event.preventDefault();
}

function onComposed(): void {
  typing.compose(false);
  onInput();
}
</script>

<template>
  <svg
    class="layer"
    width="100%"
    height="100%"
    data-testid="typing"
    :data-places="typing.map?.cells.length ?? 0"
  >
    <polygon v-for="(points, i) in chosen" :key="i" class="chosen" :points="points" />
    <line
      v-if="caret"
      :key="beat"
      class="caret"
      data-testid="caret"
      :x1="caret[0].x"
      :y1="caret[0].y"
      :x2="caret[1].x"
      :y2="caret[1].y"
    />
  </svg>
  <textarea
    ref="field"
    class="field"
    :value="typing.draft"
    :style="{ left: `${caret?.[0].x ?? 0}px`, top: `${caret?.[1].y ?? 0}px` }"
    aria-label="The words"
    wrap="off"
    autocomplete="off"
    autocapitalize="off"
    spellcheck="false"
    @input="onInput"
    @keydown="onKey"
    @compositionstart="typing.compose(true)"
    @compositionend="onComposed"
    @pointerdown.stop
  />
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.caret {
  stroke: var(--clay);
  stroke-width: 2;
  animation: blink 1.1s steps(1) infinite;
}
.chosen {
  fill: var(--tide);
  fill-opacity: 0.22;
}
/* What an input method shows lies at the caret. */
.field {
  position: absolute;
  width: 1px;
  height: 1.2em;
  padding: 0;
  border: 0;
  opacity: 0;
  resize: none;
  overflow: hidden;
  pointer-events: none;
}
@keyframes blink {
  50% {
    opacity: 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .caret {
    animation: none;
  }
}
</style>
