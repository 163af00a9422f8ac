<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import { RouterLink } from 'vue-router';

import type { Line, Node, Piece } from '@/api/types';
import NewPlate from '@/editor/NewPlate.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import DotLogo from '@/look/DotLogo.vue';
import PathPicture from '@/look/PathPicture.vue';
import { childrenOf, comesInPieces, isActive, piecesOf } from '@/marks/kinds';
import { colourOf, penOf, pieceOf } from '@/marks/paint';
import { useActions } from '@/stores/actions';
import { newId, useDrawing } from '@/stores/drawing';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';
import type { Manner } from '@/stores/view';
import { MANNERS, useView } from '@/stores/view';

/** The drawing's name and state, its plates, undo and redo, zoom, and the way out. */
const emit = defineEmits<{ fit: []; versions: []; keep: [plate: string]; export: [] }>();

const MANNER_WORDS: Record<Manner, [string, string]> = {
  solid: ['Solid', 'shapes as they are painted (G)'],
  glass: ['Glass', 'every fill at 60 %, to see through (G)'],
  wire: ['Wire', 'outlines without paint (G)'],
};
const MANNER_CHOICES = MANNERS.map((value) => {
  const [word, title] = MANNER_WORDS[value];
  return { value, word, title };
});

const drawing = useDrawing();
const selection = useSelection();
const view = useView();
const regions = useRegions();
const { actions } = useActions();
const addingPlate = ref(false);
const naming = ref(false);
const editingPlate = ref(false);
const menu = ref(false);
const menuPlate = ref('');
const menuAt = ref<[number, number]>([0, 0]);
const place = computed(() => drawing.plates.indexOf(menuPlate.value));

/** While regions are picked, each stroke is undone on its own. */
const undoLabel = computed(() => {
  if (regions.open) return regions.canUndo ? 'Stroke' : null;
  return drawing.undoLabel;
});
const redoLabel = computed(() => {
  if (regions.open) return regions.canRedo ? 'Stroke' : null;
  return drawing.redoLabel;
});

/** What is done meanwhile is not lost, and need not be done again. */
const waits = computed(() => (drawing.pending > 1 ? ` · ${drawing.pending} steps wait` : ''));
const saved = computed(
  () =>
    ({
      saved: { text: 'saved', mark: 'ok' },
      saving: { text: 'saving…', mark: 'busy' },
      offline: { text: `not saved: server away, trying again${waits.value}`, mark: 'off' },
    })[drawing.saveState],
);

/** For how many seconds something has been on its way to the disk. */
const seconds = ref(0);
watch(
  () => drawing.saveState,
  (state, _, whenOther) => {
    seconds.value = 0;
    if (state !== 'saving') return;
    const clock = setInterval(() => (seconds.value += 1), 1000);
    whenOther(() => clearInterval(clock));
  },
  { immediate: true },
);

/** What a node paints. */
function paintOfNode(node: Node): Piece[] {
  if (!isActive(node)) return [];
  const whole = figureById.value.get(node.id);
  if (whole?.pieces) return whole.pieces;
  if (node.kind === 'group') return childrenOf(node).flatMap((child) => paintOfNode(child.node));
  if (comesInPieces(node)) return piecesOf(node.id, figureById.value).flatMap(paintOfNode);
  const figure = figureById.value.get(node.id);
  if (!figure) return [];
  const { fill_rule, path } = figure;
  const fill = figure.area === null ? colourOf(node.look.fill) : null;
  const { opacity, lines } = node.look;
  const line = penOf(lines[0] as Line | undefined) ?? null;
  return [pieceOf({ path, fill_rule, fill, line, opacity })];
}

