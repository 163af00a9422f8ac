<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue';

import client, { answered } from '@/api/client';
import type { KitAnswer, SharedState } from '@/api/types';
import { attempt } from '@/stores/attempt';
import { useNotices } from '@/stores/notices';
import { useShelf } from '@/stores/shelf';

/** The studio's shared shelf: what others published, and what one publishes oneself. */
const emit = defineEmits<{ close: [] }>();

type Shared = SharedState['collections'][number];

const shelf = useShelf();
const notices = useNotices();
const state = shallowRef<SharedState | null>(null);
const collection = ref<string | null>(shelf.collections[0]?.id ?? null);
const version = ref('1.0');
const busy = ref(false);
/** A collection whose name is on the shelf already, and waits for what becomes of that. */
const asked = shallowRef<Shared | null>(null);

const newest = (each: Shared) => each.versions.at(-1)!;

async function load(): Promise<void> {
  state.value = await attempt(() => answered<SharedState>(client.GET('/api/shared')));
}
onMounted(load);

async function publish(): Promise<void> {
  if (!collection.value) return;
  busy.value = true;
  const body = { collection: collection.value, version: version.value.trim() };
  const done = await attempt(async () => {
    await answered(client.POST('/api/shared/publish', { body }));
    return true;
  });
  busy.value = false;
  if (done) notices.say('It is published.');
  await load();
}

async function fetchIt(
  each: Shared,
  whenThere: 'replace' | 'keep both' | null = each.have ? 'replace' : null,
): Promise<void> {
  busy.value = true;
  asked.value = null;
  const body = { name: each.name, version: newest(each), when_there: whenThere };
  const answer = await attempt(() =>
    answered<KitAnswer>(client.POST('/api/shared/fetch', { body })),
  );
  busy.value = false;
  if (answer && !answer.loaded) asked.value = each;
  if (!answer?.loaded) return;
  await attempt(shelf.load);
  notices.say(`${each.name} ${newest(each)} is on the shelf.`);
  await load();
}
</script>

<template>
  <v-card class="card" rounded="xl" title="Shared shelf">
    <div class="body">
      <p v-if="state && !state.address" class="soft">
        There is none yet. <code>dotstack shared-shelf</code> serves one; Dot Stack is told of it by
        <code>--shared-shelf</code> and its address.
      </p>
      <template v-else-if="state">
        <p class="soft mono">{{ state.address }}</p>
        <p v-if="!state.collections.length" class="soft">Nothing has been published yet.</p>
        <div v-for="each in state.collections" :key="each.name" class="line">
          <b>{{ each.name }}</b>
          <span class="mono soft">{{ newest(each) }}</span>
          <span class="gap" />
          <span v-if="each.have === newest(each)" class="have">on your shelf</span>
          <template v-else-if="asked === each">
            <v-btn size="small" @click="fetchIt(each, 'keep both')">Keep both</v-btn>
            <v-btn size="small" variant="outlined" @click="fetchIt(each, 'replace')">
              Replace mine
            </v-btn>
          </template>
          <v-btn v-else size="small" variant="outlined" :disabled="busy" @click="fetchIt(each)">
            {{ each.have ? `Update from ${each.have}` : 'Fetch' }}
          </v-btn>
        </div>
        <form v-if="shelf.collections.length" class="publish" @submit.prevent="publish">
          <v-select
            v-model="collection"
            label="Collection"
            :items="shelf.collections"
            item-title="name"
            item-value="id"
          />
          <v-text-field v-model="version" label="Version" maxlength="40" />
          <v-btn type="submit" variant="outlined" :disabled="busy">Publish</v-btn>
        </form>
      </template>
      <p v-else class="soft">It is asked, or cannot be reached.</p>
      <div class="row">
        <v-btn @click="emit('close')">Close</v-btn>
      </div>
    </div>
  </v-card>
</template>

<style scoped>
.card {
  width: 520px;
}
.body {
  display: grid;
  gap: 12px;
  padding: 0 24px 18px;
}
p {
  margin: 0;
  line-height: 1.5;
}
.line,
.row,
.publish {
  display: flex;
  gap: 10px;
  align-items: center;
}
.gap {
  flex: 1;
}
.have {
  color: var(--moss);
}
.publish {
  padding-top: 12px;
  border-top: 1px solid var(--rule);
}
.publish > :nth-child(2) {
  max-width: 120px;
}
.row {
  justify-content: flex-end;
}
</style>
