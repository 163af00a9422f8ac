<script setup lang="ts">
import { computed } from 'vue';

import type { LetterGap } from '@/api/types';
import type { Hands, Press } from '@/desk/gestures';
import { addedWord, spacingGesture } from '@/letters/spacing';
import { shortNumber } from '@/marks/numbers';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** The clear gap between each two letters: dragged closer or wider, the odd ones marked. */
const props = defineProps<{ press: Press; hands: Hands }>();

const typing = useTyping();
const view = useView();

const ODD = { tight: 'much tighter than the others', wide: 'much wider than the others' };

const marks = computed(() =>
  (typing.map?.gaps ?? []).map((gap) => {
    const [x0, y0, x1, y1] = typing.map!.cells[gap.before]!.before;
    return {
      gap,
      foot: view.toDesk({ x: x0, y: y0 }),
      head: view.toDesk({ x: x1, y: y1 }),
      added: gap.by ? addedWord(gap.by) : '',
    };
  }),
);

function grab(gap: LetterGap, event: PointerEvent): void {
  if (event.button !== 0) return;
  typing.gapInHand = gap.before;
  const edge = typing.map!.cells[gap.before]!.before;
  const { by } = gap;
  props.press(
    event,
    (from) =>
      spacingGesture(props.hands, { by, unit: typing.map!.unit, edge }, from, (next) =>
        typing.spaced(gap.before, next),
      ),
    () => undefined,
  );
}
</script>

<template>
  <svg class="layer" width="100%" height="100%" data-testid="spacing">
    <g
      v-for="{ gap, foot, head, added } in marks"
      :key="gap.before"
      :class="[gap.odd, { on: typing.gapInHand === gap.before }]"
      :data-gap="gap.before"
      :data-odd="gap.odd"
      @pointerdown.stop="grab(gap, $event)"
    >
      <title>
        {{ shortNumber(gap.gap) }} clear{{ gap.odd ? `, ${ODD[gap.odd]}` : ''
        }}{{ added ? `; ${added} added` : '' }}
      </title>
      <line class="reach" :x1="foot.x" :y1="foot.y" :x2="head.x" :y2="head.y" />
      <line class="halo" :x1="foot.x" :y1="foot.y" :x2="head.x" :y2="head.y" />
      <line class="mark" :x1="foot.x" :y1="foot.y" :x2="head.x" :y2="head.y" />
      <rect :x="foot.x - 12" :y="foot.y + 2" width="24" height="14" rx="7" />
      <text :x="foot.x" :y="foot.y + 12.5">
        {{ shortNumber(Number(gap.gap.toPrecision(2))) }}
      </text>
      <template v-if="added">
        <rect :x="head.x - 18" :y="head.y - 17" width="36" height="14" rx="7" />
        <text :x="head.x" :y="head.y - 6.5">{{ added }}</text>
      </template>
    </g>
  </svg>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
g {
  pointer-events: all;
  cursor: ew-resize;
}
.reach {
  stroke: transparent;
  stroke-width: 14;
}
.mark {
  stroke: var(--tide);
  stroke-width: 1.4;
  stroke-dasharray: 3 3;
}
.halo {
  stroke: var(--card);
  stroke-opacity: 0.75;
  stroke-width: 3.4;
}
rect {
  fill: var(--card);
  fill-opacity: 0.92;
}
text {
  fill: var(--tide);
  font:
    10px 'IBM Plex Mono',
    monospace;
  text-anchor: middle;
}
.tight .mark,
.wide .mark {
  stroke: var(--mustard);
  stroke-width: 3;
  stroke-dasharray: none;
}
.tight text,
.wide text {
  fill: #7d5510;
  font-weight: 600;
}
g:hover .mark,
.on .mark {
  stroke: var(--clay);
  stroke-width: 2.4;
}
.on text {
  fill: var(--clay);
}
</style>