const figureById = computed(
  () =>
    new Map(
      Object.values(drawing.figures)
        .flat()
        .map((figure) => [figure.id, figure]),
    ),
);
/** The plates as they are kept: while something is in hand their pictures wait. */
const tabs = computed(() =>
  drawing.plates.flatMap((id) => {
    const head = drawing.heads[id];
    if (!head) return [];
    const pieces = head.nodes.flatMap((key) => {
      const node = drawing.nodes[key];
      return node ? paintOfNode(node) : [];
    });
    return [{ id, head, pieces, box: { x0: 0, y0: 0, x1: head.width, y1: head.height } }];
  }),
);

const row = ref<HTMLElement>();
watch(
  [() => selection.plate, () => tabs.value.length],
  () => row.value?.querySelector('.on')?.scrollIntoView({ inline: 'nearest', block: 'nearest' }),
  { flush: 'post' },
);

function openPlateMenu(plate: string, event: MouseEvent): void {
  menuPlate.value = plate;
  menuAt.value = [event.clientX, event.clientY];
  menu.value = true;
}

function movePlate(by: number): void {
  const index = drawing.plates.indexOf(menuPlate.value) + by;
  void drawing.run({ kind: 'move-plate', plate: menuPlate.value, index });
}

async function duplicatePlate(): Promise<void> {
  const id = newId();
  if (await drawing.run({ kind: 'duplicate-plate', plate: menuPlate.value, id }))
    selection.plate = id;
}

function removePlate(): void {
  void drawing.run({ kind: 'remove-plate', plate: menuPlate.value });
}

async function rename(event: Event): Promise<void> {
  if (!naming.value) return;
  naming.value = false;
  const name = (event.target as HTMLInputElement).value.trim();
  if (name && name !== drawing.name) await drawing.run({ kind: 'rename-drawing', name });
}
</script>

<template>
  <header class="strip">
    <RouterLink to="/" aria-label="All drawings" title="All drawings"><DotLogo /></RouterLink>
    <input
      v-if="naming"
      class="name"
      :value="drawing.name"
      aria-label="Name of the drawing"
      maxlength="120"
      autofocus
      @vue:mounted="({ el }: { el: HTMLInputElement }) => el.select()"
      @keydown.enter="rename"
      @keydown.esc.stop="naming = false"
      @blur="rename"
    />
    <button v-else class="name" title="Rename the drawing" @click="naming = true">
      {{ drawing.name }}
    </button>
    <span class="saved" :class="saved.mark" role="status">
      ● {{ saved.text }}
      <!-- Not read out anew every second. -->
      <span v-if="seconds" aria-hidden="true">{{ seconds }} s{{ waits }}</span>
    </span>
    <div ref="row" class="tabs" role="tablist" aria-label="Plates">
      <button
        v-for="tab in tabs"
        :key="tab.id"
        class="tab"
        role="tab"
        :class="{ on: tab.id === selection.plate }"
        :aria-selected="tab.id === selection.plate"
        :title="`${tab.head.name}: double-click for its size, right-click for more`"
        @click="selection.plate = tab.id"
        @dblclick="((menuPlate = tab.id), (editingPlate = true))"
        @contextmenu.prevent="openPlateMenu(tab.id, $event)"
      >
        <PathPicture :pieces="tab.pieces" :box="tab.box" />
        <span>{{ tab.head.name }}</span>
      </button>
    </div>
    <button class="tab add" title="Add a plate" @click="addingPlate = true">+ plate</button>
    <div class="right">
      <button
        class="step"
        :disabled="!undoLabel"
        :title="undoLabel ? `Undo ${undoLabel} (Ctrl+Z)` : 'Nothing to undo'"
        :aria-label="undoLabel ? `Undo ${undoLabel}` : 'Nothing to undo'"
        @click="regions.open ? regions.undo() : drawing.undo()"
      >
        ↶ <span>{{ undoLabel }}</span>
      </button>
      <button
        class="step"
        :disabled="!redoLabel"
        :title="redoLabel ? `Redo ${redoLabel} (Ctrl+Shift+Z)` : 'Nothing to redo'"
        :aria-label="redoLabel ? `Redo ${redoLabel}` : 'Nothing to redo'"
        @click="regions.open ? regions.redo() : drawing.redo()"
      >
        ↷
      </button>
      <button title="Named states, and all steps as pictures (Ctrl+S)" @click="emit('versions')">
        Versions
      </button>
      <ChoicePill v-model="view.manner" :options="MANNER_CHOICES" label="View" />
      <button class="zoom mono" title="Fit the plate to the desk (F)" @click="emit('fit')">
        {{ Math.round(view.zoom * 100) }} %
      </button>
      <button
        :title="`SVG as shapes, PNG and JPEG as underlays (${actions.import!.key}); they can also be dropped on the desk`"
        @click="actions.import!.run()"
      >
        Import
      </button>
      <button
        class="export"
        title="Save as a file for other programs (Shift+E)"
        @click="emit('export')"
      >
        Export
      </button>
    </div>
    <v-dialog v-model="addingPlate">
      <NewPlate :number="drawing.plates.length + 1" @close="addingPlate = false" />
    </v-dialog>
    <v-dialog v-model="editingPlate">
      <NewPlate :number="0" :plate="menuPlate" @close="editingPlate = false" />
    </v-dialog>
    <v-menu v-model="menu" :target="menuAt">
      <v-list density="compact" aria-label="What can be done with this plate">
        <v-list-item @click="editingPlate = true">Name, size and background…</v-list-item>
        <v-list-item @click="duplicatePlate">Duplicate</v-list-item>
        <v-list-item @click="emit('keep', menuPlate)">Put on shelf…</v-list-item>
        <v-list-item :disabled="place === 0" @click="movePlate(-1)">Move to the left</v-list-item>
        <v-list-item :disabled="place === drawing.plates.length - 1" @click="movePlate(1)">
          Move to the right
        </v-list-item>
        <v-list-item :disabled="drawing.plates.length === 1" @click="removePlate">
          Remove
        </v-list-item>
      </v-list>
    </v-menu>
  </header>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 14px;
  min-width: 0;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
