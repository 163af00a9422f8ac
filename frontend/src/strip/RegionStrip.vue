<script setup lang="ts">
import { computed } from 'vue';

import ChoicePill from '@/look/ChoicePill.vue';
import type { Brush } from '@/marks/strokes';
import { pieces } from '@/marks/strokes';
import { BRUSHES, PAINTS, useRegions } from '@/stores/regions';
import StripTile from '@/strip/StripTile.vue';

/**
 * The brushes for regions, what becomes of the rest, and the way out.
 *
 * The pointer leaves the focus where it is: Enter goes on to mean *apply*.
 */
const WORDS: Record<Brush, { word: string; how: string; says: string }> = {
  keep: { word: 'Keep', how: 'click', says: 'a region becomes a piece of its own (1)' },
  fuse: { word: 'Fuse', how: 'drag', says: 'all that are touched become one piece (2)' },
  drop: { word: 'Drop', how: 'hold X', says: 'what is touched goes (3)' },
};
const RESTS = [
  { value: true, word: 'stays', title: 'what was not picked stays, in its own shapes (R)' },
  { value: false, word: 'goes', title: 'only what was picked is left (R)' },
];
const PAINT_SAYS = {
  topmost: 'each piece in the paint of the topmost shape that covers it (P)',
  lowest: 'each piece in the paint of the lowest shape that covers it (P)',
  new: 'all pieces in the paint of new shapes (P)',
};
const PAINT_CHOICES = PAINTS.map((value) => ({ value, word: value, title: PAINT_SAYS[value] }));

const regions = useRegions();
const active = computed(() => (regions.dropping ? 'drop' : regions.brush));

const counts = computed(() => {
  const made = pieces(regions.picks);
  const kept = made.filter((pick) => pick.spots.length === 1).length;
  const fused = made.filter((pick) => pick.spots.length > 1).map((pick) => pick.spots.length);
  const gone = regions.picks.find((pick) => pick.dropped)?.spots.length ?? 0;
  const said = [];
  if (kept) said.push(`${kept} kept`);
  if (fused.length) said.push(`${fused.length} fused of ${fused.join(', ')}`);
  if (gone) said.push(`${gone} dropped`);
  if (regions.lost.length) said.push(`${regions.lost.length} lost`);
  return said.length ? said.join(' · ') : 'none picked yet';
});
</script>

<template>
  <div class="picking" @mousedown.prevent>
    <div class="said">
      <b>Pick regions</b>
      <span class="soft" data-testid="region-count">{{ regions.map!.spots.length }} regions</span>
      <span class="soft" data-testid="pick-count" role="status">{{ counts }}</span>
    </div>
    <div class="brushes" role="radiogroup" aria-label="Brush">
      <StripTile
        v-for="brush in BRUSHES"
        :key="brush"
        :word="WORDS[brush].word"
        :how="WORDS[brush].how"
        :title="`${WORDS[brush].word}: ${WORDS[brush].says}`"
        role="radio"
        :aria-checked="active === brush"
        :class="{ on: active === brush }"
        @click="regions.brush = brush"
      >
        <circle v-if="brush === 'keep'" cx="31" cy="29" r="12" class="kept" />
        <template v-else-if="brush === 'fuse'">
          <path d="M16 36L45 22" class="thread" />
          <circle cx="15" cy="36" r="8.5" class="fused" />
          <circle cx="46" cy="22" r="8.5" class="fused" />
        </template>
        <template v-else>
          <circle cx="31" cy="29" r="11" class="gone" />
          <path d="M24 22l14 14" class="gone" />
        </template>
      </StripTile>
    </div>
    <div class="choices">
      <div class="choice">
        <span class="soft" title="What was not picked, in its own shapes (R)">The rest</span>
        <ChoicePill
          :model-value="regions.state!.rest"
          :options="RESTS"
          label="The rest"
          @update:model-value="regions.change({ rest: $event })"
        />
      </div>
      <div class="choice">
        <span class="soft">Paint</span>
        <ChoicePill
          :model-value="regions.state!.paint"
          :options="PAINT_CHOICES"
          label="Paint"
          @update:model-value="regions.change({ paint: $event })"
        />
      </div>
    </div>
    <div class="ways">
      <button class="soft out" title="Esc" @click="regions.leave()">Leave as it was</button>
      <button class="apply" title="Enter" @click="regions.apply()">Apply</button>
    </div>
  </div>
</template>

<style scoped>
.picking {
  flex: 1;
  display: flex;
  gap: 8px;
}
.said {
  flex: none;
  width: 116px;
  align-self: center;
  display: grid;
  gap: 3px;
  font-size: 12px;
}
.brushes {
  display: flex;
  gap: 7px;
}
.tile.on {
  border-color: var(--clay);
  box-shadow: 0 0 0 1.5px var(--clay);
}
.kept {
  fill: var(--moss);
  stroke: none;
}
.fused {
  fill: var(--mustard);
  stroke: none;
}
.thread {
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linecap: round;
  stroke-dasharray: 0.1 5;
}
.gone {
  stroke: var(--clay);
  stroke-width: 2.6;
}
.choices {
  flex: none;
  display: grid;
  gap: 8px;
  align-content: center;
  margin-left: 4px;
}
.choice {
  display: flex;
  align-items: center;
  gap: 9px;
}
.choice > .soft {
  width: 52px;
}
/* In sight on a narrow screen too. */
.ways {
  position: sticky;
  right: -14px;
  flex: none;
  padding-inline: 4px 10px;
  background: var(--card);
  display: grid;
  gap: 9px;
  align-content: center;
  margin-left: auto;
}
.apply {
  padding: 7px 20px;
  border-radius: 16px;
  background: var(--clay);
  color: #fff;
  font-weight: 500;
}
.apply:hover {
  background: #a53d28;
}
.out:hover {
  color: var(--ink);
}
</style>
