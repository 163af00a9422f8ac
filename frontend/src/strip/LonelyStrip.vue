<script setup lang="ts">
import { computed, onScopeDispose, shallowRef, watch } from 'vue';

import client, { answered } from '@/api/client';
import type { Contours, Piece } from '@/api/types';
import PathPicture from '@/look/PathPicture.vue';
import { staysLive } from '@/marks/kinds';
import { useActions } from '@/stores/actions';
import { newId, useDrawing } from '@/stores/drawing';
import { latestWins } from '@/stores/latestWins';
import type { Row } from '@/stores/selection';
import { useSelection } from '@/stores/selection';
import { useTwins } from '@/stores/twins';
import { useView } from '@/stores/view';
import HomeTile from '@/strip/HomeTile.vue';
import StripTile from '@/strip/StripTile.vue';

/** What can be done with one shape: keep it, pick its regions, settle it, lift contours out. */
const props = defineProps<{ row: Row }>();
const emit = defineEmits<{ keep: [] }>();

/** So many contours can be told apart as pictures. */
const MOST = 24;

const drawing = useDrawing();
const selection = useSelection();
const twins = useTwins();
const view = useView();
const { actions } = useActions();
const contours = shallowRef<readonly Piece[]>([]);

const node = computed(() => props.row.node);
const figure = computed(() => selection.figureById.get(node.value.id));
const above = computed(() =>
  props.row.parent ? selection.rowById.get(props.row.parent)!.node : null,
);
const isUnderlay = computed(() => node.value.kind === 'image');
const isCompound = computed(() => node.value.kind === 'compound');
const isLive = computed(() => staysLive(node.value));

const asked = latestWins(
  (id: string) =>
    answered<Contours>(
      client.POST('/api/drawings/{drawing_id}/contours', {
        params: { path: { drawing_id: drawing.id } },
        body: { revision: drawing.revision, id },
      }),
    ),
  (found) => (contours.value = found.contours),
);
watch(
  [() => node.value.id, () => drawing.revision],
  ([id]) => {
    contours.value = [];
    view.outcome = null;
    if (node.value.kind === 'path' || isCompound.value) asked.ask(id);
    else asked.cancel();
  },
  { immediate: true },
);
onScopeDispose(asked.cancel);

/** What can be done with words. */
const LETTERS = [
  {
    name: 'type',
    word: 'Type',
    title: 'Change the words (Enter, or a double click)',
    icon: 'M10 44 22 14h2l12 30M14.500 34h17M46 12v36M41 12h10M41 48h10',
  },
  {
    name: 'spaceLetters',
    word: 'Space letters',
    title: 'The gap between each two letters, one by one (Shift+V)',
    icon: 'M8 44 17 14h2l9 30M36 14h16M44 14v30M27 52h10M30 49l-4 3 4 3M34 49l4 3-4 3',
  },
  {
    name: 'takeOffLine',
    word: 'Off the line',
    title: 'Straight again, the line under it (Shift+Q)',
    icon: 'M10 50C10 36 52 36 52 50M22 28 30 8h2l8 20M25 21h12',
  },
  {
    name: 'breakIntoLetters',
    word: 'Into letters',
    title: 'A group of one path for each letter (Shift+Y)',
    icon: 'M8 44 17 14h2l9 30M12 34h12M38 14v30M38 44h14M32 8v42',
  },
] as const;
/** What repeats it live. */
const REPEATS = [
  {
    name: 'spin',
    word: 'Spin',
    title: 'Live copies round the middle of the plate (@)',
    icon: 'M31 4a6 6 0 0 1 0 12 6 6 0 0 1 0-12M48 20a6 6 0 0 1 0 12 6 6 0 0 1 0-12M42 40a6 6 0 0 1 0 12 6 6 0 0 1 0-12M20 40a6 6 0 0 1 0 12 6 6 0 0 1 0-12M14 20a6 6 0 0 1 0 12 6 6 0 0 1 0-12',
  },
  {
    name: 'row',
    word: 'Row',
    title: 'Live copies in a row, or a grid (:)',
    icon: 'M6 20h12v16H6zM25 20h12v16H25zM44 20h12v16H44z',
  },
  {
    name: 'mirrorLive',
    word: 'Mirror',
    title: 'A live mirrored half, across an axis at its right edge (|)',
    icon: 'M31 6v44M25 14v28H8zM37 14v28h17z',
  },
] as const;
const offered = computed(() => [...LETTERS, ...REPEATS].filter(({ name }) => actions[name].can()));