.name {
  flex: none;
  max-width: 190px;
  font-size: 15px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
input.name {
  width: 190px;
  padding: 2px 8px;
  background: #fff;
  border: 1px solid var(--tide);
  border-radius: 10px;
  outline: none;
}
.saved {
  flex: none;
  min-width: 58px;
  font-size: 12px;
}
.ok {
  color: var(--moss);
}
.busy {
  color: #7d5510;
}
.off {
  color: #9e331f;
}
.tabs {
  display: flex;
  gap: 4px;
  margin-left: 8px;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
}
.tab {
  flex: none;
  display: flex;
  gap: 7px;
  align-items: center;
  max-width: 150px;
  padding: 3px 11px 3px 4px;
  border: 1px solid transparent;
  border-radius: 15px;
  color: var(--soft);
}
.tab span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.tab svg {
  flex: none;
  width: 22px;
  height: 22px;
  padding: 2px;
  background: #fff;
  border: 1px solid var(--rule);
  border-radius: 50%;
}
.tab:hover {
  color: var(--ink);
}
.tab.on {
  border-color: var(--rule);
  background: #fff;
  color: var(--ink);
}
.add {
  padding-left: 11px;
}
.right {
  flex: none;
  display: flex;
  gap: 12px;
  align-items: center;
  margin-left: auto;
}
.step {
  display: flex;
  gap: 4px;
  max-width: 140px;
  white-space: nowrap;
}
.step span {
  overflow: hidden;
  text-overflow: ellipsis;
}
.step:disabled {
  color: #9a9384;
  cursor: default;
}
.zoom {
  min-width: 48px;
  text-align: right;
}
.export {
  padding: 6px 15px;
  border-radius: 15px;
  background: var(--clay);
  color: #fff;
  font-weight: 500;
}
.export:hover {
  background: #a53d28;
}
</style>
