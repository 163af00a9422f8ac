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
const rows = ref<(Swatch & { was: Swatch['paint'] | null })[]>(
  drawing.swatches.map((swatch) => ({ ...swatch, was: swatch.paint })),
);
const users = ref(true);
const fault = ref('');

const isColour = (paint: Swatch['paint'] | null): paint is string => typeof paint === 'string';

function move(at: number, by: number): void {
  const next = [...rows.value];
  const [row] = next.splice(at, 1);
  next.splice(at + by, 0, row!);
  rows.value = next;
}

/** The gradient of the shape that is selected, which can be kept too. */
const gradient = computed(() => gradientOf(selection.only?.node.look.fill));

function keepGradient(): void {
  rows.value.push({ name: freshName('gradient'), paint: gradient.value as Gradient, was: null });
}

function add(): void {
  rows.value.push({ name: freshName('colour'), paint: '#5B6976', was: null });
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
      <div v-for="(row, i) in rows" :key="i" class="row">
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
        <button type="button" :disabled="!i" :aria-label="`${row.name} up`" @click="move(i, -1)">
          ↑
        </button>
        <button
          type="button"
          :disabled="i === rows.length - 1"
          :aria-label="`${row.name} down`"
          @click="move(i, 1)"
        >
          ↓
        </button>
        <button type="button" :aria-label="`Take ${row.name} out`" @click="rows.splice(i, 1)">
          ×
        </button>
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
.row button:disabled {
  opacity: 0.3;
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
