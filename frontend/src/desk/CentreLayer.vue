<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Figure, Node } from '@/api/types';
import type { Gesture, Hands, Press } from '@/desk/gestures';
import { andThen, commandGesture, landed } from '@/desk/gestures';
import type { Snapping } from '@/desk/snapping';
import { commandOf } from '@/marks/commands';
import type { Point } from '@/marks/numbers';
import { shortNumber } from '@/marks/numbers';
import { useView } from '@/stores/view';

/** The centre of a spin, or the axes of a mirror and where they meet: a dot that is dragged. */
const props = defineProps<{
  node: Extract<Node, { kind: 'repeat' }>;
  figure: Figure;
  /** How far axes reach on the desk. */
  reach: number;
  snapperFor: (ids: string[]) => Snapping;
  press: Press;
  hands: Hands;
}>();

const view = useView();
const held = ref<Point | null>(null);

const centre = computed(() => view.toDesk(held.value ?? { x: props.figure.x, y: props.figure.y }));
/** The angles of the axes on the plate. */
const axes = computed(() => {
  const { layout } = props.node;
  if (layout.kind !== 'mirror') return [];
  const first = layout.angle_deg + props.figure.angle_deg;
  return Array.from({ length: layout.axes }, (_, i) => first + (180 * i) / layout.axes);
});
const lines = computed(() =>
  axes.value.map((degrees) => {
    const turn = (degrees * Math.PI) / 180;
    const [dx, dy] = [props.reach * Math.cos(turn), props.reach * Math.sin(turn)];
    const { x, y } = centre.value;
    return { x1: x - dx, y1: y - dy, x2: x + dx, y2: y + dy };
  }),
);

function moving(): Gesture {
  const snapper = props.snapperFor([props.node.id]);
  const gesture = commandGesture(props.hands, (at, keys) => {
    const { at: to, marks } = landed(props.hands, snapper, at, keys);
    held.value = to;
    return {
      command: commandOf('move-centre', { id: props.node.id, ...to }),
      said: { text: `${shortNumber(to.x)}, ${shortNumber(to.y)}`, marks },
    };
  });
  return andThen(gesture, () => (held.value = null));
}

function grab(event: PointerEvent): void {
  if (event.button === 0) props.press(event, moving, () => undefined);
}
</script>

<template>
  <svg class="centre" width="100%" height="100%" data-testid="centre">
    <line v-for="(line, i) in lines" :key="i" v-bind="line" />
    <g data-centre @pointerdown.stop="grab">
      <title>Drag the centre: the first copy stays where it is</title>
      <circle class="reach" :cx="centre.x" :cy="centre.y" r="12" />
      <circle class="ring" :cx="centre.x" :cy="centre.y" r="7" />
      <circle class="dot" :cx="centre.x" :cy="centre.y" r="3" />
    </g>
  </svg>
</template>

<style scoped>
.centre {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
g {
  cursor: move;
}
line {
  stroke: var(--tide);
  stroke-dasharray: 6 4;
  opacity: 0.7;
}
.reach {
  fill: transparent;
  pointer-events: all;
}
.ring {
  fill: var(--card);
  stroke: var(--tide);
  stroke-width: 1.5;
}
.dot {
  fill: var(--tide);
}
g:hover .ring {
  stroke-width: 2.5;
}
</style>
