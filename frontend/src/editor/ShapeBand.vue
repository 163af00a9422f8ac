<script setup lang="ts">
import IntoPill from '@/editor/IntoPill.vue';
import ColourField from '@/fields/ColourField.vue';
import NumberField from '@/fields/NumberField.vue';
import ShapeIcon from '@/look/ShapeIcon.vue';
import { articled } from '@/marks/keys';
import { colourOf, lineOf } from '@/marks/paint';
import { LINE_WIDTH, SHAPES } from '@/marks/shapes';
import { useActions } from '@/stores/actions';
import { SNAP_WORDS, useSnaps } from '@/stores/snaps';
import { useStyle } from '@/stores/style';
import { useView } from '@/stores/view';

/** Every primitive, always visible: icon, word and key. */
const view = useView();
const style = useStyle();
const snaps = useSnaps();
const { actions } = useActions();
</script>

<template>
  <nav class="band" aria-label="Shape band">
    <button
      v-for="shape in SHAPES"
      :key="shape.kind"
      class="chip"
      :class="{ on: view.tool === shape.kind }"
      :aria-pressed="view.tool === shape.kind"
      :title="`Draw ${articled(shape.word.toLowerCase())} (${shape.key})`"
      @click="view.tool = view.tool === shape.kind ? 'pick' : shape.kind"
    >
      <ShapeIcon :kind="shape.kind" />
      {{ shape.word }}
      <kbd>{{ shape.key }}</kbd>
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
    <IntoPill />
    <span class="rule" />
    <v-menu :close-on-content-click="false">
      <template #activator="{ props: activator }">
        <button
          v-bind="activator"
          class="snap"
          :class="{ off: !snaps.all }"
          title="What is snapped to (N switches all)"
        >
          {{ snaps.all ? '◉' : '○' }} Snap
        </button>
      </template>
      <div class="panel">
        <label><input v-model="snaps.all" type="checkbox" /> <b>snap</b> <kbd>N</kbd></label>
        <label v-for="(word, kind) in SNAP_WORDS" :key="kind">
          <input v-model="snaps.on[kind]" type="checkbox" :disabled="!snaps.all" /> {{ word }}
        </label>
        <NumberField
          label="grid step"
          :value="snaps.grid"
          :rule="{ min: 0, max: 10000, above: true }"
          @change="snaps.grid = $event"
        />
      </div>
    </v-menu>
    <span class="rule" />
    <v-menu :close-on-content-click="false">
      <template #activator="{ props: activator }">
        <button
          v-bind="activator"
          class="new"
          title="Paint of new shapes (P takes the selection's)"
        >
          <span class="soft">New shapes</span>
          <span
            class="swatch"
            :class="{ nothing: !style.fill }"
            :style="{ background: style.fill ?? undefined, opacity: style.ink.opacity }"
          />
          <span
            v-if="style.line"
            class="swatch line"
            :style="{ borderColor: colourOf(style.line.paint) ?? undefined }"
          />
          <span v-else class="soft">no line</span>
        </button>
      </template>
      <div class="panel">
        <h4>Fill</h4>
        <ColourField
          :fill="style.fill"
          label="Fill of new shapes"
          none
          @choose="style.set({ fill: $event })"
        />
        <h4>Line</h4>
        <ColourField
          :fill="style.line ? colourOf(style.line.paint) : null"
          label="Line of new shapes"
          none
          @choose="
            style.set({
              lines: $event
                ? [
                    {
                      ...(style.line ?? lineOf({ paint: $event, width: LINE_WIDTH })),
                      paint: $event,
                    },
                  ]
                : [],
            })
          "
        >
          <NumberField
            v-if="style.line"
            label="width"
            :value="style.line.width"
            :rule="{ min: 0, max: 1e6, above: true }"
            @change="style.set({ lines: [{ ...style.line!, width: $event }] })"
          />
        </ColourField>
        <NumberField
          label="opacity"
          :value="style.ink.opacity * 100"
          :rule="{ min: 0, max: 100 }"
          unit="%"
          @change="style.set({ opacity: $event / 100 })"
        />
      </div>
    </v-menu>
    <button
      class="take soft"
      :disabled="!actions.takePaint!.can()"
      title="New shapes get the paint of the selected one (P)"
      @click="actions.takePaint!.run()"
    >
      take
    </button>
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
  gap: 5px;
  padding: 5px 8px 5px 5px;
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
  margin: 0 6px;
  background: var(--rule);
}
.swatch {
  width: 22px;
  height: 22px;
  border-radius: 50%;
  border: 1px solid var(--ink);
}
.swatch.nothing {
  background: linear-gradient(45deg, #fff 46%, var(--clay) 46%, var(--clay) 54%, #fff 54%);
}
.swatch.line {
  border-width: 4px;
}
.take {
  margin-left: 2px;
  padding: 2px 8px;
  border: 1px solid var(--rule);
  border-radius: 12px;
}
.take:hover:not(:disabled) {
  border-color: var(--clay);
  color: var(--ink);
}
.take:disabled {
  opacity: 0.5;
  cursor: default;
}
.snap,
.new {
  display: flex;
  align-items: center;
  gap: 6px;
  white-space: nowrap;
}
.snap {
  color: var(--moss);
}
.snap.off {
  color: var(--soft);
}
.panel {
  display: grid;
  gap: 5px;
  min-width: 230px;
  padding: 12px 16px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 16px;
}
.panel label {
  display: flex;
  gap: 8px;
}
h4 {
  margin: 4px 0 0;
  font-size: 12px;
}
@media (width < 1400px) {
  .band {
    gap: 2px;
  }
  .chip {
    gap: 4px;
    padding: 5px 6px 5px 4px;
  }
  .rule {
    margin: 0 4px;
  }
}
@media (width < 1150px) {
  .band {
    gap: 1px;
    padding: 0 8px;
  }
  .chip {
    gap: 3px;
    padding: 5px 4px 5px 2px;
  }
  .chip svg {
    width: 21px;
  }
  .new .soft {
    display: none;
  }
  .rule {
    margin: 0 2px;
  }
}
</style>
