<script setup lang="ts">
import { computed } from 'vue';

import type { Figure, Node } from '@/api/types';
import NumberField from '@/fields/NumberField.vue';
import { common } from '@/marks/common';
import { kindOf } from '@/marks/kinds';
import { shortNumber } from '@/marks/numbers';
import type { Parameter } from '@/marks/parameters';
import { parameterFields, pathsOf, valuesOf } from '@/marks/parameters';
import { useDrawing } from '@/stores/drawing';

/** The parameters that all the selected shapes have, whatever else they are. */
const props = defineProps<{ nodes: Node[]; figures: Figure[] }>();

const CORNERS = ['top left', 'top right', 'bottom right', 'bottom left'];
const RADIUS = { min: 0, max: 1e6 };

const drawing = useDrawing();

const parameters = computed(() => {
  const [first, ...others] = props.nodes.map((node) => kindOf(node).parameters(node));
  return (first ?? []).filter((parameter) =>
    others.every((other) => other.some((each) => each.key === parameter.key)),
  );
});
const boxes = computed(() =>
  props.nodes.flatMap((node) => (node.kind === 'rectangle' ? [node] : [])),
);
const each = computed(
  () => boxes.value.length === props.nodes.length && boxes.value.some((box) => box.radii),
);

function valueOf(node: Node, key: string): number {
  return valuesOf(node)[key] ?? 0;
}

function setParameter(parameter: Parameter, typed: number): void {
  const fields = parameterFields(parameter, typed, valuesOf(props.nodes[0]!));
  run({ parameters: fields });
}

function value(parameter: Parameter): number | undefined {
  const { of } = parameter;
  if (of) return common(props.nodes, (node) => of.shown(valuesOf(node)));
  if (parameter.key === 'radius' && boxes.value.some((box) => box.radii)) return undefined;
  return common(props.nodes, (node) => valueOf(node, parameter.key));
}

function run(fields: object): void {
  const ids = props.nodes.map((node) => node.id);
  void drawing.do('set-parameters', { ids, ...fields });
}

function radiiOf(node: (typeof boxes.value)[number]): number[] {
  const { radius = 0 } = node;
  return node.radii ?? [radius, radius, radius, radius];
}

function setCorner(corner: number, radius: number): void {
  const radii = radiiOf(boxes.value[0]!).map((old, i) => (i === corner ? radius : old));
  run({ radii });
}

/** What repeats is called by how. */
const title = computed(() => {
  const kinds = new Set(
    props.nodes.map((node) => (node.kind === 'repeat' ? node.layout.kind : '')),
  );
  const [only = ''] = kinds;
  return kinds.size === 1 && only ? only[0]!.toUpperCase() + only.slice(1) : 'Shape';
});

/** Corner radii that are drawn smaller than was asked for. */
const clamped = computed(() => {
  const found = props.figures.flatMap((figure) => Object.values(figure.clamped ?? {}));
  return found.length ? Math.min(...found) : null;
});
</script>

<template>
  <section v-if="parameters.length">
    <h3>{{ title }}</h3>
    <div class="fields">
      <NumberField
        v-for="parameter in parameters"
        :key="parameter.key"
        :label="parameter.word"
        :value="value(parameter)"
        :rule="parameter"
        :unit="parameter.unit"
        :path="pathsOf(parameter, nodes[0]!)"
        :times="parameter.of?.times"
        @change="setParameter(parameter, $event)"
      />
      <template v-if="boxes.length === nodes.length">
        <button v-if="!each" class="more soft" @click="run({ radii: radiiOf(boxes[0]!) })">
          each corner by itself
        </button>
        <template v-else>
          <NumberField
            v-for="(corner, i) in CORNERS"
            :key="corner"
            :label="corner"
            :value="common(boxes, (box) => radiiOf(box)[i]!)"
            :rule="RADIUS"
            :path="`radii.${i}`"
            @change="setCorner(i, $event)"
          />
        </template>
      </template>
    </div>
    <p v-if="clamped !== null" class="soft note">
      Drawn with {{ shortNumber(clamped) }}, the most that fits; it comes back when there is room.
    </p>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 6px;
  margin-top: 6px;
}
.more {
  justify-self: end;
  padding: 2px;
  font-size: 11.5px;
}
.more:hover {
  color: var(--ink);
}
</style>
