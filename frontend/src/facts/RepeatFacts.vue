<script setup lang="ts">
import { computed } from 'vue';

import type { Node } from '@/api/types';
import NumberField from '@/fields/NumberField.vue';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** What the copies of a repeat come to, the clear gaps between them, and which are left out. */
type Repeat = Extract<Node, { kind: 'repeat' }>;
const props = defineProps<{ node: Repeat }>();

const TAKES = [
  { value: 'each', word: 'each', icon: 'M4 8h10v10H4zM12 4h10v10H12z' },
  { value: 'join', word: 'joined', icon: 'M4 8h8V4h10v10h-8v4H4z' },
  { value: 'alternate', word: 'alternated', icon: 'M4 8h8v6h2v4H4zM12 4h10v10h-8V8h-2z' },
  { value: 'overlap', word: 'overlapped', icon: 'M9 6h8v10H9z' },
] as const;

const drawing = useDrawing();
const selection = useSelection();

const layout = computed(() => props.node.layout);
/** The box of what is repeated, as the first copy that is there has it. */
const size = computed(() => {
  const first = props.node.copies[0];
  return first && selection.figureById.get(first.id);
});

function set(fields: Partial<Pick<Repeat, 'takes' | 'layout'>>): void {
  void drawing.do('set-repeat', { id: props.node.id, ...fields });
}

function setStep(step: 'dx' | 'dy', value: number): void {
  void drawing.do('set-parameters', { ids: [props.node.id], parameters: { [step]: value } });
}

function setUpright(event: Event): void {
  const upright = (event.target as HTMLInputElement).checked;
  if (layout.value.kind === 'spin') set({ layout: { ...layout.value, upright } });
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
    <label v-if="layout.kind === 'spin'" class="upright">
      <input type="checkbox" :checked="layout.upright" @change="setUpright" />
      upright, not turned with their place
    </label>
    <div v-if="layout.kind === 'row' && size" class="gaps">
      <NumberField
        v-if="layout.columns > 1"
        label="clear gap across"
        :value="layout.dx - size.width"
        @change="setStep('dx', size.width + $event)"
      />
      <NumberField
        v-if="layout.rows > 1"
        label="clear gap down"
        :value="layout.dy - size.height"
        @change="setStep('dy', size.height + $event)"
      />
    </div>
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
.gaps {
  display: grid;
  gap: 6px;
  margin-top: 8px;
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
