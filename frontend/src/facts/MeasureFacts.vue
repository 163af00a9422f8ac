<script setup lang="ts">
import { computed, provide, ref } from 'vue';

import NumberField from '@/fields/NumberField.vue';
import { FOLLOWED } from '@/fields/followed';
import { defined } from '@/marks/arithmetic';
import { commandOf } from '@/marks/commands';
import { useDrawing } from '@/stores/drawing';
import { useMeasures } from '@/stores/measures';
import { useSelection } from '@/stores/selection';

/** The measures of the drawing: each with its value, dragged live, and where it is used. */
/** What a measure is that nobody has typed a value for. */
const FIRST = '8';

const drawing = useDrawing();
const selection = useSelection();
const measures = useMeasures();

const fresh = ref('');
const fault = ref('');
const renaming = ref<string | null>(null);

provide(FOLLOWED, ([name]) => ({
  text() {
    const text = drawing.measures.find((measure) => measure.name === name)?.text ?? '';
    return /^[\d.,-]*$/.test(text) ? null : text;
  },
  take: async (text, makes) =>
    (makes && (await measures.set(makes.name, makes.text))) || measures.set(name!, text),
}));

const rows = computed(() =>
  drawing.measures.map((measure) => ({
    ...measure,
    count: measures.countOf(measure.name),
    users: measures.usersOf(measure.name),
  })),
);

function set(name: string, value: number) {
  return commandOf('set-measure', { measure: { name, text: String(value) } });
}

function look(name: string, value: number | null): void {
  if (value === null) drawing.stopPreview();
  else drawing.look(set(name, value));
}

async function add(): Promise<void> {
  const { name, text } = defined(fresh.value) ?? { name: fresh.value.trim(), text: '' };
  const taken = name in measures.values;
  fault.value = taken
    ? `${name} is there already.`
    : ((await measures.set(name, text || FIRST)) ?? '');
  if (!fault.value) fresh.value = '';
}

async function rename(name: string, event: Event): Promise<void> {
  const next = (event.target as HTMLInputElement).value.trim();
  if (renaming.value !== name) return;
  renaming.value = null;
  if (!next || next === name) return;
  const refused = await measures.attempt(commandOf('rename-measure', { name, new_name: next }));
  fault.value = refused ?? '';
}

async function remove(name: string): Promise<void> {
  fault.value = (await measures.attempt(commandOf('remove-measure', { name }))) ?? '';
}

const saysUse = (count: number, { measures: others }: { measures: string[] }) =>
  [count ? `${count} ${count === 1 ? 'shape' : 'shapes'}` : '', ...others]
    .filter(Boolean)
    .join(', ');
</script>

<template>
  <section>
    <h3>Measures</h3>
    <p v-if="!rows.length" class="soft note">
      A number under a name, for any field: type <b class="mono">gap = 3</b> in one, or name it
      here. What uses it moves along.
    </p>
    <div v-for="{ name, value, count, users } in rows" :key="name" class="row">
      <input
        v-if="renaming === name"
        class="name"
        :value="name"
        maxlength="40"
        :aria-label="`New name of ${name}`"
        @vue:mounted="({ el }: { el: HTMLInputElement }) => el.select()"
        @keydown.enter="rename(name, $event)"
        @keydown.esc.stop="renaming = null"
        @blur="rename(name, $event)"
      />
      <NumberField
        v-else
        :label="name"
        :says="`the measure ${name}`"
        :value="value"
        :path="name"
        @change="drawing.run(set(name, $event))"
        @look="look(name, $event)"
      />
      <p class="uses soft">
        <button
          v-if="users.shapes.length"
          :title="`Select what uses ${name} on this plate`"
          @click="selection.pick(...users.shapes)"
        >
          {{ saysUse(count, users) }}
        </button>
        <span v-else>{{ saysUse(count, users) || 'not used yet' }}</span>
        <button :aria-label="`Rename ${name}`" @click="renaming = name">rename</button>
        <button :aria-label="`Remove ${name}`" @click="remove(name)">remove</button>
      </p>
    </div>
    <form class="add" @submit.prevent="add">
      <input
        v-model="fresh"
        placeholder="gap = 3"
        maxlength="250"
        aria-label="Name of a new measure"
      />
      <button :disabled="!fresh.trim()">add measure</button>
    </form>
    <p v-if="fault" role="alert" class="fault">{{ fault }}</p>
  </section>
</template>

<style scoped>
.row {
  margin-top: 4px;
}
.uses {
  display: flex;
  gap: 10px;
  margin: 2px 2px 0;
  font-size: 11.5px;
}
.uses :first-child {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.uses button:hover {
  color: var(--ink);
  text-decoration: underline;
}
.add {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
input {
  flex: 1;
  min-width: 0;
  padding: 3px 8px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
.add button {
  color: var(--tide);
}
.add button:disabled {
  color: var(--soft);
}
.fault {
  margin: 6px 2px 0;
  color: #9e331f;
  font-size: 12px;
}
</style>
