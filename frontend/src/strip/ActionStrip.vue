<script setup lang="ts">
import { computed } from 'vue';

import type { Command, Node, Outcome, Tile } from '@/api/types';
import type { Fields } from '@/marks/commands';
import { commandOf } from '@/marks/commands';
import { outcomeOf } from '@/marks/kinds';
import { LEAVES_PIECES, OUTCOME_WORDS, STAYS_LIVE } from '@/marks/outcomes';
import { useActions } from '@/stores/actions';
import { useCorners } from '@/stores/corners';
import { newId, useDrawing } from '@/stores/drawing';
import { useNodes } from '@/stores/nodes';
import { useNotices } from '@/stores/notices';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';
import { useSimplifying } from '@/stores/simplifying';
import { useView } from '@/stores/view';
import CornerStrip from '@/strip/CornerStrip.vue';
import HomeTile from '@/strip/HomeTile.vue';
import LonelyStrip from '@/strip/LonelyStrip.vue';
import NodeStrip from '@/strip/NodeStrip.vue';
import OutcomeTile from '@/strip/OutcomeTile.vue';
import RegionStrip from '@/strip/RegionStrip.vue';
import ScrollRow from '@/strip/ScrollRow.vue';
import SimplifyStrip from '@/strip/SimplifyStrip.vue';
import { useOutcomes } from '@/strip/useOutcomes';

/** What can be done now with what is selected, as pictures. */
const emit = defineEmits<{ keep: [] }>();

const drawing = useDrawing();
const selection = useSelection();
const view = useView();
const regions = useRegions();
const corners = useCorners();
const nodes = useNodes();
const simplifying = useSimplifying();
const notices = useNotices();
const { actions } = useActions();
const {
  found,
  tiles,
  more,
  paint,
  hasBare,
  hasLines,
  asLines,
  asAreas,
  again,
  fault,
  cancelled,
  wanted,
  busy,
  compute,
  cancel,
  knownTile,
  tileOf,
} = useOutcomes();

const isSlow = computed(() => busy.value && tiles.value.length < wanted.value);

/** Paths that take no part as long as they are open. */
const open = computed(() => {
  const idle = tiles.value.flatMap((tile) => tile.idle).filter(({ closable }) => closable);
  return [...new Map(idle.map((shape) => [shape.id, shape])).values()];
});

function show(tile: Tile): void {
  if (tile.count) view.outcome = tile.pieces;
}

/** Takes an outcome: of one live thing another, else live where it can be and that is wanted. */
async function take(outcome: Outcome): Promise<void> {
  const ids = selection.operands;
  const { word, result } = OUTCOME_WORDS[outcome];
  if (!ids.length || (again.value && !STAYS_LIVE.includes(outcome))) {
    notices.say(
      `${word} needs two or more shapes side by side that are not hidden, locked or guides.`,
    );
    return;
  }
  const { picked, only } = selection;
  const { keep, live } = view.taking;
  const id = newId();
  const common = { ids, id, name: result, keep, lines_as_areas: asAreas.value };
  const how = { ...common, outcome, paint: paint.value };
  const lines = asLines.value;
  const known = knownTile(outcome);
  const other = again.value && only ? retaken(only.node, outcome) : null;
  const taken = await drawing.runFound(async () => {
    const tile = known ?? (await tileOf(ids, outcome));
    if (!tile?.count || tile.unchanged) {
      const what = tile?.count ? 'would change nothing' : 'leaves nothing';
      notices.say(`${word} of these shapes ${what}; they stay as they are.`);
      return null;
    }
    view.outcome = null;
    if (other) return other;
    if (!live || !tile.live) return commandOf('take-outcome', { ...how, as_lines: lines });
    return outcome === 'split'
      ? commandOf('build-regions', common)
      : commandOf('combine', { ...how, outcome: outcome as Fields<'combine'>['outcome'] });
  });
  // Who has gone on to another shape meanwhile stays there.
  if (taken && !other && selection.picked === picked)
    selection.made(id, ids, LEAVES_PIECES.includes(outcome));
}

