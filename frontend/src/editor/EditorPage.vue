<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue';

import { RefusedError } from '@/api/client';
import TheDesk from '@/desk/TheDesk.vue';
import HintLine from '@/editor/HintLine.vue';
import KeySheet from '@/editor/KeySheet.vue';
import NotKept from '@/editor/NotKept.vue';
import ShapeBand from '@/editor/ShapeBand.vue';
import TitleStrip from '@/editor/TitleStrip.vue';
import { useKeys } from '@/editor/useKeys';
import ExportDialog from '@/export/ExportDialog.vue';
import type { Exportable } from '@/export/formats';
import FactsPanel from '@/facts/FactsPanel.vue';
import LostPage from '@/look/LostPage.vue';
import OutdatedShapes from '@/shelf/OutdatedShapes.vue';
import PutOnShelf from '@/shelf/PutOnShelf.vue';
import ShelfTab from '@/shelf/ShelfTab.vue';
import StackThread from '@/stack/StackThread.vue';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';
import { waitingFor, wordOf } from '@/stores/waiting';
import ActionStrip from '@/strip/ActionStrip.vue';
import VersionBrowser from '@/versions/VersionBrowser.vue';

/** The editor: one drawing, one plate of it on the desk. */
const props = defineProps<{ id: string }>();

const RETRY_MS = 1000;
const CATCH_UP_MS = 1000;
const drawing = useDrawing();
const selection = useSelection();
const view = useView();

const state = ref<'opening' | 'open' | 'away' | 'lost'>('opening');
const why = ref('');
/** What was done while the server was away, and is kept in the browser. */
const waiting = waitingFor(props.id);
const desk = ref<InstanceType<typeof TheDesk>>();
const strip = ref<InstanceType<typeof ActionStrip>>();
const stack = ref<InstanceType<typeof StackThread>>();
const facts = ref<InstanceType<typeof FactsPanel>>();
const keeping = ref(false);
/** The plate that is put on the shelf; else what is selected. */
const keptPlate = ref<string>();
const keysShown = ref(false);
const versionsShown = ref(false);
const exporting = ref(false);

async function open(): Promise<void> {
  try {
    await drawing.open(props.id);
    const known = sessionStorage.getItem(remembered()) ?? '';
    selection.plate = drawing.plates.includes(known) ? known : (drawing.plates[0] ?? '');
    selection.pick();
    view.tool = 'pick';
    state.value = 'open';
  } catch (error) {
    if (error instanceof RefusedError) {
      why.value = error.message;
      state.value = 'lost';
    } else {
      state.value = 'away';
      setTimeout(() => void open(), RETRY_MS);
    }
  }
}
void open();

/** Steps that were done in another tab, or by someone else, come while one looks on. */
const watching = setInterval(() => {
  if (state.value === 'open' && !document.hidden && drawing.saveState === 'saved')
    drawing.catchUp();
}, CATCH_UP_MS);
onScopeDispose(() => clearInterval(watching));

/** What is selected, this plate, or all of them. */
const exportable = computed<Exportable[]>(() => {
  const { id } = drawing;
  const ids = [...selection.ids];
  return [
    { word: 'this plate', subject: { kind: 'plate', drawing: id, plate: selection.plate } },
    ...(ids.length
      ? [{ word: 'the selection', subject: { kind: 'shapes', drawing: id, ids } } as const]
      : []),
    ...(drawing.plates.length > 1
      ? [{ word: 'all plates', subject: { kind: 'plates', drawing: id } } as const]
      : []),
  ];
});

function keep(plate?: string): void {
  keptPlate.value = plate;
  keeping.value = true;
}

/** Where this tab keeps which plate of the drawing is in hand, over a reload. */
function remembered(): string {
  return `dotstack plate ${props.id}`;
}

watch(
  () => selection.plate,
  (plate) => plate && state.value === 'open' && sessionStorage.setItem(remembered(), plate),
);

/** After a click on a button keys are for the desk, Enter too; the keyboard's own focus stays. */
function letGo(event: MouseEvent): void {
  if (event.detail) (event.target as Element).closest<HTMLElement>('button, a')?.blur();
}

