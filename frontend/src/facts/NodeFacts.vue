<script setup lang="ts">
import { computed } from 'vue';

import type { NodeEdit } from '@/api/types';
import IconRow from '@/facts/IconRow.vue';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import { EDGES } from '@/marks/aligning';
import { common } from '@/marks/common';
import { ontoPlate } from '@/marks/matrix';
import { JOINED_BY, NODE_LINES, nodeWord, SIDE_WORDS } from '@/marks/nodes';
import { angleOf } from '@/marks/numbers';
import { useNodes } from '@/stores/nodes';
import { useSelection } from '@/stores/selection';

/** Exact numbers of the nodes and sides that are picked, and how ends are joined. */
const nodes = useNodes();
const selection = useSelection();

const PLACE = { min: -1e6, max: 1e6 };
const LENGTH = { min: 0, max: 1e6 };
const RADIUS = { min: 0, max: 1e6, above: true };
const ANGLE = { min: -36000, max: 36000 };
/** Of more nodes it is not told what each is. */
const MOST_TOLD = 4;

const x = computed(() => common(nodes.inHand, ({ at }) => at.x));
const y = computed(() => common(nodes.inHand, ({ at }) => at.y));
const told = computed(() => {
  const words = nodes.inHand.map(({ dot }) => nodeWord(dot));
  return words.length > MOST_TOLD || new Set(words).size < 2 ? [...new Set(words)] : words;
});

/** The handles of the only node, as lengths and angles on the plate. */
const handles = computed(() => {
  const [spot, ...others] = nodes.inHand;
  const figure = spot && selection.figureById.get(spot.id);
  if (!spot || others.length || !figure) return [];
  return ([false, true] as const).flatMap((forward) => {
    const own = forward ? spot.dot.handle_after : spot.dot.handle_before;
    if (!own) return [];
    const at = ontoPlate(figure.matrix, { x: own[0], y: own[1] });
    const length = Math.hypot(at.x - spot.at.x, at.y - spot.at.y);
    return [{ forward, length, angle: angleOf(spot.at, at), word: forward ? 'after' : 'before' }];
  });
});

/** How many sides of each kind are in hand. */
const lines = computed(() => {
  const kinds = nodes.sidesInHand.map(({ line }) => line.kind);
  return [...new Set(kinds)]
    .map((kind) => [kind, kinds.filter((each) => each === kind).length] as const)
    .map(([kind, count]) => (count === 1 ? SIDE_WORDS[kind][0] : `${count} ${SIDE_WORDS[kind][1]}`))
    .join(', ');
});

const arcs = computed(() => nodes.sidesInHand.map(({ line }) => line.radius));
const radius = computed(() => common(arcs.value, (each) => each ?? 0));

function edit(made: NodeEdit): void {
  void nodes.edit(made);
}

function aim(handle: (typeof handles.value)[number], to: { length?: number; angle?: number }) {
  const { forward, length, angle } = { ...handle, ...to };
  edit({ do: 'aim', forward, length, angle_deg: angle, alone: false });
}
</script>

<template>
  <section>
    <h3>Nodes</h3>
    <p v-if="!nodes.inHand.length && !nodes.sidesInHand.length" class="soft note">
      None is picked. {{ nodes.spots.length }} in all<template v-if="nodes.ends.length"
        >, {{ nodes.ends.length }} of them ends</template
      >.
    </p>
    <template v-if="nodes.inHand.length">
      <p class="soft note" data-testid="node-kinds">
        {{ nodes.inHand.length > 1 ? `${nodes.inHand.length} picked: ` : '' }}{{ told.join('; ') }}
      </p>
      <div class="grid">
        <NumberField
          label="x"
          :value="x"
          :rule="PLACE"
          @change="edit({ do: 'put', x: $event, y: null })"
        />
        <NumberField
          label="y"
          :value="y"
          :rule="PLACE"
          @change="edit({ do: 'put', x: null, y: $event })"
        />
        <template v-for="handle in handles" :key="handle.word">
          <NumberField
            :label="handle.word"
            :says="`length of the handle ${handle.word} the node`"
            :value="handle.length"
            :rule="LENGTH"
            @change="aim(handle, { length: $event })"
          />
          <NumberField
            label="angle"
            :says="`angle of the handle ${handle.word} the node`"
            :value="handle.angle"
            :rule="ANGLE"
            unit="°"
            @change="aim(handle, { angle: $event })"
          />
        </template>
      </div>
    </template>
    <p v-if="nodes.sidesInHand.length" class="soft note">{{ lines }}</p>
    <NumberField
      v-if="arcs.length && arcs.every((each) => each !== null)"
      label="r"
      says="radius of the sides"
      :value="radius"
      :rule="RADIUS"
      @change="edit({ do: 'radius', radius: $event })"
    />
    <IconRow
      v-if="nodes.inHand.length > 1"
      :items="EDGES"
      @choose="edit({ do: 'line-up', to: $event.edge })"
    />
    <div v-if="nodes.inHand.length > 2" class="words">
      <button
        v-for="line in NODE_LINES"
        :key="line.word"
        :title="line.title"
        @click="edit(line.edit)"
      >
        {{ line.word }}
      </button>
    </div>
  </section>
  <section v-if="nodes.ends.length > 1">
    <h3>Join ends</h3>
    <div class="joining">
      <NumberField
        label="within"
        says="how far apart ends may lie that are joined"
        :value="nodes.joining.within"
        :rule="LENGTH"
        @change="nodes.joining.within = $event"
      />
      <ChoicePill v-model="nodes.joining.by" label="Where ends meet" :options="JOINED_BY" />
      <button
        class="join"
        title="Join the ends that are picked, or all that lie so near (J)"
        @click="nodes.joinEnds()"
      >
        Join ends
      </button>
    </div>
  </section>
</template>

<style scoped>
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 8px;
  margin: 6px 0;
}
.words {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-top: 7px;
}
.words button {
  padding: 3px 7px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
  font-size: 11.5px;
}
.words button:hover {
  border-color: var(--clay);
}
.joining {
  display: grid;
  gap: 8px;
  justify-items: start;
  margin-top: 6px;
}
.join {
  padding: 3px 12px;
  border: 1px solid var(--clay);
  border-radius: 12px;
  color: var(--clay);
}
</style>
