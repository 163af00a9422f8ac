<script setup lang="ts">
import { computed } from 'vue';

import type { Node } from '@/api/types';
import { commandOf } from '@/marks/commands';
import ColourField from '@/fields/ColourField.vue';
import ExpressionField from '@/fields/ExpressionField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import { useActions } from '@/stores/actions';
import { useDrawing } from '@/stores/drawing';
import { useMeasures } from '@/stores/measures';

/** What the copies of a repeat come to, how they stand, and which are left out. */
type Repeat = Extract<Node, { kind: 'repeat' }>;
const props = defineProps<{ node: Repeat }>();

const TAKES = [
  { value: 'each', word: 'each', icon: 'M4 8h10v10H4zM12 4h10v10H12z' },
  { value: 'join', word: 'joined', icon: 'M4 8h8V4h10v10h-8v4H4z' },
  { value: 'alternate', word: 'alternated', icon: 'M4 8h8v6h2v4H4zM12 4h10v10h-8V8h-2z' },
  { value: 'overlap', word: 'overlapped', icon: 'M9 6h8v10H9z' },
] as const;

const drawing = useDrawing();
const { actions } = useActions();
const measures = useMeasures();

const layout = computed(() => props.node.layout);

function set(fields: Partial<Pick<Repeat, 'takes' | 'layout'>>): void {
  void drawing.do('set-repeat', { id: props.node.id, ...fields });
}

/** What changes from copy to copy, as an expression; answers why not, if it is refused. */
const vary = (what: 'size' | 'opacity') => (text: string) =>
  measures.attempt(commandOf('vary-copies', { id: props.node.id, [what]: text }));

function setUpright(event: Event): void {
  const upright = (event.target as HTMLInputElement).checked;
  if ('upright' in layout.value) set({ layout: { ...layout.value, upright } });
}
</script>

<template>
  <section>
    <h3>Copies come as</h3>
    <div class="takes" role="group" aria-label="Copies come as">
      <button
        v-for="{ value, word, icon } in TAKES"
        :key="value"
        :aria-pressed="node.takes === value"
        @click="set({ takes: value })"
      >
        <svg viewBox="0 0 26 22" aria-hidden="true"><path :d="icon" /></svg>
        {{ word }}
      </button>
    </div>
    <label v-if="'upright' in layout" class="upright">
      <input type="checkbox" :checked="layout.upright" @change="setUpright" />
      upright, not turned with their place
    </label>
    <div v-if="layout.kind === 'row'" class="kept">
      <span class="soft">keeps its</span>
      <ChoicePill
        label="What a row keeps"
        :model-value="layout.clear ? 'gaps' : 'steps'"
        :options="[
          { value: 'steps', word: 'steps', title: 'From each copy to the next' },
          { value: 'gaps', word: 'clear gaps', title: 'Between the copies, whatever their size' },
        ]"
        @update:model-value="drawing.do('space-row', { id: node.id, clear: $event === 'gaps' })"
      />
    </div>
    <template v-if="layout.kind === 'along'">
      <p v-if="node.line" class="soft note">
        Along {{ node.line.name }}, which stays live inside; a step of 0 spreads them evenly.
      </p>
      <button v-if="node.line" class="off" title="Shift+Q" @click="actions.takeOffLine.run()">
        Take off the line
      </button>
    </template>
    <p v-else-if="layout.kind !== 'mirror'" class="soft note">
      Select a shape too, and press Shift+Q: the copies stand along its outline.
    </p>
    <h3 class="varied">From copy to copy</h3>
    <ExpressionField
      v-if="'size' in layout"
      label="size of each"
      example="e.g. 1 + n / 6"
      says="How large each copy is; n is its number, count how many there are"
      :text="layout.size"
      :take="vary('size')"
    />
    <ExpressionField
      label="opacity of each"
      example="e.g. 1 - n / 10"
      says="How opaque each copy is; n is its number, count how many there are"
      :text="layout.opacity"
      :take="vary('opacity')"
    />
    <template v-if="node.takes === 'each'">
      <p class="soft note">Fills turn to that of the last copy:</p>
      <ColourField
        :fill="layout.last_fill ?? null"
        label="Fill of the last"
        none
        @choose="drawing.do('vary-copies', { id: node.id, last_fill: $event ?? '' })"
      />
    </template>
    <p v-if="node.left_out.length" class="out">
      <span>{{ node.left_out.length }} left out</span>
      <button @click="drawing.do('bring-back', { id: node.id })">bring back</button>
    </p>
    <p class="soft note">
      Go in by a double click: what is changed in one copy is changed in all, what is painted or
      removed is that one alone.
    </p>
  </section>
</template>

<style scoped>
.takes {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
  margin-top: 6px;
}
.takes button {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 8px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  font-size: 12px;
}
.takes button[aria-pressed='true'] {
  border-color: var(--tide);
  background: var(--chosen);
}
.takes svg {
  flex: none;
  width: 22px;
  fill: var(--moss);
  fill-opacity: 0.35;
  stroke: var(--moss);
  stroke-width: 1.4;
}
.upright {
  display: flex;
  align-items: center;
  gap: 7px;
  margin-top: 8px;
}
.kept {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 8px;
}
.varied {
  margin-top: 12px;
}
.off {
  color: var(--tide);
}
.out {
  display: flex;
  justify-content: space-between;
  margin: 8px 0 0;
}
.out button {
  color: var(--tide);
}
</style>
