<script setup lang="ts">
import { computed } from 'vue';

import type { Node } from '@/api/types';
import { useActions } from '@/stores/actions';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useTwins } from '@/stores/twins';

/** What a twin follows, and what it has of its own; of a shape inside one, whom a change is for. */
const drawing = useDrawing();
const selection = useSelection();
const twins = useTwins();
const { actions } = useActions();

const row = computed(() => selection.only);
const source = computed(() => row.value && twins.sourceOf(row.value));
const name = computed(() => (source.value ? twins.nameOf(source.value) : ''));
/** What it is a copy of, or lies in one of, where that is a repeat. */
const repeat = computed(() => row.value && twins.repeatOf(row.value)?.node);
const isTwin = computed(() => row.value?.node.kind === 'twin');
const word = computed(() => (repeat.value ? 'copy' : 'twin'));
const many = computed(() => (repeat.value ? 'copies' : 'twins'));
const title = computed(() =>
  isTwin.value ? (repeat.value ? 'Copy' : 'Twin') : `In every ${word.value}`,
);
const count = computed(() => (source.value ? twins.of(source.value).length : 0));

/** What is its own, in words. */
const own = computed(() => {
  const found = row.value ? twins.ownOf(row.value) : [];
  const said = new Set<string>(found.flatMap(({ fields }) => fields));
  // How lines are resized is no word of the interface.
  if (said.delete('grows')) said.add('growing');
  if (found.some(({ hidden }) => hidden)) said.add('hidden');
  if (isTwin.value && isWholeOwn(row.value!.node)) said.add('effects');
  return [...said].join(', ');
});

/** Whether something is done with the whole of a twin. */
function isWholeOwn({ look }: Node): boolean {
  const { opacity, blend, shadows, depth } = look;
  return opacity !== 1 || blend !== 'normal' || shadows.length > 0 || depth !== null;
}

function rename(event: Event): void {
  const typed = (event.target as HTMLInputElement).value.trim();
  if (typed && typed !== name.value)
    void drawing.do('rename-source', { source: source.value!, name: typed.slice(0, 120) });
}
</script>

<template>
  <section v-if="source || repeat" aria-label="Twin">
    <h3>{{ title }}</h3>
    <label v-if="source" class="source">
      <span class="soft">of</span>
      <input :value="name" aria-label="Name of the source" maxlength="120" @change="rename" />
    </label>
    <p class="soft note">
      <template v-if="isTwin && repeat">
        What is changed inside it is changed in all copies of {{ repeat.name }}. Painted, it keeps
        that; Delete leaves it out.
      </template>
      <template v-else-if="isTwin">
        {{ count === 1 ? 'The only one on this plate' : `One of ${count} on this plate` }}. Whatever
        is changed inside one is changed in all; place, turn and size are its own.
      </template>
      <template v-else-if="twins.onlyHere">
        Paint and hiding are for this {{ word }} alone; all else is for all.
      </template>
      <template v-else>What is changed here is changed in all {{ many }}.</template>
    </p>
    <div v-if="!isTwin" class="choice" role="group" aria-label="Paint and hide">
      <button :aria-pressed="!twins.onlyHere" @click="twins.onlyHere = false">
        in all {{ many }}
      </button>
      <button :aria-pressed="twins.onlyHere" @click="twins.onlyHere = true">
        only in this one
      </button>
    </div>
    <p v-if="own" class="own">
      <span>its own: {{ own }}</span>
      <button title="as all others have it" @click="actions.followAgain.run()">follow again</button>
    </p>
    <div v-if="isTwin && !repeat" class="acts">
      <button @click="actions.allTwins.run()">all twins</button>
      <button @click="actions.makeTwin.run()">one more</button>
      <button title="make a plain shape of it" @click="actions.freeTwins.run()">free it</button>
    </div>
  </section>
</template>

<style scoped>
.source {
  display: flex;
  align-items: baseline;
  gap: 8px;
  margin-top: 4px;
}
.source input {
  flex: 1;
  min-width: 0;
  padding: 2px 8px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
.choice {
  display: flex;
  gap: 4px;
  margin-top: 8px;
}
.choice button {
  flex: 1;
  padding: 3px 6px;
  border: 1px solid var(--rule);
  border-radius: 12px;
}
.choice button[aria-pressed='true'] {
  border-color: var(--tide);
  background: var(--chosen);
}
.own {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  margin: 8px 0 0;
}
.own button,
.acts button {
  color: var(--tide);
}
.acts {
  display: flex;
  gap: 14px;
  margin-top: 8px;
}
</style>
