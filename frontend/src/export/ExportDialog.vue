<script setup lang="ts">
import { computed, onScopeDispose, reactive, ref, shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { ExportAnswer, ExportChoice, ExportSubject } from '@/api/types';
import ExportOptions from '@/export/ExportOptions.vue';
import { blobOf, dataUri, save, textOf } from '@/export/files';
import type { Exportable } from '@/export/formats';
import { bytes, choiceOf, FORMATS } from '@/export/formats';
import { kept } from '@/export/kept';
import ChoicePill from '@/look/ChoicePill.vue';
import { useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import { useNotices } from '@/stores/notices';

/** Marks as files: chosen, seen with their size, then saved or copied. */
const props = defineProps<{ subjects: readonly Exportable[] }>();
const emit = defineEmits<{ close: [] }>();

const REST_MS = 200;
const SHOWN = 6;

const drawing = useDrawing();
const notices = useNotices();
const options = reactive(kept.options);
const format = ref(kept.format);
const at = ref(0);
const answer = shallowRef<ExportAnswer | null>(null);
const refusal = ref('');

const choice = computed(() => choiceOf(format.value, options));
const fault = computed(() => (typeof choice.value === 'string' ? choice.value : refusal.value));
const whats = computed(() =>
  props.subjects.map((each, value) => ({ value, word: each.word, title: each.word })),
);

const asking = latestWins(
  async ([subject, wanted]: [ExportSubject, ExportChoice], signal) => {
    // What was done a moment ago is to be in the file.
    await drawing.settled();
    return answered<ExportAnswer>(
      client.POST('/api/export', { body: { subject, choice: wanted } as never, signal }),
    );
  },
  (found) => (answer.value = found),
  {
    restMs: REST_MS,
    failed(error) {
      answer.value = null;
      refusal.value = (error as Error).message;
    },
  },
);
watch(
  [format, at, options],
  () => {
    kept.format = format.value;
    refusal.value = '';
    if (typeof choice.value === 'string') asking.cancel();
    else asking.ask([props.subjects[at.value]!.subject, choice.value]);
  },
  { immediate: true },
);
onScopeDispose(asking.cancel);

const ready = computed(() => (!fault.value && !asking.busy.value ? answer.value : null));
/** One PNG is shown as the pixels that it has; all else as it would look at any size. */
const picture = computed(() => {
  if (!answer.value) return '';
  const { media, data, picture: svg } = answer.value;
  return media === 'image/png'
    ? `data:image/png;base64,${data}`
    : `data:image/svg+xml,${encodeURIComponent(svg)}`;
});

function keep(): void {
  if (!ready.value) return;
  save(blobOf(ready.value), ready.value.name);
  notices.say(`${ready.value.name} is being saved.`);
  emit('close');
}

async function copy(what: string, item: () => Promise<ClipboardItem>): Promise<void> {
  try {
    await navigator.clipboard.write([await item()]);
    notices.say(`${what} is on the clipboard.`);
  } catch {
    notices.say('The clipboard cannot be reached; save the file instead.');
  }
}
const text = (said: string) => new ClipboardItem({ 'text/plain': said });
const copyText = () => copy('SVG text', async () => text(await textOf(ready.value!)));
const copyUri = () => copy('A data URI', async () => text(dataUri(await textOf(ready.value!))));
const copyPixels = () =>
  copy('The picture', () =>
    Promise.resolve(new ClipboardItem({ 'image/png': blobOf(ready.value!) })),
  );
</script>

<template>
  <v-card class="card" rounded="xl">
    <form class="choices" @submit.prevent="keep">
      <h2>Export</h2>
      <ChoicePill v-if="whats.length > 1" v-model="at" :options="whats" label="What" />
      <p v-else class="soft">{{ whats[0]?.word }}</p>
      <div class="formats" role="radiogroup" aria-label="Format">
        <button
          v-for="each in FORMATS"
          :key="each.format"
          type="button"
          role="radio"
          class="format"
          :class="{ on: each.format === format }"
          :aria-checked="each.format === format"
          :title="each.says"
          @click="format = each.format"
        >
          {{ each.word }}
        </button>
      </div>
      <p class="soft">{{ FORMATS.find((each) => each.format === format)?.says }}</p>
      <ExportOptions v-model:options="options" :format="format" />
    </form>
    <div class="seen">
      <div class="picture">
        <img v-if="picture && !fault" :src="picture" alt="What is exported" />
      </div>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <template v-else-if="answer">
        <p class="file" role="status">
          <b>{{ answer.name }}</b>
          <span class="mono"> {{ bytes(answer.size) }}</span>
          <span v-if="asking.busy.value" class="soft"> computing…</span>
        </p>
        <ul v-if="answer.files.length > 1" class="mono soft">
          <li v-for="file in answer.files.slice(0, SHOWN)" :key="file.name">
            {{ file.name }} · {{ bytes(file.size) }}
          </li>
          <li v-if="answer.files.length > SHOWN">and {{ answer.files.length - SHOWN }} more</li>
        </ul>
        <ul v-if="answer.notes.length" class="notes">
          <li v-for="note in answer.notes.slice(0, SHOWN)" :key="note">{{ note }}</li>
          <li v-if="answer.notes.length > SHOWN">and {{ answer.notes.length - SHOWN }} more</li>
        </ul>
      </template>
      <p v-else class="soft" role="status">computing…</p>
      <div class="row">
        <template v-if="ready?.media === 'image/svg+xml' && format === 'svg'">
          <v-btn size="small" @click="copyText">Copy text</v-btn>
          <v-btn size="small" @click="copyUri">Copy data URI</v-btn>
        </template>
        <v-btn v-if="ready?.media === 'image/png'" size="small" @click="copyPixels">
          Copy picture
        </v-btn>
        <span class="gap" />
        <v-btn @click="emit('close')">Close</v-btn>
        <v-btn color="primary" variant="flat" :disabled="!ready" @click="keep">Save</v-btn>
      </div>
    </div>
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: 380px 440px;
  height: 610px;
  max-height: 92vh;
}
.choices {
  display: flex;
  flex-direction: column;
  gap: 12px;
  align-items: stretch;
  padding: 20px 22px;
  border-right: 1px solid var(--rule);
}
.choices .pill {
  align-self: start;
}
h2 {
  font-size: 17px;
}
p {
  margin: 0;
}
.formats {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 6px;
}
.format {
  padding: 7px 4px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
}
.format:hover {
  border-color: var(--soft);
}
.format.on {
  border-color: var(--clay);
  box-shadow: 0 0 0 1px var(--clay);
}
.seen {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-width: 0;
  min-height: 0;
  padding: 20px 22px;
  overflow-y: auto;
}
.picture {
  display: grid;
  place-items: center;
  min-height: 0;
  flex: 0 0 290px;
  padding: 14px;
  border-radius: 18px;
  background: repeating-conic-gradient(#e9e3d6 0 25%, #fbf7ef 0 50%) 0 0 / 20px 20px;
}
img {
  max-width: 100%;
  max-height: 100%;
  min-height: 0;
  object-fit: contain;
}
img[src^='data:image/svg'] {
  width: 100%;
  height: 100%;
}
.file {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  align-items: baseline;
  overflow-wrap: anywhere;
}
.fault {
  color: #9e331f;
}
ul {
  margin: 0;
  padding-left: 18px;
}
.notes {
  color: #7d5510;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-top: auto;
}
.gap {
  flex: 1;
}
</style>
