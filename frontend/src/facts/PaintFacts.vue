<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Node } from '@/api/types';
import SwatchSheet from '@/facts/SwatchSheet.vue';
import ColourField from '@/fields/ColourField.vue';
import NumberField from '@/fields/NumberField.vue';
import { common } from '@/marks/common';
import { kindOf } from '@/marks/kinds';
import { LINE_WIDTH } from '@/marks/shapes';
import { useDrawing } from '@/stores/drawing';

/** Fill, line and opacity; of a group or region build those of all that it holds. */
const props = defineProps<{ nodes: Node[] }>();

const WIDTH = { min: 0, max: 1e6, above: true };
const SHARE = { min: 0, max: 100 };

const drawing = useDrawing();
const swatches = ref(false);

function painted(node: Node): Node[] {
  const inner = kindOf(node).painted(node);
  return inner.length ? inner.flatMap(painted) : [node];
}

const all = computed(() => props.nodes.flatMap(painted));
/** What has a fill and a line: underlays have none. */
const inked = computed(() => all.value.filter((node) => node.kind !== 'image'));
/** The fill that all of them have. */
const fill = computed(() => common(inked.value, ({ look }) => look.fill));
const colour = computed(() => common(inked.value, ({ look }) => look.line?.colour ?? null));
const width = computed(() => common(inked.value, ({ look }) => look.line?.width ?? 0));
const opacity = computed(() => common(all.value, ({ look }) => look.opacity * 100));

function paint(fields: object): void {
  const ids = props.nodes.map((node) => node.id);
  void drawing.do('paint', { ids, ...fields });
}

function setLine(next: { colour?: string | null; width?: number }): void {
  if (next.colour === null || next.width === 0) return paint({ line: null });
  const line = {
    colour: next.colour ?? colour.value ?? '#22303C',
    width: next.width ?? (width.value || LINE_WIDTH),
  };
  paint({ line });
}
</script>

<template>
  <section>
    <h3>
      Paint
      <button class="more soft" @click="swatches = true">colours…</button>
    </h3>
    <ColourField
      v-if="inked.length"
      :fill="fill"
      label="Fill"
      none
      @choose="paint({ fill: $event })"
    />
    <div class="one">
      <NumberField
        label="opacity"
        :value="opacity"
        :rule="SHARE"
        unit="%"
        @change="paint({ opacity: $event / 100 })"
      />
    </div>
  </section>
  <section v-if="inked.length">
    <h3>Line</h3>
    <ColourField :fill="colour" label="Line" none @choose="setLine({ colour: $event })">
      <NumberField
        label="width"
        :value="width"
        :rule="{ ...WIDTH, above: false }"
        @change="setLine({ width: $event })"
      />
    </ColourField>
  </section>
  <v-dialog v-model="swatches"><SwatchSheet @close="swatches = false" /></v-dialog>
</template>

<style scoped>
h3 {
  display: flex;
  justify-content: space-between;
}
.more {
  font-weight: 400;
}
.more:hover {
  color: var(--ink);
}
.one {
  margin-top: 8px;
}
</style>
