<script setup lang="ts">
import { computed, ref } from 'vue';

import { RefusedError } from '@/api/client';
import { vFirst } from '@/fields/first';
import ChoicePill from '@/look/ChoicePill.vue';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';

/** Keeps shapes, or a whole plate, on the shelf: as one asset, each as one, or in place of one. */
const props = defineProps<{ plate?: string }>();
const emit = defineEmits<{ close: [] }>();

type How = 'one' | 'each' | 'update';

const drawing = useDrawing();
const selection = useSelection();
const shelf = useShelf();
const notices = useNotices();

const ids = props.plate ? [...(drawing.heads[props.plate]?.nodes ?? [])] : [...selection.ids];
const first = drawing.nodes[ids[0] ?? ''];
const suggestion = props.plate
  ? drawing.heads[props.plate]!.name
  : (selection.only?.node.name ?? first?.name ?? '');
const origin = selection.only?.node.origin?.asset ?? null;

const how = ref<How>('one');
const name = ref(suggestion);
const tags = ref<string[]>([]);
const section = ref<string | null>(null);
const asset = ref<string | null>(origin);
/** On an empty shelf: what is made for it. */
const fresh = ref({ collection: 'My marks', section: 'All' });
const fault = ref('');

const choices = computed(() => [
  { value: 'one' as How, word: 'one asset', title: 'all of it together, under one name' },
  ...(ids.length > 1
    ? [{ value: 'each' as How, word: `${ids.length} assets`, title: 'each under its own name' }]
    : []),
  ...(shelf.assets.length && !props.plate
    ? [{ value: 'update' as How, word: 'update one', title: 'in the place of an asset there' }]
    : []),
]);
const known = computed(() =>
  shelf.sections.flatMap((each) =>
    each.assets.map((one) => ({ id: one.id, title: `${each.title} · ${one.name}` })),
  ),
);

const loading = shelf
  .load()
  .then(() => (section.value ??= shelf.sections[0]?.id ?? null))
  .catch((error: Error) => (fault.value = error.message));

/** The section that is chosen; on an empty shelf a new one of a new collection. */
async function sectionFor(): Promise<string | null> {
  if (shelf.sections.length) return section.value;
  const { collection, section: named } = fresh.value;
  if (!collection.trim() || !named.trim()) return null;
  const added = { name: collection.trim(), sections: [named.trim()] };
  const done = await shelf.change({ kind: 'add-collection', ...added });
  return done ? (shelf.sections.at(-1)?.id ?? null) : null;
}

async function keep(): Promise<string> {
  if (how.value === 'update') {
    await shelf.update(asset.value!, drawing.id, ids);
    const fresh = shelf.assets.find((each) => each.id === asset.value);
    return `${fresh?.name ?? 'The asset'} has a new mark; placed copies stay as they are.`;
  }
  const one = how.value === 'one' ? name.value.trim() : null;
  await shelf.put({
    drawing: drawing.id,
    ...(props.plate ? { plate: props.plate } : { ids }),
    section: section.value!,
    name: one,
    tags: tags.value.map((tag) => tag.trim()).filter(Boolean),
  });
  return one ? `${one} is on the shelf.` : `${ids.length} assets are on the shelf.`;
}

async function put(): Promise<void> {
  await loading;
  if (how.value === 'one' && !name.value.trim()) fault.value = 'A name is wanted.';
  else if (how.value !== 'update' && !(section.value = await sectionFor()))
    fault.value = 'A collection and a section are wanted.';
  else if (how.value === 'update' && !asset.value) fault.value = 'Choose the asset to update.';
  else
    try {
      notices.say(await keep());
      emit('close');
    } catch (error) {
      fault.value = error instanceof RefusedError ? error.message : 'The shelf cannot be reached.';
    }
}
</script>

<template>
  <v-card class="card" rounded="xl" title="Put on shelf">
    <form @submit.prevent="put">
      <ChoicePill v-if="choices.length > 1" v-model="how" :options="choices" label="As" />
      <v-text-field
        v-if="how === 'one'"
        v-model="name"
        v-first
        label="Name"
        maxlength="120"
        :error-messages="fault"
        @focus="($event.target as HTMLInputElement).select()"
        @update:model-value="fault = ''"
      />
      <p v-else-if="fault" role="alert" class="fault">{{ fault }}</p>
      <template v-if="how === 'update'">
        <v-autocomplete v-model="asset" label="Asset" :items="known" item-value="id" />
        <p class="soft">Drawings that hold copies of it are told, and stay as they are.</p>
      </template>
      <template v-else>
        <v-select
          v-if="shelf.sections.length || !shelf.loaded"
          v-model="section"
          label="Section"
          :items="shelf.sections"
          item-value="id"
        />
        <template v-else>
          <p class="soft">The shelf is empty: this makes a collection on it.</p>
          <v-text-field v-model="fresh.collection" label="Collection" maxlength="120" />
          <v-text-field v-model="fresh.section" label="Section" maxlength="120" />
        </template>
        <v-combobox
          v-model="tags"
          label="Tags"
          :items="shelf.tags"
          multiple
          chips
          closable-chips
          hide-selected
          :delimiters="[',', ' ']"
        />
      </template>
      <div class="ends">
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn color="primary" variant="flat" type="submit">
          {{ how === 'update' ? 'Update' : 'Put on shelf' }}
        </v-btn>
      </div>
    </form>
  </v-card>
</template>

<style scoped>
.card {
  width: 400px;
}
form {
  display: grid;
  gap: 14px;
  padding: 4px 20px 18px;
}
form > .pill {
  justify-self: start;
}
p {
  margin: 0;
}
.fault {
  color: #9e331f;
}
.ends > * {
  flex: none;
}
</style>
