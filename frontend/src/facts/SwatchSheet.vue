<script setup lang="ts">
import { ref } from 'vue';

import type { Swatch } from '@/api/types';
import { useDrawing } from '@/stores/drawing';

/** The drawing's own colours: add, name, order, change; with their users, if that is wanted. */
const emit = defineEmits<{ close: [] }>();

const drawing = useDrawing();
const rows = ref<(Swatch & { was: string | null })[]>(
  drawing.swatches.map((swatch) => ({ ...swatch, was: swatch.colour })),
);
const users = ref(true);
const fault = ref('');

function move(at: number, by: number): void {
  const next = [...rows.value];
  const [row] = next.splice(at, 1);
  next.splice(at + by, 0, row!);
  rows.value = next;
}

function add(): void {
  const names = rows.value.map((row) => row.name);
  let count = rows.value.length + 1;
  while (names.includes(`colour ${count}`)) count += 1;
  rows.value.push({ name: `colour ${count}`, colour: '#5B6976', was: null });
}

async function keep(): Promise<void> {
  const names = rows.value.map((row) => row.name.trim());
  if (names.some((name) => !name)) fault.value = 'Every colour needs a name.';
  else if (new Set(names).size < names.length) fault.value = 'Two colours have the same name.';
  else {
    for (const row of rows.value)
      if (users.value && row.was && row.was !== row.colour)
        await drawing.run({ kind: 'recolour', old: row.was, new: row.colour });
    const swatches = rows.value.map(({ name, colour }) => ({ name: name.trim(), colour }));
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
        <label class="swatch" :style="{ background: row.colour }">
          <input v-model="row.colour" type="color" :aria-label="`Colour of ${row.name}`" />
        </label>
        <input
          v-model="row.name"
          class="name"
          maxlength="120"
          :aria-label="`Name of colour ${i + 1}`"
        />
        <span class="mono soft">{{ row.colour.toUpperCase() }}</span>
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
      <div class="foot">
        <v-btn @click="add">Add a colour</v-btn>
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
