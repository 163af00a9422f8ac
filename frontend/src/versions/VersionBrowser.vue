<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue';

import type { HistoryState } from '@/api/types';
import InSight from '@/look/InSight.vue';
import PathPicture from '@/look/PathPicture.vue';
import { when } from '@/look/when';
import { useHistory } from '@/versions/useHistory';

/** All states of the drawing as pictures: name one, go back to one, begin anew from one. */
const emit = defineEmits<{ close: [] }>();

const { history, states, chosen, current, pictures, wantPicture, name, forget, goBack, duplicate } =
  useHistory();
const list = ref<HTMLElement>();
const words = ref('');

const isVersion = (state: HistoryState) => !/^\d/.test(state.id);
const undone = (state: HistoryState) =>
  !isVersion(state) && state.number > (history.value?.position ?? 0);
const isNow = (state: HistoryState) =>
  !isVersion(state) && state.number === history.value?.position;
const picture = computed(() => pictures.get(chosen.value));
const box = (of: { width: number; height: number }) => ({
  x0: 0,
  y0: 0,
  x1: of.width,
  y1: of.height,
});

watch(chosen, (state) => state && wantPicture(state));
watch(current, (state, before) => {
  // What was typed before the states had come stays.
  if (before) words.value = state && isVersion(state) ? state.label : '';
});

async function step(by: number): Promise<void> {
  const at = states.value.findIndex((state) => state.id === chosen.value);
  chosen.value = states.value[Math.min(Math.max(at + by, 0), states.value.length - 1)]?.id ?? '';
  await nextTick();
  list.value?.querySelector<HTMLElement>('[aria-selected=true]')?.focus();
}

async function back(): Promise<void> {
  if (current.value && (await goBack(current.value.id))) emit('close');
}

async function keep(): Promise<void> {
  if (words.value.trim()) await name(chosen.value, words.value.trim());
}
</script>

<template>
  <v-card class="card" rounded="xl">
    <div
      ref="list"
      class="list"
      role="listbox"
      aria-label="States"
      @keydown.down.prevent="step(1)"
      @keydown.up.prevent="step(-1)"
    >
      <template v-for="(state, i) in states" :key="state.id">
        <h3 v-if="i === 0 && isVersion(state)">Named states</h3>
        <h3 v-if="!isVersion(state) && (i === 0 || isVersion(states[i - 1]!))">Steps</h3>
        <button
          role="option"
          class="state"
          :class="{ on: state.id === chosen, undone: undone(state) }"
          :aria-selected="state.id === chosen"
          :tabindex="state.id === chosen ? 0 : -1"
          @click="chosen = state.id"
          @dblclick="back"
        >
          <InSight class="small" @near="wantPicture(state.id)">
            <PathPicture
              v-if="pictures.has(state.id)"
              :pieces="pictures.get(state.id)!.pieces"
              :box="box(pictures.get(state.id)!)"
            />
          </InSight>
          <span class="said">
            <b v-if="isVersion(state)">{{ state.label }}</b>
            <template v-else>{{ state.label }}</template>
            <br />
            <span class="soft">
              {{ isVersion(state) ? `after step ${state.number}` : state.number || 'at first' }} ·
              {{ when(state.made_at) }}
              <template v-if="isNow(state)"> · <b class="now">now</b></template>
              <template v-if="undone(state)"> · undone</template>
            </span>
          </span>
        </button>
      </template>
    </div>
    <div class="chosen">
      <h2>Versions</h2>
      <p class="soft">
        Every step is kept. Going back is a step too: what came after stays in this list.
      </p>
      <div class="plate">
        <span v-if="picture" class="caption mono">{{ picture.name }}</span>
        <PathPicture
          v-if="picture"
          :pieces="picture.pieces"
          :box="box(picture)"
          :style="{ background: picture.background ?? undefined }"
        />
      </div>
      <form class="row" @submit.prevent="keep">
        <input
          v-model="words"
          class="field"
          maxlength="120"
          :aria-label="current && isVersion(current) ? 'Its name' : 'A name for this state'"
          placeholder="A name for this state"
        />
        <v-btn type="submit" variant="outlined" :disabled="!words.trim() || !current">
          {{ current && isVersion(current) ? 'Rename' : 'Name this state' }}
        </v-btn>
        <v-btn
          v-if="current && isVersion(current)"
          title="The step stays, if it is still there"
          @click="forget(current.id)"
        >
          Forget the name
        </v-btn>
      </form>
      <div v-if="current" class="row end">
        <v-btn @click="emit('close')">Close</v-btn>
        <v-btn variant="outlined" @click="duplicate(current)">New drawing from here</v-btn>
        <v-btn color="primary" variant="flat" :disabled="isNow(current)" @click="back">
          Go back to this
        </v-btn>
      </div>
    </div>
  </v-card>
</template>

<style scoped>
.card {
  display: grid;
  grid-template-columns: 310px minmax(0, 1fr);
  width: min(1080px, 94vw);
  height: min(680px, 90vh);
}
.list {
  overflow-y: auto;
  padding: 14px 10px;
  border-right: 1px solid var(--rule);
}
h3 {
  margin: 10px 8px 6px;
  font-size: 13px;
}
.state {
  display: flex;
  gap: 12px;
  align-items: center;
  width: 100%;
  padding: 5px 8px;
  border-radius: 14px;
  text-align: left;
  line-height: 1.35;
}
.state:hover,
.on {
  background: var(--chosen);
}
.undone {
  opacity: 0.75;
}
.small {
  flex: none;
  width: 52px;
  height: 52px;
  padding: 3px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
}
.small svg {
  width: 100%;
  height: 100%;
}
.said {
  min-width: 0;
  overflow-wrap: anywhere;
}
.said .soft {
  font-size: 12px;
}
.now {
  color: var(--moss);
}
.chosen {
  display: flex;
  flex-direction: column;
  gap: 12px;
  min-height: 0;
  padding: 20px 22px;
}
.chosen h2 {
  font-size: 17px;
}
.chosen p {
  margin: 0;
}
.plate {
  flex: 1;
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 6px;
  min-height: 0;
  padding: 10px 16px 16px;
  border-radius: 18px;
  background: var(--desk);
}
.caption {
  justify-self: start;
}
.plate svg {
  width: 100%;
  height: 100%;
  min-height: 0;
}
.row {
  display: flex;
  gap: 8px;
  align-items: center;
}
.end {
  justify-content: flex-end;
}
.field {
  flex: 1;
  padding: 7px 12px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
}
</style>
