<script setup lang="ts">
import { computed } from 'vue';

import { ontoPlate } from '@/marks/matrix';
import { pickOf, pieces } from '@/marks/strokes';
import { spread } from '@/regions/spread';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** Regions to be picked: thin outlines, a dot in each, and strings between fused ones. */
const props = defineProps<{ touched: readonly number[]; hovered: number | null }>();

const LEAST = 7;
const MOST = 11;
const AWAY = 3;

const regions = useRegions();
const selection = useSelection();
const view = useView();

/** Where dots are, from the plate's corner in pixels: moving the plate moves them along. */
const dots = computed(() => {
  const wanted = regions.map!.spots.map((spot) => ({
    x: spot.x * view.zoom,
    y: spot.y * view.zoom,
    r: Math.min(MOST, Math.max(LEAST, spot.room * view.zoom * 0.5)),
  }));
  const places = spread(wanted);
  return wanted.map((dot, i) => {
    const at = places[i]!;
    const away = Math.hypot(at.x - dot.x, at.y - dot.y) > AWAY;
    return { ...at, r: dot.r, belongs: away ? dot : null };
  });
});

const looks = computed(() =>
  regions.map!.spots.map((spot, i) => {
    const pick = pickOf(regions.picks, i);
    const number = pick && !pick.dropped ? pieces(regions.picks).indexOf(pick) + 1 : null;
    const colour = regions.colourOf(i);
    return { spot, pick, number, colour, says: spoken(i, number) };
  }),
);

function spoken(i: number, number: number | null): string {
  const pick = pickOf(regions.picks, i);
  const cover = regions.map!.spots[i]!.pick.cover;
  const names = cover.map((key) => selection.rowById.get(key)?.node.name ?? key);
  const where = names.length ? names.join(' and ') : 'none of the shapes';
  const what = pick?.dropped ? 'dropped' : number ? `piece ${number}` : 'not picked';
  return `${where}: ${what}`;
}

/** Strings from dot to dot of each piece, and of the stroke in hand. */
const strings = computed(() =>
  [...pieces(regions.picks).map((pick) => pick.spots), props.touched]
    .filter((spots) => spots.length > 1)
    .map((spots) => `M${spots.map((i) => `${dots.value[i]!.x} ${dots.value[i]!.y}`).join('L')}`),
);

/** Where lost regions were, on the plate. */
const lost = computed(() => {
  const matrix = selection.figureById.get(regions.build ?? '')?.matrix;
  if (!matrix) return [];
  return regions.lost.map(({ pick, lost: region }) => ({
    ...ontoPlate(matrix, region),
    number: pick.dropped ? '×' : pieces(regions.picks).indexOf(pick) + 1,
  }));
});

/** A dot's own colour: its piece's, white for what goes, else that of all dots. */
function bodyOf(look: (typeof looks.value)[number]): string {
  if (look.pick?.dropped) return '#fff';
  return look.number ? (look.colour ?? '#fff') : 'var(--tide)';
}

/** White on dark paint, ink on light. */
function onPaint(colour: string | null): string {
  if (!colour) return 'var(--ink)';
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(colour.slice(i, i + 2), 16));
  return 0.299 * r! + 0.587 * g! + 0.114 * b! > 165 ? 'var(--ink)' : '#fff';
}
</script>

<template>
  <g data-testid="regions">
    <g :transform="`translate(${view.pan.x} ${view.pan.y}) scale(${view.zoom})`">
      <path
        v-for="(look, i) in looks"
        :key="i"
        class="region"
        :class="{ picked: look.number, touched: touched.includes(i), under: hovered === i }"
        :d="look.spot.path"
        :fill="look.colour ?? 'none'"
        :fill-opacity="look.number ? 0.62 : regions.state!.rest && !look.pick ? 0.16 : 0"
        :data-region="i"
      />
      <path v-for="(d, i) in regions.map!.outlines" :key="`edge ${i}`" class="edge" :d="d" />
      <circle
        v-for="(each, i) in lost"
        :key="`lost ${i}`"
        class="lost"
        :cx="each.x"
        :cy="each.y"
        :r="9 / view.zoom"
      />
    </g>
    <g :transform="`translate(${view.pan.x} ${view.pan.y})`">
      <path v-for="(d, i) in strings" :key="i" class="string" :d="d" />
      <template v-for="(dot, i) in dots" :key="i">
        <path
          v-if="dot.belongs"
          class="hairline"
          :d="`M${dot.x} ${dot.y}L${dot.belongs.x} ${dot.belongs.y}`"
        />
      </template>
      <g
        v-for="(dot, i) in dots"
        :key="i"
        class="dot"
        :class="{ current: regions.current === i, dropped: looks[i]!.pick?.dropped }"
        :transform="`translate(${dot.x} ${dot.y})`"
      >
        <circle v-if="regions.current === i" class="ring" :r="dot.r + 4" />
        <circle :r="dot.r" :style="{ fill: bodyOf(looks[i]!) }" />
        <path
          v-if="looks[i]!.pick?.dropped"
          class="cross"
          :d="`M${-dot.r * 0.45} ${-dot.r * 0.45}L${dot.r * 0.45} ${dot.r * 0.45}`"
        />
        <text
          v-else-if="looks[i]!.number"
          class="mono"
          :fill="onPaint(looks[i]!.colour)"
          :font-size="dot.r * 1.15"
        >
          {{ looks[i]!.number }}
        </text>
        <circle class="hit" :r="dot.r + 2" :data-dot="i" role="img" :aria-label="looks[i]!.says">
          <title>{{ looks[i]!.says }}</title>
        </circle>
      </g>
    </g>
  </g>
</template>

<style scoped>
.region {
  stroke: none;
  pointer-events: all;
}
.region.under {
  stroke: var(--clay);
  stroke-width: 1.4;
  vector-effect: non-scaling-stroke;
}
.region.touched {
  stroke: var(--clay);
  stroke-width: 2.6;
  vector-effect: non-scaling-stroke;
}
.edge {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.lost {
  fill: none;
  stroke: #7d5510;
  stroke-width: 2;
  stroke-dasharray: 3 3;
  vector-effect: non-scaling-stroke;
  pointer-events: none;
}
.string {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.4;
  stroke-linecap: round;
  stroke-linejoin: round;
  stroke-dasharray: 0.1 6;
  pointer-events: none;
}
.hairline {
  stroke: var(--ink);
  stroke-width: 0.8;
  pointer-events: none;
}
.dot {
  cursor: pointer;
}
.dot circle {
  stroke: #fff;
  stroke-width: 1.8;
}
.dot.dropped circle {
  stroke: var(--clay);
}
.dot .ring {
  fill: none;
  stroke: var(--clay);
  stroke-width: 2;
}
.dot .hit {
  fill: transparent;
  stroke: none;
}
.cross {
  stroke: var(--clay);
  stroke-width: 2;
}
text {
  text-anchor: middle;
  dominant-baseline: central;
  pointer-events: none;
}
</style>
