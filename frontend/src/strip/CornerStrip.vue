<script setup lang="ts">
import { computed } from 'vue';

import type { CornerShape } from '@/api/types';
import { CORNER_SHAPES } from '@/marks/refinements';
import { useActions } from '@/stores/actions';
import { useCorners } from '@/stores/corners';
import StripTile from '@/strip/StripTile.vue';

/** What can be done with the corners of the shape in hand, as pictures. */
const corners = useCorners();
const { actions } = useActions();

const PICTURES: Record<CornerShape, string> = {
  round: 'M12 48V26A14 14 0 0 1 26 12H52',
  straight: 'M12 48V27L27 12H52',
  hollow: 'M12 48V28A16 16 0 0 0 28 12H52',
};

const capitalised = (word: string) => word[0]!.toUpperCase() + word.slice(1);
const those = (convex: boolean) =>
  corners.corners.filter((each) => each.convex === convex).map(({ place }) => place);

const OUTER = [
  [12, 12],
  [50, 12],
  [50, 46],
  [12, 46],
] as const;
const INNER = [[36, 30]] as const;
/** Which corners can be picked at once; of one sort only, all of them. */
const choices = computed(() => [
  {
    word: 'All',
    how: 'Ctrl+A',
    title: 'Pick all corners',
    dots: [...OUTER, ...INNER],
    which: () => corners.corners.map(({ place }) => place),
  },
  ...(those(false).length
    ? [
        {
          word: 'Convex',
          title: 'Pick the corners that point outward',
          dots: OUTER,
          which: () => those(true),
        },
        {
          word: 'Concave',
          title: 'Pick the corners that point inward',
          dots: INNER,
          which: () => those(false),
        },
      ]
    : []),
]);
</script>

<template>
  <div class="count soft">
    <template v-if="!corners.map">…</template>
    <template v-else>
      {{ corners.inHand.length }} of {{ corners.corners.length }}
      {{ corners.corners.length === 1 ? 'corner' : 'corners' }} picked
    </template>
  </div>
  <template v-if="corners.corners.length">
    <StripTile
      v-for="{ word, how, title, dots, which } in choices"
      :key="word"
      :word="word"
      :how="how"
      :title="title"
      @click="corners.pick(...which())"
    >
      <path d="M12 46V12H50L36 30L50 46Z" />
      <circle v-for="[x, y] in dots" :key="`${x} ${y}`" :cx="x" :cy="y" r="4.5" class="dot" />
    </StripTile>
    <StripTile
      v-for="{ value, word, title } in CORNER_SHAPES"
      :key="value"
      :word="capitalised(word)"
      :title="title"
      :aria-pressed="corners.shape === value"
      :class="{ taken: corners.shape === value }"
      @click="corners.make({ shape: value })"
    >
      <path :d="PICTURES[value]" />
    </StripTile>
  </template>
  <p v-else-if="corners.map" class="soft advice">
    This outline has no corners: all its sides go over into each other smoothly.
  </p>
  <StripTile
    v-if="actions.nodes.can()"
    word="Nodes"
    how="E"
    title="The nodes and sides of the shape; what is live is settled by the first change"
    @click="actions.nodes.run()"
  >
    <path d="M10 46C10 20 24 14 31 14S52 20 52 46" />
    <circle cx="10" cy="46" r="4.5" class="dot" />
    <circle cx="31" cy="14" r="4.5" class="dot" />
    <circle cx="52" cy="46" r="4.5" class="dot" />
  </StripTile>
</template>

<style scoped>
.count {
  flex: none;
  width: 70px;
  align-self: center;
  font-size: 12px;
}
.taken {
  border-color: var(--tide);
  box-shadow: inset 0 0 0 1px var(--tide);
}
</style>