useKeys({
  leave: () => desk.value?.cancel() ?? false,
  fit: () => desk.value?.fit(),
  fitSelection: () => desk.value?.fitSelection(),
  zoom: (factor) => desk.value?.zoom(factor),
  finishPath: (closed) => desk.value?.endPath(closed) ?? false,
  takeBack: () => desk.value?.takeBack() ?? false,
  toWords: () => desk.value?.toWords(),
  openMenu: () => desk.value?.openMenu(),
  askSize: (at) => desk.value?.askSize(at),
  align: () => facts.value?.align(),
  take: (outcome) => void strip.value?.take(outcome),
  rename: (id) => void stack.value?.rename(id),
  showKeys: () => (keysShown.value = true),
  keep: () => selection.ids.length && keep(),
  exportMarks: () => (exporting.value = true),
  showVersions: () => (versionsShown.value = true),
});

watch(
  () => drawing.name,
  (name) => (document.title = name ? `${name} · Dot Stack` : 'Dot Stack'),
);
</script>

<template>
  <LostPage v-if="state === 'lost'" :why="why" />
  <div v-else-if="state === 'away'" class="away" role="status">
    <p>Dot Stack cannot be reached; trying again…</p>
    <p v-if="waiting.length" class="soft">
      {{ waiting.length === 1 ? 'One step waits' : `${waiting.length} steps wait` }} here until it
      is back: {{ waiting.map(({ command }) => wordOf(command)).join(', ') }}.
    </p>
  </div>
  <main v-else-if="state === 'open'" class="editor" @click="letGo">
    <TitleStrip
      class="title"
      @fit="desk?.fit()"
      @versions="versionsShown = true"
      @keep="keep"
      @export="exporting = true"
    />
    <ShapeBand class="band" />
    <div class="side">
      <div class="sides" role="tablist" aria-label="Stack or shelf">
        <button
          v-for="tab in ['stack', 'shelf'] as const"
          :key="tab"
          role="tab"
          :class="{ on: view.tab === tab }"
          :aria-selected="view.tab === tab"
          @click="view.tab = tab"
        >
          {{ tab === 'stack' ? 'Stack' : 'Shelf' }}
        </button>
      </div>
      <div class="scroll">
        <OutdatedShapes />
        <StackThread v-if="view.tab === 'stack'" ref="stack" />
        <ShelfTab v-else />
      </div>
    </div>
    <TheDesk ref="desk" class="desk"><HintLine /></TheDesk>
    <ActionStrip ref="strip" class="actions" @keep="keep()" />
    <FactsPanel ref="facts" class="facts" />
    <v-dialog v-model="keeping">
      <PutOnShelf :plate="keptPlate" @close="keeping = false" />
    </v-dialog>
    <NotKept />
    <v-dialog v-model="exporting">
      <ExportDialog :subjects="exportable" @close="exporting = false" />
    </v-dialog>
    <v-dialog v-model="versionsShown">
      <VersionBrowser @close="versionsShown = false" />
    </v-dialog>
    <v-dialog v-model="keysShown"><KeySheet @close="keysShown = false" /></v-dialog>
  </main>
</template>

<style scoped>
.editor {
  display: grid;
  grid-template:
    't t t' 44px
    'b b b' 56px
    's d f' minmax(0, 1fr)
    's a f' 132px / 252px minmax(0, 1fr) 264px;
  height: 100vh;
  min-width: 1000px;
}
.title {
  grid-area: t;
}
.band {
  grid-area: b;
}
.side {
  grid-area: s;
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: var(--card);
  border-right: 1px solid var(--rule);
}
.sides {
  display: flex;
  gap: 12px;
  padding: 12px 16px 8px;
  font-size: 12px;
}
.sides button {
  color: var(--soft);
}
.sides .on {
  color: var(--ink);
  font-weight: 600;
}
.scroll {
  flex: 1;
  min-height: 0;
  overflow-y: auto;
}
.desk {
  grid-area: d;
}
.actions {
  grid-area: a;
}
.facts {
  grid-area: f;
}
.away {
  margin: 40vh auto;
  text-align: center;
}
</style>
