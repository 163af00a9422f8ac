<script setup lang="ts">
import { SHAPES } from '@/editor/shapes';
import ShapeIcon from '@/look/ShapeIcon.vue';
import { SWATCHES } from '@/look/swatches';
import { useView } from '@/stores/view';

/** Every primitive, always visible: icon, word and digit key. */
const view = useView();
</script>

<template>
  <nav class="band" aria-label="Shape band">
    <button
      v-for="shape in SHAPES"
      :key="shape.kind"
      class="chip"
      :class="{ on: view.tool === shape.kind }"
      :aria-pressed="view.tool === shape.kind"
      :title="`Draw a ${shape.word.toLowerCase()} (${shape.digit})`"
      @click="view.tool = view.tool === shape.kind ? 'pick' : shape.kind"
    >
      <ShapeIcon :kind="shape.kind" />
      {{ shape.word }}
      <kbd>{{ shape.digit }}</kbd>
    </button>
    <button
      class="chip"
      :class="{ on: view.tab === 'shelf' }"
      :aria-pressed="view.tab === 'shelf'"
      title="Show the shelf (0)"
      @click="view.tab = view.tab === 'shelf' ? 'stack' : 'shelf'"
    >
      <svg viewBox="0 0 24 24" aria-hidden="true">
        <path
          d="M3 20h18M6 20v-7M12 20V7M18 20v-5"
          fill="none"
          stroke="currentColor"
          stroke-width="1.8"
        />
        <g fill="currentColor">
          <circle cx="6" cy="11" r="2" />
          <circle cx="12" cy="5" r="2" />
          <circle cx="18" cy="13" r="2" />
        </g>
      </svg>
      Shelf
      <kbd>0</kbd>
    </button>
    <span class="rule" />
    <span class="soft">New shapes</span>
    <v-menu>
      <template #activator="{ props: activator }">
        <button
          v-bind="activator"
          class="swatch"
          :style="{ background: view.fill }"
          aria-label="Paint of new shapes"
          title="Paint of new shapes"
        />
      </template>
      <div class="menu">
        <button
          v-for="swatch in SWATCHES"
          :key="swatch.fill"
          class="swatch"
          :style="{ background: swatch.fill }"
          :aria-label="`New shapes in ${swatch.name}`"
          :title="swatch.name"
          @click="view.fill = swatch.fill"
        />
      </div>
    </v-menu>
  </nav>
</template>

<style scoped>
.band {
  display: flex;
  align-items: center;
  gap: 4px;
  padding: 0 12px;
  background: var(--card);
  border-bottom: 1px solid var(--rule);
}
.chip {
  display: flex;
  align-items: center;
  gap: 7px;
  padding: 5px 11px 5px 7px;
  border-radius: 20px;
}
.chip svg {
  width: 24px;
  height: 24px;
}
.chip kbd {
  font-size: 10px;
  color: var(--soft);
}
.chip:hover {
  background: #f5eee1;
}
.chip.on {
  background: var(--chosen);
  box-shadow: inset 0 0 0 1.5px var(--clay);
}
.rule {
  width: 1px;
  height: 28px;
  margin: 0 10px;
  background: var(--rule);
}
.swatch {
  width: 22px;
  height: 22px;
  border-radius: 50%;
  border: 1px solid var(--ink);
}
.band > .swatch {
  margin-left: 6px;
}
.menu {
  display: flex;
  gap: 8px;
  padding: 10px 12px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 16px;
}
</style>
