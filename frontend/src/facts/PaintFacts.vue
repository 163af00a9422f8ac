<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue';

import type { Blend, ContrastAnswer, Figure, Gradient, Line, Look, Node } from '@/api/types';
import EffectFacts from '@/facts/EffectFacts.vue';
import LineRow from '@/facts/LineRow.vue';
import SwatchSheet from '@/facts/SwatchSheet.vue';
import ColourField from '@/fields/ColourField.vue';
import InkField from '@/fields/InkField.vue';
import NumberField from '@/fields/NumberField.vue';
import { common } from '@/marks/common';
import { angleOf, ledTo, shadedAs } from '@/marks/gradients';
import { kindOf } from '@/marks/kinds';
import { BLENDS } from '@/marks/lines';
import { gradientOf, lineOf } from '@/marks/paint';
import { LINE_WIDTH } from '@/marks/shapes';
import { useColours } from '@/stores/colours';
import { useDrawing } from '@/stores/drawing';
import { useTwins } from '@/stores/twins';

/** Fill and lines, of what holds shapes those of all in it; and what is done with all of it. */
const props = defineProps<{ nodes: Node[]; figures: readonly Figure[] }>();

const SHARE = { min: 0, max: 100 };

const drawing = useDrawing();
const colours = useColours();
const twins = useTwins();
const swatches = ref(false);

function painted(node: Node): Node[] {
  const inner = kindOf(node).painted(node);
  return inner.length ? inner.flatMap(painted) : [node];
}

const all = computed(() => props.nodes.flatMap(painted));
/** What has a fill and lines: underlays have none. */
const inked = computed(() => all.value.filter((node) => node.kind !== 'image'));
/** The fill that all of them have. */
const fill = computed(() => common(inked.value, ({ look }) => look.fill));
const lines = computed(() => common(inked.value, ({ look }) => look.lines) as Line[] | undefined);
const opacity = computed(() => common(props.nodes, ({ look }) => look.opacity * 100));
const blend = computed(() => common(props.nodes, ({ look }) => look.blend));
/** Whether any of them has ends, which marks are for. */
const hasEnds = computed(() => props.figures.some((figure) => figure.area !== null));

/** The gradient that fills a shape alone, and where it leads. */
const run = computed(() => {
  const figure = props.figures[0];
  const gradient = gradientOf(props.nodes[0]?.look.fill) as Gradient | null;
  if (!figure || !gradient || props.nodes.length > 1 || inked.value[0] !== props.nodes[0])
    return null;
  return { figure, gradient, angle: angleOf(figure, gradient) };
});

const PARTS: readonly { word: string; parts: ('fill' | 'line' | 'effects')[] }[] = [
  { word: 'all', parts: ['fill', 'line', 'effects'] },
  { word: 'fill', parts: ['fill'] },
  { word: 'line', parts: ['line'] },
  { word: 'effects', parts: ['effects'] },
];

/** Gives all others paint of the one that was picked first, or a part of it. */
function copy(parts: ('fill' | 'line' | 'effects')[]): void {
  const [source, ...others] = props.nodes.map((node) => node.id);
  void drawing.do('copy-paint', { source: source!, ids: others, parts });
}

/** Not while one clicks through shapes, or drags. */
const REST_MS = 400;
const ratio = shallowRef<ContrastAnswer | null>(null);
watch(
  [() => props.nodes, () => drawing.revision],
  (_now, _was, onCleanup) => {
    const asked = setTimeout(() => void compare(), REST_MS);
    onCleanup(() => clearTimeout(asked));
  },
  { immediate: true },
);

/** Tells how the fill of a shape alone stands out from what lies beneath it. */
async function compare(): Promise<void> {
  const [node, ...others] = props.nodes;
  const told = node && !others.length && node.look.fill && node.kind !== 'piece';
  ratio.value = told ? await colours.contrast(node.id) : null;
}

function paint(fields: Partial<Look>): void {
  const ids = props.nodes.map((node) => node.id);
  void drawing.run(twins.here('paint', { ids, ...fields }));
}

function setLine(place: number, fields: Partial<Line>): void {
  paint({ lines: lines.value!.map((line, i) => (i === place ? { ...line, ...fields } : line)) });
}

function addLine(): void {
  const outermost = lines.value?.at(-1);
  // The next one lies round those before it.
  const away = outermost ? outermost.away + outermost.width : 0;
  const fresh = lineOf({ paint: '#22303C', width: LINE_WIDTH, away });
  paint({ lines: [...(lines.value ?? []), fresh] });
}

