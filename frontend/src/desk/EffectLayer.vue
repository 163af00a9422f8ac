<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Node } from '@/api/types';
import type { Gesture, Hands, Press } from '@/desk/gestures';
import { andThen, commandGesture, roundedLength } from '@/desk/gestures';
import type { Led, Reaching } from '@/desk/effects';
import { reachingOf } from '@/desk/effects';
import type { Point } from '@/marks/numbers';
import { useTwins } from '@/stores/twins';
import { useView } from '@/stores/view';

/** A dot for each shadow and for the depth of a shape, dragged to where it reaches. */
const props = defineProps<{
  node: Node;
  /** The compass ring: its centre on the plate, its radius on the desk. */
  ring: { centre: Point; radius: number };
  press: Press;
  hands: Hands;
}>();

const view = useView();
const twins = useTwins();
const held = ref<{ key: string; led: Led } | null>(null);

const dots = computed(() =>
  reachingOf(props.node.look).map((reaching) => {
    const led = held.value?.key === reaching.key ? held.value.led : null;
    const { x, y } = view.toDesk(props.ring.centre);
    const turn = (reaching.rest * Math.PI) / 180;
    const from = {
      x: x + props.ring.radius * Math.cos(turn),
      y: y + props.ring.radius * Math.sin(turn),
    };
    const by = led?.by ?? reaching.by;
    const to = { x: from.x + by.x * view.zoom, y: from.y + by.y * view.zoom };
    return { reaching, led, from, to };
  }),
);

function leading(reaching: Reaching, from: Point): Gesture {
  const { hands, node } = props;
  const gesture = commandGesture(hands, (at, keys) => {
    const by = { x: reaching.by.x + at.x - from.x, y: reaching.by.y + at.y - from.y };
    const led = reaching.led(by, keys, (value) => roundedLength(hands, value, keys));
    held.value = { key: reaching.key, led };
    const command = twins.here('paint', { ids: [node.id], ...led.fields });
    return { command, said: { text: '' } };
  });
  return andThen(gesture, () => (held.value = null));
}

function grab(reaching: Reaching, event: PointerEvent): void {
  if (event.button !== 0) return;
  props.press(
    event,
    (from) => leading(reaching, from),
    () => undefined,
  );
}
</script>

<template>
  <svg class="effects" width="100%" height="100%" data-testid="effects">
    <g
      v-for="{ reaching, led, from, to } in dots"
      :key="reaching.key"
      :data-effect="reaching.key"
      @pointerdown.stop="grab(reaching, $event)"
    >
      <title>Drag to where it reaches. Shift: along one axis, or in steps of 15°</title>
      <line class="casing" :x1="from.x" :y1="from.y" :x2="to.x" :y2="to.y" />
      <line :x1="from.x" :y1="from.y" :x2="to.x" :y2="to.y" />
      <circle class="origin" :cx="from.x" :cy="from.y" r="2.5" />
      <circle class="reach" :cx="to.x" :cy="to.y" r="12" />
      <circle class="dot" :cx="to.x" :cy="to.y" r="5.5" />
      <text :x="to.x + 11" :y="to.y + 4">{{ reaching.word }} {{ led?.text }}</text>
    </g>
  </svg>
</template>

<style scoped>
.effects {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
g {
  cursor: move;
}
line {
  stroke: var(--tide);
  stroke-width: 1.2;
}
.casing {
  stroke: #fff;
  stroke-width: 3.4;
}
.origin {
  fill: #fff;
  stroke: var(--tide);
  stroke-width: 1.2;
}
.reach {
  fill: transparent;
  pointer-events: all;
}
.dot {
  fill: var(--card);
  stroke: var(--tide);
  stroke-width: 1.8;
}
g:hover .dot {
  fill: var(--tide);
}
text {
  fill: var(--tide);
  stroke: var(--card);
  stroke-width: 3;
  paint-order: stroke;
  font-size: 12px;
}
</style>