const liftable = computed(() =>
  !isCompound.value && contours.value.length > 1 ? contours.value.slice(0, MOST) : [],
);
const holes = computed(() => (isCompound.value ? contours.value.slice(0, MOST) : []));
const isFilled = computed(() => node.value.kind === 'compound' && node.value.filled.length > 0);

function fill(hole: number): void {
  view.outcome = null;
  void drawing.run({ kind: 'fill-hole', id: node.value.id, hole });
}

async function lift(contour: number): Promise<void> {
  view.outcome = null;
  const id = newId();
  if (await drawing.run({ kind: 'lift-out', id: node.value.id, contour, new_id: id }))
    selection.pick(id);
}
</script>

<template>
  <div class="count soft">
    <div class="name" :title="node.name">{{ node.name }}</div>
    {{ isUnderlay ? 'underlay' : `${figure?.node_count ?? 'no'} nodes` }}
  </div>
  <StripTile
    v-if="!row.role && !isUnderlay && figure"
    word="Put on shelf"
    how="under a name"
    title="Keep this shape under a name"
    @click="emit('keep')"
  >
    <path d="M9 46h44M17 46V31M31 46V18M45 46V34" />
    <circle cx="17" cy="27" r="4.5" class="dot" />
    <circle cx="31" cy="14" r="4.5" class="dot" />
    <circle cx="45" cy="30" r="4.5" class="dot" />
  </StripTile>
  <StripTile
    v-if="actions.makeTwin.can() && figure"
    :word="node.kind === 'twin' ? 'One more twin' : 'Make twin'"
    :how="actions.makeTwin.key"
    title='A copy beside it that follows whatever is changed in either (")'
    @click="actions.makeTwin.run()"
  >
    <circle cx="19" cy="29" r="12" />
    <circle cx="43" cy="29" r="12" />
    <circle cx="31" cy="29" r="4.5" class="dot" />
  </StripTile>
  <template v-if="figure">
    <StripTile
      v-for="{ name, word, icon, title } in offered"
      :key="name"
      :word="word"
      :how="actions[name].key"
      :title="title"
      @click="actions[name].run()"
    >
      <path :d="icon" />
    </StripTile>
  </template>
  <StripTile
    v-if="node.kind === 'regions'"
    word="Pick again"
    how="R"
    title="Pick its regions anew (R)"
    @click="actions.regions!.run()"
  >
    <circle cx="24" cy="29" r="18" />
    <circle cx="39" cy="29" r="18" />
    <circle cx="14" cy="29" r="4.5" class="dot" />
    <circle cx="31.5" cy="29" r="4.5" class="dot" />
    <circle cx="49" cy="29" r="4.5" class="dot" />
  </StripTile>
  <HomeTile />
  <StripTile
    v-if="node.kind === 'group'"
    word="Ungroup"
    how="Shift+U"
    title="Its shapes by themselves again (Shift+U)"
    @click="actions.ungroup!.run()"
  >
    <circle cx="17" cy="20" r="8" />
    <circle cx="45" cy="20" r="8" />
    <circle cx="31" cy="42" r="8" />
  </StripTile>
  <StripTile
    v-if="isLive && figure?.node_count"
    :word="node.kind === 'text' ? 'One path' : 'Settle'"
    how="Shift+S"
    title="Make plain paths of it (Shift+S)"
    @click="actions.settle!.run()"
  >
    <path d="M12 40C12 10 50 10 50 40Z" />
    <circle cx="12" cy="40" r="4" class="node" />
    <circle cx="50" cy="40" r="4" class="node" />
    <circle cx="31" cy="17.5" r="4" class="node" />
  </StripTile>
  <button
    v-for="(hole, i) in figure ? holes : []"
    :key="`hole ${i}`"
    class="tile"
    :aria-label="`Fill hole ${i + 1}`"
    title="Fill this hole; it stays filled as the shapes move"
    @pointerenter="view.outcome = [hole]"
    @focus="view.outcome = [hole]"
    @click="$event.detail < 2 && fill(i)"
  >
    <PathPicture :pieces="[hole]" :box="figure!.bounds" :margin="0.03" />
    <b>Fill hole {{ holes.length > 1 ? i + 1 : '' }}</b>
  </button>
  <StripTile
    v-if="isFilled"
    word="Open holes"
    how="that are filled"
    title="Open again the holes that were filled"
    @click="drawing.run({ kind: 'open-holes', id: node.id })"
  >
    <circle cx="31" cy="29" r="18" />
    <circle cx="31" cy="29" r="8" />
  </StripTile>
  <template v-if="liftable.length && figure">
    <span class="soft lift">Lift<br />out</span>
    <button
      v-for="(contour, i) in liftable"
      :key="i"
      class="tile"
      :aria-label="`Lift out contour ${i + 1}`"
      :title="`Take this contour into a shape of its own`"
      @pointerenter="view.outcome = [contour]"
      @pointerleave="view.outcome = null"
      @focus="view.outcome = [contour]"
      @blur="view.outcome = null"
      @click="lift(i)"
    >
      <PathPicture :pieces="[contour]" :box="figure.bounds" :margin="0.03" />
      <b>contour {{ i + 1 }}</b>
    </button>
  </template>
  <p v-else-if="!figure" class="soft advice">
    <b>{{ node.name }}</b> cannot be shown: its facts say why.
  </p>
  <p v-else-if="row.role" class="soft advice">
    <b>{{ node.name }}</b> is a member of <b>{{ above?.name }}</b>. Drag it, or change its numbers
    and its role: the mark follows.
  </p>
  <p v-else-if="row.strand === 'pieces'" class="soft advice">
    <b>{{ node.name }}</b> is a piece of <b>{{ above?.name }}</b>. Drag it, turn it, paint it or
    change its numbers: it alone changes. Delete drops it.
  </p>
  <p v-else-if="twins.isCopy(row)" class="soft advice">
    <b>{{ node.name }}</b> is a copy, and stands where <b>{{ above?.name }}</b> puts it. Go in by a
    double click: what is changed there is changed in all.
  </p>
  <p v-else-if="above" class="soft advice">
    <b>{{ node.name }}</b> lies inside <b>{{ above.name }}</b>. Drag it, or change its numbers: what
    holds it follows.
  </p>
  <p v-else-if="isUnderlay" class="soft advice">
    There to build over: it takes no part in outcomes or exports.
    {{ row.held ? 'L unlocks it, to be moved.' : 'L locks it where it is.' }}
  </p>
  <p v-else-if="!selection.operands.length && node.kind !== 'text'" class="soft advice">
    Shift-click a second shape, and every way to combine the two appears here as a picture.
  </p>
</template>

<style scoped>
.count {
  flex: none;
  width: 62px;
  align-self: center;
  font-size: 12px;
}
/* A long name leaves room for the number of nodes. */
.name {
  display: -webkit-box;
  overflow: hidden;
  overflow-wrap: anywhere;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
}
.lift {
  flex: none;
  align-self: center;
  margin: 0 4px 0 10px;
  font-size: 12px;
}
</style>