function spread(event: Event): void {
  const select = event.target as HTMLSelectElement;
  const over = select.value;
  select.value = '';
  const own = gradientOf(fill.value ?? inked.value[0]?.look.fill) as Gradient;
  const gradient = shadedAs(own.shape, own);
  if (over === 'each') return paint({ fill: gradient });
  const ids = props.nodes.map((node) => node.id);
  void drawing.do('spread-gradient', { ids, gradient, over: over as 'together' | 'plate' });
}
</script>

<template>
  <section>
    <h3>
      Paint
      <button class="more soft" @click="swatches = true">colours…</button>
    </h3>
    <InkField
      v-if="inked.length"
      :fill="fill"
      label="Fill"
      none
      @focusin="colours.touched = null"
      @choose="paint({ fill: $event })"
    />
    <NumberField
      v-if="run"
      label="leads to"
      says="the angle on the plate that the gradient runs to"
      :value="run.angle"
      unit="°"
      @change="paint({ fill: ledTo(run!.figure, run!.gradient, $event) })"
    />
    <label v-if="gradientOf(inked[0]?.look.fill)" class="pair soft spread">
      spread over
      <select aria-label="Spread gradient over" @change="spread">
        <option value="" selected>as it is</option>
        <option value="each">{{ nodes.length > 1 ? 'each shape' : 'the shape' }}</option>
        <option v-if="nodes.length > 1 || all.length > 1" value="together">all together</option>
        <option value="plate">the plate</option>
      </select>
    </label>
    <div class="two">
      <NumberField
        label="opacity"
        :value="opacity"
        path="look.opacity"
        :times="0.01"
        :rule="SHARE"
        unit="%"
        @change="paint({ opacity: $event / 100 })"
      />
      <label v-if="inked.length" class="pair soft">
        blend
        <select
          :value="blend ?? ''"
          aria-label="Blend"
          @change="paint({ blend: ($event.target as HTMLSelectElement).value as Blend })"
        >
          <option v-if="!blend" value="" disabled>mixed</option>
          <option v-for="mode in BLENDS" :key="mode" :value="mode">{{ mode }}</option>
        </select>
      </label>
    </div>
    <p v-if="ratio" class="soft note" data-testid="contrast">
      contrast {{ ratio.contrast.toFixed(1) }} : 1 against
      <i class="beneath" :style="{ background: ratio.beneath }" /> beneath
    </p>
    <div v-if="nodes.length > 1" class="take soft">
      <span :title="nodes[0]!.name">like {{ nodes[0]!.name }}</span>
      <button v-for="part in PARTS" :key="part.word" @click="copy(part.parts)">
        {{ part.word }}
      </button>
    </div>
  </section>
  <section v-if="inked.length">
    <h3>
      {{ (lines?.length ?? 0) > 1 ? 'Lines' : 'Line' }}
      <button v-if="lines?.length" class="more soft" @click="addLine">add another</button>
    </h3>
    <ColourField
      v-if="lines && !lines.length"
      :fill="null"
      label="Line"
      none
      @choose="paint({ lines: [lineOf({ paint: $event!, width: LINE_WIDTH })] })"
    >
      <NumberField
        label="width"
        :value="0"
        :rule="{ min: 0, max: 1e6 }"
        @change="paint({ lines: [lineOf({ paint: '#22303C', width: $event })] })"
      />
    </ColourField>
    <p v-if="!lines" class="soft note">
      These shapes have different lines;
      <button @click="paint({ lines: [] })">take all off</button>.
    </p>
    <div v-else-if="lines.length" class="cards">
      <LineRow
        v-for="(line, i) in lines"
        :key="i"
        :line="line"
        :path="`look.lines.${i}`"
        :label="lines.length > 1 ? `Line ${i + 1}` : 'Line'"
        :ends="hasEnds"
        @focusin="colours.touched = i"
        @change="setLine(i, $event)"
        @remove="paint({ lines: lines!.filter((_, place) => place !== i) })"
      />
    </div>
  </section>
  <EffectFacts v-if="inked.length" :nodes="nodes" />
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
.two {
  display: grid;
  gap: 4px;
  margin-top: 8px;
}
.pair {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.note {
  margin: 8px 0 0;
}
.beneath {
  display: inline-block;
  width: 11px;
  height: 11px;
  border: 1px solid var(--ink);
  border-radius: 50%;
  vertical-align: -1px;
}
.take {
  display: flex;
  gap: 8px;
  margin-top: 8px;
}
.take span {
  overflow: hidden;
  min-width: 0;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.take button,
.note button {
  color: var(--tide);
}
.spread {
  margin-top: 8px;
}
select {
  padding: 2px 4px;
  border: 1px solid var(--rule);
  border-radius: 9px;
  background: #fff;
  color: var(--ink);
}
.cards {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
</style>
