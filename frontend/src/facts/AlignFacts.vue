<script setup lang="ts">
import { computed, ref } from 'vue';

import IconRow from '@/facts/IconRow.vue';
import type { Edge } from '@/marks/aligning';
import { EDGES } from '@/marks/aligning';
import { useActions } from '@/stores/actions';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** Brings shapes on one line or one centre, and spreads them evenly. */
const drawing = useDrawing();
const selection = useSelection();
const to = ref<'selection' | 'plate' | 'first'>('selection');
const withLine = ref(false);
const first = ref<HTMLElement>();
const { actions } = useActions();

/** What the others take from the shape picked first. */
const ALIKE = ['sameCentre', 'sameSize', 'sameAngle'] as const;

const SPREADS = [
  { axis: 'x', by: 'gaps', word: 'Equal gaps across', icon: 'M3 5v14M10 5v14M14 5v14M21 5v14' },
  { axis: 'y', by: 'gaps', word: 'Equal gaps down', icon: 'M5 3h14M5 10h14M5 14h14M5 21h14' },
  { axis: 'x', by: 'centres', word: 'Equal centres across', icon: 'M4 12h.1M12 12h.1M20 12h.1' },
  { axis: 'y', by: 'centres', word: 'Equal centres down', icon: 'M12 4v.1M12 12v.1M12 20v.1' },
] as const;

const spreadable = computed(
  () => selection.selected.length > 2 || (to.value === 'plate' && selection.selected.length > 1),
);

function align(edge: Edge): void {
  const ids = [...selection.ids];
  const where = to.value === 'first' ? { fixed: ids[0] } : { to: to.value };
  void drawing.do('align', { ids, edge, with_line: withLine.value, ...where });
}

function spread(axis: 'x' | 'y', by: 'gaps' | 'centres'): void {
  const where = to.value === 'plate' ? 'plate' : 'selection';
  void drawing.do('spread', { ids: [...selection.ids], axis, by, to: where });
}

defineExpose({ focus: () => first.value?.querySelector('button')?.focus() });
</script>

<template>
  <section>
    <h3>Align and spread</h3>
    <label class="to">
      <span class="soft">to</span>
      <select v-model="to" aria-label="Align to">
        <option value="selection">all of them</option>
        <option value="first">{{ selection.selected[0]?.node.name }}, which stays</option>
        <option value="plate">the plate</option>
      </select>
    </label>
    <div ref="first">
      <IconRow :items="EDGES" @choose="align($event.edge)" />
    </div>
    <IconRow
      :items="SPREADS"
      :lacks="spreadable ? '' : 'three or more shapes are wanted'"
      @choose="spread($event.axis, $event.by)"
    />
    <div class="words">
      <button
        v-for="name in ALIKE"
        :key="name"
        :title="`${actions[name]!.word} as ${selection.selected[0]?.node.name} (${actions[name]!.key})`"
        @click="actions[name]!.run()"
      >
        {{ actions[name]!.word }}
      </button>
    </div>
    <label class="line"
      ><input v-model="withLine" type="checkbox" /> with the width of the line</label
    >
  </section>
</template>

<style scoped>
.to,
.line {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 7px;
}
.line {
  color: var(--soft);
  font-size: 12px;
}
select {
  flex: 1;
  min-width: 0;
  padding: 3px 6px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
.words {
  display: flex;
  gap: 4px;
  margin-top: 7px;
}
.words button {
  padding: 3px 6px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
  font-size: 11.5px;
  white-space: nowrap;
}
.words button:hover {
  border-color: var(--clay);
}
</style>
