<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Gradient, Stop } from '@/api/types';
import ColourField from '@/fields/ColourField.vue';
import NumberField from '@/fields/NumberField.vue';
import { inOrder, mixedAt, rounded } from '@/marks/gradients';
import { following } from '@/marks/paint';

/** The stops of a gradient along a bar: dragged, added by a click, removed, and typed. */
const props = defineProps<{ gradient: Gradient; label: string }>();
const emit = defineEmits<{ change: [gradient: Gradient] }>();

const SHARE = { min: 0, max: 100 };

const bar = ref<HTMLElement>();
/** Which stop is in hand. */
const chosen = ref(0);
/** The stops as the pointer leaves them for now. */
const dragged = ref<Stop[] | null>(null);

const stops = computed(() => dragged.value ?? (props.gradient.stops as Stop[]));
const stop = computed(() => stops.value[Math.min(chosen.value, stops.value.length - 1)]!);
const ground = computed(() => following({ ...props.gradient, stops: stops.value }));

function put(held: Stop, next: Stop | null): void {
  const others = stops.value.filter((each) => each !== held);
  const made = next ? inOrder([...others, next], next) : { stops: others, at: 0 };
  chosen.value = Math.max(0, made.at);
  emit('change', { ...props.gradient, stops: made.stops });
}

function partAt(event: PointerEvent): number {
  const { left, width } = bar.value!.getBoundingClientRect();
  return rounded((event.clientX - left) / width);
}

function add(event: PointerEvent): void {
  const fresh = mixedAt(stops.value, partAt(event));
  const made = inOrder([...stops.value, fresh], fresh);
  chosen.value = made.at;
  emit('change', { ...props.gradient, stops: made.stops });
}

function grab(event: PointerEvent, place: number): void {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  chosen.value = place;
  dragged.value = [...stops.value];
}

function drag(event: PointerEvent): void {
  if (!dragged.value) return;
  const held = dragged.value[chosen.value]!;
  const moved = { ...held, at: partAt(event) };
  const made = inOrder([...dragged.value.filter((each) => each !== held), moved], moved);
  dragged.value = made.stops;
  chosen.value = made.at;
}

function drop(): void {
  const made = dragged.value;
  dragged.value = null;
  if (made && JSON.stringify(made) !== JSON.stringify(props.gradient.stops))
    emit('change', { ...props.gradient, stops: made });
}
</script>

<template>
  <div class="gradient">
    <div ref="bar" class="bar" :aria-label="`Stops of ${label}`" @pointerdown.self="add">
      <span class="ground" :style="{ background: ground }" />
      <button
        v-for="(each, i) in stops"
        :key="i"
        type="button"
        class="stop"
        :class="{ on: each === stop }"
        :style="{ left: `${each.at * 100}%`, background: each.colour }"
        :aria-label="`Stop ${i + 1} of ${label}`"
        @pointerdown.stop="grab($event, i)"
        @pointermove="drag"
        @pointerup="drop"
        @keydown.delete.stop="stops.length > 2 && put(each, null)"
      />
    </div>
    <div class="two">
      <NumberField
        label="place"
        :value="stop.at * 100"
        :rule="SHARE"
        unit="%"
        @change="put(stop, { ...stop, at: rounded($event / 100) })"
      />
      <NumberField
        label="opaque"
        says="how opaque this colour is"
        :value="stop.opacity * 100"
        :rule="SHARE"
        unit="%"
        @change="put(stop, { ...stop, opacity: $event / 100 })"
      />
    </div>
    <ColourField
      :fill="stop.colour"
      :label="`${label} stop`"
      @choose="put(stop, { ...stop, colour: $event! })"
    />
    <slot />
    <button v-if="stops.length > 2" type="button" class="soft remove" @click="put(stop, null)">
      remove this stop
    </button>
  </div>
</template>

<style scoped>
.gradient {
  display: grid;
  gap: 4px;
}
.bar {
  position: relative;
  height: 30px;
  margin: 4px 8px 2px;
  cursor: copy;
}
.ground {
  position: absolute;
  inset: 4px -8px 12px;
  border: 1px solid var(--rule);
  border-radius: 8px;
  pointer-events: none;
}
.stop {
  position: absolute;
  bottom: 0;
  width: 15px;
  height: 15px;
  margin-left: -7.5px;
  border: 2px solid #fff;
  border-radius: 50%;
  box-shadow: 0 0 0 1px var(--ink);
  cursor: grab;
}
.stop.on {
  box-shadow: 0 0 0 2.5px var(--clay);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 10px;
}
.remove {
  justify-self: start;
}
.remove:hover {
  color: var(--ink);
}
</style>
