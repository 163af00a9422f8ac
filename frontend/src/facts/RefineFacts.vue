<script setup lang="ts">
import { computed } from 'vue';

import type { Figure, Node, Refinement } from '@/api/types';
import RefinementRow from '@/facts/RefinementRow.vue';
import { commandOf } from '@/marks/commands';
import { useActions } from '@/stores/actions';
import { useCorners } from '@/stores/corners';
import { useDrawing } from '@/stores/drawing';

/** What refines the outline of the shapes in hand, the first one first; more can be added. */
const props = defineProps<{ nodes: Node[]; figures: Figure[] }>();

const drawing = useDrawing();
const corners = useCorners();
const { actions } = useActions();

const only = computed(() => (props.nodes.length === 1 ? props.nodes[0]! : null));
const refinements = computed(() => only.value?.refinements ?? []);
const notes = computed(() => props.figures[0]?.notes ?? []);

function set(next: readonly Refinement[]): void {
  void drawing.run(
    commandOf('set-refinements', { id: only.value!.id, refinements: [...next] as never }),
  );
}

function change(place: number, fields: object): void {
  set(refinements.value.map((each, i) => (i === place ? { ...each, ...fields } : each)));
}

function remove(place: number): void {
  set(refinements.value.filter((_, i) => i !== place));
}

/** Puts a refinement one place earlier. */
function sooner(place: number): void {
  const next = [...refinements.value];
  next.splice(place - 1, 0, ...next.splice(place, 1));
  set(next);
}
</script>

<template>
  <section v-if="actions.grow.can() || refinements.length">
    <h3>Refinements</h3>
    <ol v-if="refinements.length">
      <li v-for="(refinement, i) in refinements" :key="`${i} ${refinement.kind}`">
        <RefinementRow
          :refinement="refinement"
          :path="`refinements.${i}`"
          :note="notes[i]"
          :first="i === 0"
          @change="change(i, $event)"
          @remove="remove(i)"
          @sooner="sooner(i)"
          @pick="corners.begin()"
        />
      </li>
    </ol>
    <div class="more">
      <button
        v-for="name in ['corners', 'grow', 'band'] as const"
        :key="name"
        :disabled="!actions[name].can()"
        :title="`${actions[name].word} (${actions[name].key})`"
        @click="actions[name].run()"
      >
        + {{ actions[name].word.toLowerCase() }}
      </button>
    </div>
  </section>
</template>

<style scoped>
ol {
  display: grid;
  gap: 8px;
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin-top: 8px;
}
.more button {
  color: var(--tide);
  font-size: 12.5px;
}
.more button:hover:not(:disabled) {
  text-decoration: underline;
}
.more button:disabled {
  color: var(--soft);
}
</style>
