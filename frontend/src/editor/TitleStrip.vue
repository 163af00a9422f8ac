<script setup lang="ts">
import { computed, ref } from 'vue';
import { RouterLink } from 'vue-router';

import NewPlate from '@/editor/NewPlate.vue';
import DotLogo from '@/look/DotLogo.vue';
import PathPicture from '@/look/PathPicture.vue';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import { useView } from '@/stores/view';

/** The drawing's name and state, its plates, undo and redo, zoom, and the way out. */
const emit = defineEmits<{ fit: [] }>();

const drawing = useDrawing();
const selection = useSelection();
const view = useView();
const addingPlate = ref(false);
const naming = ref(false);

const saved = computed(
  () =>
    ({
      saved: { text: 'saved', mark: 'ok' },
      saving: { text: 'saving…', mark: 'busy' },
      offline: { text: 'not saved: server away, trying again', mark: 'off' },
    })[drawing.saveState],
);

const tabs = computed(() =>
  drawing.plates.flatMap((id) => {
    const head = drawing.heads[id];
    if (!head) return [];
    const pieces = head.nodes.flatMap((key) => {
      const node = drawing.shown.nodes[key];
      const figure = drawing.shown.figures[key]?.[0];
      return node?.fill && figure
        ? [{ path: figure.path, fill: node.fill, fill_rule: figure.fill_rule }]
        : [];
    });
    return [{ id, head, pieces, box: { x0: 0, y0: 0, x1: head.width, y1: head.height } }];
  }),
);
const exportAddress = computed(() => `/api/drawings/${drawing.id}/plates/${selection.plate}.svg`);

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
    <span class="saved" :class="saved.mark" role="status">● {{ saved.text }}</span>
    <div class="tabs" role="tablist" aria-label="Plates">
      <button
        v-for="tab in tabs"
        :key="tab.id"
        class="tab"
        role="tab"
        :class="{ on: tab.id === selection.plate }"
        :aria-selected="tab.id === selection.plate"
        :title="tab.head.name"
        @click="selection.plate = tab.id"
      >
        <PathPicture :pieces="tab.pieces" :box="tab.box" />
        <span>{{ tab.head.name }}</span>
      </button>
      <button class="tab add" title="Add a plate" @click="addingPlate = true">+ plate</button>
    </div>
    <div class="right">
      <button
        class="step"
        :disabled="!drawing.undoLabel"
        :title="drawing.undoLabel ? `Undo ${drawing.undoLabel} (Ctrl+Z)` : 'Nothing to undo'"
        :aria-label="drawing.undoLabel ? `Undo ${drawing.undoLabel}` : 'Nothing to undo'"
        @click="drawing.undo()"
      >
        ↶ <span>{{ drawing.undoLabel }}</span>
      </button>
      <button
        class="step"
        :disabled="!drawing.redoLabel"
        :title="drawing.redoLabel ? `Redo ${drawing.redoLabel} (Ctrl+Shift+Z)` : 'Nothing to redo'"
        :aria-label="drawing.redoLabel ? `Redo ${drawing.redoLabel}` : 'Nothing to redo'"
        @click="drawing.redo()"
      >
        ↷
      </button>
      <button class="zoom mono" title="Fit the plate to the desk (F)" @click="emit('fit')">
        {{ Math.round(view.zoom * 100) }} %
      </button>
      <a class="export" :href="exportAddress" download title="Download this plate as SVG">
        Export SVG
      </a>
    </div>
    <v-dialog v-model="addingPlate">
      <NewPlate :number="drawing.plates.length + 1" @close="addingPlate = false" />
    </v-dialog>
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
  position: sticky;
  right: 0;
  padding-left: 11px;
  background: var(--card);
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
  text-decoration: none;
}
.export:hover {
  background: #a53d28;
}
</style>