/** Takes a live thing as another outcome; a name that told the old one tells the new one. */
function retaken(node: Node, outcome: Outcome): Command {
  const told =
    node.name === 'Group' ||
    Object.values(OUTCOME_WORDS).some(({ result }) => result === node.name);
  const name = told ? OUTCOME_WORDS[outcome].result : node.name;
  const as = outcome as Fields<'set-outcome'>['outcome'];
  return commandOf('set-outcome', { id: node.id, outcome: as, name });
}

defineExpose({ take });
</script>

<template>
  <div class="strip" role="toolbar" aria-label="Action strip">
    <RegionStrip v-if="regions.open" />
    <ScrollRow v-else-if="corners.open"><CornerStrip /></ScrollRow>
    <ScrollRow v-else-if="nodes.open"><NodeStrip /></ScrollRow>
    <ScrollRow v-else-if="simplifying.open"><SimplifyStrip /></ScrollRow>
    <template v-else-if="selection.selected.length > 1">
      <div class="how soft">
        <span>
          {{ selection.selected.length }} shapes<template v-if="found"
            >, {{ found.nodes }} nodes</template
          >
        </span>
        <template v-if="selection.combinable.length > 1">
          <label title="The shapes stay inside, and can be changed">
            <input v-model="view.taking.live" type="checkbox" /> stay live
          </label>
          <label title="Hidden copies of the shapes stay beneath the result">
            <input v-model="view.taking.keep" type="checkbox" /> keep originals
          </label>
          <select
            v-if="hasLines"
            v-model="view.taking.lines"
            aria-label="Lines count"
            title="Shapes with a line and no fill count as what they enclose, or in Cut and Overlap as lines; or all lines as what they ink, with their fills"
          >
            <option value="enclosed">lines enclose</option>
            <option v-if="hasBare" value="as lines">lines as lines</option>
            <option value="as areas">lines as areas</option>
          </select>
          <select v-model="view.taking.paint" aria-label="Paint of the result">
            <option value="natural">its own paint</option>
            <option value="lowest">the lowest's paint</option>
            <option value="topmost">the topmost's paint</option>
            <option value="first">the first picked's</option>
          </select>
        </template>
      </div>
      <p v-if="fault" class="soft advice" role="alert">{{ fault }}</p>
      <p v-else-if="selection.combinable.length < 2" class="soft advice">
        Shapes that lie side by side can be combined, and neither hidden, locked nor guide shapes:
        fewer than two of these are.
      </p>
      <ScrollRow @pointerleave="view.outcome = null" @focusout="view.outcome = null">
        <OutcomeTile
          v-for="tile in tiles"
          :key="tile.outcome"
          :tile="tile"
          :box="found!.box"
          :words="OUTCOME_WORDS[tile.outcome]"
          @show="show(tile)"
          @hide="view.outcome = null"
          @take="take(tile.outcome)"
        />
        <div v-for="shape in open" :key="shape.id" class="open">
          <b>{{ shape.name }}</b> {{ shape.why }}.
          <button @click="drawing.run({ kind: 'close', id: shape.id })">close it</button>
        </div>
        <div v-if="isSlow" class="slow soft" role="status">
          <span class="dots" aria-hidden="true"><i /><i /><i /></span>
          {{ tiles.length }} of {{ wanted }}
          <button @click="cancel">cancel</button>
        </div>
        <div v-else-if="cancelled" class="slow soft">
          not computed
          <button @click="compute()">compute</button>
        </div>
      </ScrollRow>
      <div class="further soft">
        <!-- There before the tiles are, or what follows would slip away under the pointer. -->
        <button
          :disabled="!tiles.length"
          :aria-expanded="more"
          :title="more ? 'fewer outcomes' : 'Window, Slice, Visible, Seams, Bundle'"
          @click="more = !more"
        >
          {{ more ? '‹ fewer' : 'more ›' }}
        </button>
        <button
          v-if="actions.putOnLine.can()"
          title="The words or copies stand on the outline of the other shape (Shift+Q)"
          @click="actions.putOnLine.run()"
        >
          on the line
        </button>
        <button title="Pick regions by their dots (R)" @click="regions.begin()">regions</button>
        <button title="Keep them on the shelf (*)" @click="emit('keep')">shelf</button>
      </div>
    </template>
    <ScrollRow
      v-else-if="selection.only"
      @pointerleave="view.outcome = null"
      @focusout="view.outcome = null"
    >
      <LonelyStrip :row="selection.only" @keep="emit('keep')" />
      <template v-if="tiles.length && found">
        <span class="soft as">Or<br />take as</span>
        <OutcomeTile
          v-for="tile in tiles"
          :key="tile.outcome"
          :tile="tile"
          :box="found.box"
          :words="OUTCOME_WORDS[tile.outcome]"
          :taken="tile.outcome === outcomeOf(selection.only.node)"
          @show="show(tile)"
          @hide="view.outcome = null"
          @take="take(tile.outcome)"
        />
      </template>
    </ScrollRow>
    <ScrollRow v-else-if="selection.wholeInHand">
      <HomeTile />
      <p v-if="selection.strand === 'pieces'" class="soft advice">
        Click a piece of <b>{{ selection.wholeInHand.name }}</b> and drag it: that piece alone
        moves, Delete drops it, and all stays live. Esc steps out: then all moves as one.
      </p>
      <p v-else class="soft advice">
        Click a shape that <b>{{ selection.wholeInHand.name }}</b> is made from, and move or change
        it: the pieces follow. Esc steps out.
      </p>
    </ScrollRow>
    <p v-else class="soft advice">
      Click a shape to select it, Shift-click to select several: what they can become appears here.
    </p>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  gap: 8px;
  align-items: stretch;
  padding: 10px 14px;
  background: var(--card);
  border-top: 1px solid var(--rule);
  overflow-x: auto;
}
.open {
  flex: none;
  align-self: center;
  width: 116px;
  font-size: 12px;
  line-height: 1.4;
}
.open b {
  font-weight: 500;
}
.open button {
  color: var(--clay);
  text-decoration: underline;
}
.as {
  flex: none;
  align-self: center;
  margin: 0 4px 0 10px;
  font-size: 12px;
}
.further,
.slow {
  flex: none;
  display: grid;
  gap: 10px;
  align-content: center;
  justify-items: start;
  padding: 0 6px;
  white-space: nowrap;
}
.further button:hover:enabled {
  color: var(--ink);
}
.further button:disabled {
  opacity: 0.4;
}
.slow {
  gap: 5px;
  font-size: 12px;
}
.slow button {
  color: var(--clay);
}
.dots {
  display: flex;
  gap: 4px;
}
.dots i {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--clay);
  animation: wait 1s infinite;
}
.dots i:nth-child(2) {
  background: var(--tide);
  animation-delay: 0.15s;
}
.dots i:nth-child(3) {
  background: var(--ink);
  animation-delay: 0.3s;
}
@keyframes wait {
  50% {
    opacity: 0.25;
  }
}
.how {
  flex: none;
  width: 126px;
  align-self: center;
  display: grid;
  gap: 3px;
  font-size: 12px;
}
.how label {
  display: flex;
  gap: 6px;
}
.how select {
  width: 100%;
  padding: 2px 4px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
}
</style>

<style>
.strip .advice {
  align-self: center;
  min-width: 21ch;
  max-width: 46ch;
  margin: 0 12px;
  line-height: 1.5;
}
.strip .advice b {
  color: var(--ink);
  font-weight: 500;
}
.strip .tile {
  flex: none;
  width: 84px;
}
</style>
