<script setup lang="ts">
import { computed } from 'vue';

import { NODE_ACTS, SNIP } from '@/marks/nodes';
import { useActions } from '@/stores/actions';
import { useNodes } from '@/stores/nodes';
import { useView } from '@/stores/view';
import StripTile from '@/strip/StripTile.vue';

/** What can be done with the nodes and sides that are picked, as pictures. */
const nodes = useNodes();
const view = useView();
const { actions } = useActions();

const possible = computed(() => NODE_ACTS.filter(({ needs }) => nodes.has(needs)));
const counted = (count: number, word: string) => `${count} ${word}${count === 1 ? '' : 's'}`;
</script>

<template>
  <div class="count soft">
    <span>
      {{ counted(nodes.inHand.length, 'node') }}<br />{{
        counted(nodes.sidesInHand.length, 'side')
      }}
      picked
    </span>
    <label v-if="nodes.live.length" title="A hidden copy of what is live stays beneath">
      <input v-model="view.taking.keep" type="checkbox" /> keep originals
    </label>
  </div>
  <StripTile
    v-for="act in possible"
    :key="act.name"
    :word="act.word"
    :how="act.key"
    :title="act.title"
    @click="nodes.act(act.name)"
  >
    <path :d="act.picture" />
    <circle v-for="[x, y] in act.knobs" :key="`${x} ${y}`" :cx="x" :cy="y" r="3" class="node" />
    <circle v-for="[x, y] in act.dots" :key="`${x} ${y}`" :cx="x" :cy="y" r="4.5" class="dot" />
  </StripTile>
  <StripTile
    :word="SNIP.word"
    :how="SNIP.key"
    :title="SNIP.title"
    :aria-pressed="nodes.snipping"
    :class="{ taken: nodes.snipping }"
    @click="nodes.snipping = !nodes.snipping"
  >
    <path :d="SNIP.picture" />
    <path d="M26 30H36" stroke-dasharray="2 3" />
  </StripTile>
  <StripTile
    v-if="nodes.ends.length > 1"
    word="Join ends"
    how="J"
    title="Join the two ends that are picked, or all that lie near each other: Facts say how near"
    @click="nodes.joinEnds()"
  >
    <path d="M10 46C10 20 20 14 31 14S52 20 52 46" />
    <circle cx="31" cy="14" r="4.5" class="dot" />
  </StripTile>
  <StripTile
    v-if="nodes.inHand.length"
    word="Alike"
    how="Q"
    title="Pick all nodes that are alike: corners, smooth ones, ends"
    @click="nodes.similar()"
  >
    <path d="M10 44L24 16L38 44L52 16" />
    <circle
      v-for="[x, y] in [
        [24, 16],
        [38, 44],
      ]"
      :key="`${x} ${y}`"
      :cx="x"
      :cy="y"
      r="4.5"
      class="dot"
    />
  </StripTile>
  <StripTile
    v-if="actions.corners.can()"
    word="Corners"
    how="E"
    title="The corners of the shape, to be rounded, cut off or hollowed out"
    @click="actions.corners.run()"
  >
    <path d="M12 48V26A14 14 0 0 1 26 12H52" />
  </StripTile>
  <p v-if="!possible.length && !nodes.snipping" class="soft advice">
    Click a node or a side: what can be done with it appears here. Shift-click takes more, Ctrl+A
    takes all.
  </p>
</template>

<style scoped>
.count {
  flex: none;
  display: grid;
  gap: 6px;
  width: 84px;
  align-self: center;
  font-size: 12px;
}
.taken {
  border-color: var(--clay);
  box-shadow: inset 0 0 0 1px var(--clay);
}
.count label {
  display: flex;
  gap: 5px;
}
</style>
