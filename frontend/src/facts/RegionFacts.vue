<script setup lang="ts">
import { computed } from 'vue';

import ColourField from '@/fields/ColourField.vue';
import { pickOf, pieces } from '@/marks/strokes';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';

/** The pieces of a region build while its regions are picked, and those that lost theirs. */
const regions = useRegions();
const selection = useSelection();

const inHand = computed(() =>
  regions.current === null ? undefined : pickOf(regions.picks, regions.current),
);
const rows = computed(() =>
  pieces(regions.picks).map((pick, i) => {
    const [spot] = pick.spots;
    const cover = spot === undefined ? pick.lost[0]!.cover : regions.map!.spots[spot]!.pick.cover;
    return {
      pick,
      number: i + 1,
      spot,
      colour: spot === undefined ? null : regions.colourOf(spot),
      names: named(cover),
    };
  }),
);

/** Buttons leave the focus where it is: Enter goes on to mean *apply*. */
function keepFocus(event: MouseEvent): void {
  if ((event.target as Element).closest('button')) event.preventDefault();
}

function named(cover: readonly string[]): string {
  const names = cover.map((key) => selection.rowById.get(key)?.node.name ?? 'a shape that is gone');
  return names.join(' + ') || 'between the shapes';
}
</script>

<template>
  <div @mousedown="keepFocus">
    <section>
      <h3 class="title">Pieces</h3>
      <p v-if="!rows.length" class="soft note">
        Every dot stands for a region. Click one to keep it as a piece; drag over several to fuse
        them.
      </p>
      <button
        v-for="row in rows"
        :key="row.number"
        class="piece"
        :class="{ on: row.pick === inHand }"
        :disabled="row.spot === undefined"
        @click="regions.current = row.spot!"
      >
        <span class="number mono" :style="{ '--paint': row.colour ?? '#fff' }">{{
          row.number
        }}</span>
        <span class="names">{{ row.names }}</span>
        <span v-if="row.pick.spots.length > 1" class="soft">of {{ row.pick.spots.length }}</span>
      </button>
    </section>
    <section v-if="regions.current !== null">
      <h3>Paint of this piece</h3>
      <ColourField
        :key="regions.current"
        :fill="regions.colourOf(regions.current)"
        label="Piece"
        @choose="regions.paintPiece($event)"
      />
      <button v-if="inHand?.fill" class="soft back" @click="regions.paintPiece(null)">
        back to the paint of its shape
      </button>
    </section>
    <section v-if="regions.lost.length">
      <h3>Lost regions</h3>
      <p class="soft note">The shapes have moved, so that these find their region no more.</p>
      <div v-for="({ pick, lost }, i) in regions.lost" :key="i" class="lost">
        <span class="names">{{ named(lost.cover) }}</span>
        <button
          :class="{ on: regions.placing?.lost === lost }"
          @click="regions.placing = { pick, lost }"
        >
          {{ regions.placing?.lost === lost ? 'click a dot…' : 'place again' }}
        </button>
        <button :aria-label="`Forget ${named(lost.cover)}`" @click="regions.forget(pick, lost)">
          forget
        </button>
      </div>
    </section>
  </div>
</template>

<style scoped>
.piece {
  display: flex;
  align-items: center;
  gap: 9px;
  width: 100%;
  padding: 4px 6px;
  border-radius: 12px;
  text-align: left;
}
.piece.on {
  background: var(--chosen);
}
.number {
  flex: none;
  width: 20px;
  height: 20px;
  border: 2px solid var(--paint);
  border-radius: 50%;
  line-height: 16px;
  text-align: center;
  font-size: 11px;
}
.names {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.lost {
  display: flex;
  gap: 8px;
  padding: 4px 0;
}
.lost button,
.back {
  color: var(--clay);
}
.back {
  margin-top: 8px;
}
.lost .on {
  color: var(--moss);
}
</style>
