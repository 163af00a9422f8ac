<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Gradient, Look, Swatch } from '@/api/types';
import { cssOf, gradientOf } from '@/marks/paint';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** The drawing's own colours: add, name, order, change; with their users, if that is wanted. */
const emit = defineEmits<{ close: [] }>();

const drawing = useDrawing();
const selection = useSelection();
const rows = ref<(Swatch & { was: Swatch['paint'] | null; key: number })[]>(
  drawing.swatches.map((swatch, key) => ({ ...swatch, was: swatch.paint, key })),
);
const list = ref<HTMLElement>();
/** The colour that is dragged to its place. */
const held = ref<number | null>(null);
const users = ref(true);
const fault = ref('');

const isColour = (paint: Swatch['paint'] | null): paint is string => typeof paint === 'string';

function move(at: number, to: number): void {
  const row = rows.value[at];
  if (!row || to < 0 || to >= rows.value.length) return;
  rows.value.splice(at, 1);
  rows.value.splice(to, 0, row);
}

function hold(key: number, event: PointerEvent): void {
  if (event.button !== 0) return;
  list.value!.setPointerCapture(event.pointerId);
  held.value = key;
}

/** Puts the colour in hand where the pointer is. */
function carry(event: PointerEvent): void {
  if (held.value === null) return;
  const at = rows.value.findIndex(({ key }) => key === held.value);
  const boxes = [...list.value!.children].map((each) => each.getBoundingClientRect());
  const over = boxes.findIndex(({ bottom }) => event.clientY < bottom);
  move(at, over < 0 ? boxes.length - 1 : over);
}

function push(row: Swatch): void {
  const key = 1 + Math.max(-1, ...rows.value.map((each) => each.key));
  rows.value.push({ ...row, was: null, key });
}

/** The gradient of the shape that is selected, which can be kept too. */
const gradient = computed(() => gradientOf(selection.only?.node.look.fill));

function keepGradient(): void {
  push({ name: freshName('gradient'), paint: gradient.value as Gradient });
}

function add(): void {
  push({ name: freshName('colour'), paint: '#5B6976' });
}

function freshName(word: string): string {
  const names = rows.value.map((row) => row.name);
  let count = rows.value.length + 1;
  while (names.includes(`${word} ${count}`)) count += 1;
  return `${word} ${count}`;
}

const plain = computed(() => drawing.swatches.filter(({ paint }) => isColour(paint)));
const one = ref(plain.value[0]?.paint as string | undefined);
const other = ref(plain.value[1]?.paint as string | undefined);
const nameOf = (paint: string) => plain.value.find((each) => each.paint === paint)?.name;

async function swap(): Promise<void> {
  await drawing.run({ kind: 'recolour', old: one.value!, new: other.value!, swap: true });
  emit('close');
}

async function allInOne(): Promise<void> {
  await drawing.run({ kind: 'one-colour', colour: one.value! });
  emit('close');
}

async function keep(): Promise<void> {
  const names = rows.value.map((row) => row.name.trim());
  if (names.some((name) => !name)) fault.value = 'Every colour needs a name.';
  else if (new Set(names).size < names.length) fault.value = 'Two colours have the same name.';
  else {
    for (const row of rows.value)
      if (users.value && isColour(row.was) && isColour(row.paint) && row.was !== row.paint)
        await drawing.run({ kind: 'recolour', old: row.was, new: row.paint });
    const swatches = rows.value.map(({ name, paint }) => ({ name: name.trim(), paint }));
    if (JSON.stringify(swatches) !== JSON.stringify(drawing.swatches))
      await drawing.run({ kind: 'set-swatches', swatches });
    emit('close');
  }
}
</script>

<template>
  <v-card class="card" rounded="xl" title="Colours of this drawing">
    <form @submit.prevent="keep">
      <div
        ref="list"
        class="rows"
        @pointermove="carry"
        @pointerup="held = null"
        @pointercancel="held = null"
      >
        <div
          v-for="(row, i) in rows"
          :key="row.key"
          class="row"
          :class="{ held: held === row.key }"
        >
          <button
            type="button"
            class="grip"
            :aria-label="`Move ${row.name}`"
            title="drag to another place, or press an arrow"
            @pointerdown="hold(row.key, $event)"
            @keydown.up.prevent="move(i, i - 1)"
            @keydown.down.prevent="move(i, i + 1)"
          >
            <i /><i /><i />
          </button>
          <label class="swatch" :style="{ background: cssOf(row.paint as Look['fill'])! }">
            <input
              v-if="isColour(row.paint)"
              v-model="row.paint"
              type="color"
              :aria-label="`Colour of ${row.name}`"
            />
          </label>
          <input
            v-model="row.name"
            class="name"
            maxlength="120"
            :aria-label="`Name of colour ${i + 1}`"
          />
          <span class="mono soft">{{
            isColour(row.paint) ? row.paint.toUpperCase() : row.paint.shape
          }}</span>
          <button type="button" :aria-label="`Take ${row.name} out`" @click="rows.splice(i, 1)">
            ×
          </button>
        </div>
      </div>
      <p v-if="fault" role="alert" class="fault">{{ fault }}</p>
      <label class="users">
        <input v-model="users" type="checkbox" /> A changed colour changes all that is painted in it
      </label>
      <div class="all soft">
        in the whole drawing:
        <template v-if="plain.length > 1">
          swap
          <select v-model="one" aria-label="Swap this colour">
            <option v-for="each in plain" :key="each.name" :value="each.paint">
              {{ each.name }}
            </option>
          </select>
          and
          <select v-model="other" aria-label="with this colour">
            <option v-for="each in plain" :key="each.name" :value="each.paint">
              {{ each.name }}
            </option>
          </select>
          <button type="button" :disabled="one === other" @click="swap">swap</button>
        </template>
        <button v-if="one" type="button" @click="allInOne">all in {{ nameOf(one) }}</button>
      </div>
      <div class="foot">
        <v-btn @click="add">Add a colour</v-btn>
        <v-btn v-if="gradient" @click="keepGradient">Keep the gradient</v-btn>
        <v-spacer />
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn color="primary" variant="flat" type="submit">Keep</v-btn>
      </div>
    </form>
  </v-card>
</template>

<style scoped>
.card {
  width: 440px;
}
form {
  display: grid;
  gap: 8px;
  max-height: 70vh;
  padding: 4px 20px 18px;
  overflow-y: auto;
}
.rows {
  display: grid;
  gap: 8px;
}
.row {
  display: flex;
  align-items: center;
  gap: 10px;
}
.swatch {
  position: relative;
  flex: none;
  width: 26px;
  height: 26px;
  border: 1px solid var(--ink);
  border-radius: 50%;
}
.swatch input {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  opacity: 0;
  cursor: pointer;
}
.name {
  flex: 1;
  min-width: 0;
  padding: 4px 8px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
.row button {
  padding: 2px 6px;
}
.grip {
  display: grid;
  gap: 3px;
  cursor: grab;
  touch-action: none;
}
.grip i {
  width: 4px;
  height: 4px;
  border-radius: 50%;
  background: var(--soft);
}
.grip:hover i,
.held .grip i {
  background: var(--ink);
}
.held {
  border-radius: 13px;
  background: #fff;
  box-shadow: 0 0 0 1.5px var(--tide);
}
.all {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.all select {
  padding: 2px 4px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
}
.all button {
  color: var(--tide);
}
.users {
  display: flex;
  gap: 8px;
  color: var(--soft);
}
.fault {
  margin: 0;
  color: #9e331f;
}
.foot {
  display: flex;
  gap: 8px;
  margin-top: 6px;
}
</style>
