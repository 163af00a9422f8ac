<script setup lang="ts">
import { computed } from 'vue';

import type { Command, Role } from '@/api/types';
import type { Parameter } from '@/editor/shapes';
import { ownParameters } from '@/editor/shapes';
import NumberField from '@/facts/NumberField.vue';
import PaintField from '@/facts/PaintField.vue';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** Exact numbers of the selection, and its paint. */
const SIZE = { min: 0, max: 1e6, above: true };
const ANGLE = { min: -360, max: 360 };
const ROLES: Role[] = ['adds', 'cuts', 'limits', 'alternates'];

const drawing = useDrawing();
const selection = useSelection();

const row = computed(() => selection.only);
const figure = computed(() => row.value && selection.figureById.get(row.value.node.id));
const parameters = computed(() => (row.value ? ownParameters(row.value.node) : []));

/** Fields begin anew with another shape, and where what was typed was refused. */
const fresh = computed(() => `${row.value?.node.id} ${drawing.refusals}`);

function run(command: Command): void {
  void drawing.run(command);
}

function place(fields: { x?: number; y?: number; angle_deg?: number }): void {
  run({ kind: 'place', id: row.value!.node.id, ...fields });
}

function resize(fields: { width?: number; height?: number }): void {
  const { id, width, height } = figure.value!;
  run({ kind: 'resize', id, width, height, anchor: [0.5, 0.5], ...fields });
}

function valueOf(parameter: Parameter): number {
  return (row.value!.node as unknown as Record<string, number>)[parameter.key]!;
}

function setParameter(parameter: Parameter, value: number): void {
  const parameters: Record<string, number> =
    parameter.key === 'rx' ? { rx: value, ry: value } : { [parameter.key]: value };
  run({ kind: 'set-parameters', id: row.value!.node.id, parameters });
}

/** What is asked for and does not fit is drawn as large as there is room. */
const clamped = computed(() => {
  const node = row.value?.node;
  if (node?.kind !== 'rectangle') return null;
  const room = Math.min(node.width, node.height) / 2;
  return (node.radius ?? 0) > room ? room : null;
});

const fills = computed(() => new Set(selection.selected.map((each) => each.node.fill ?? null)));

function paint(fill: string | null): void {
  run({ kind: 'paint', ids: [...selection.ids], fill });
}

function setRole(compound: string, member: string, event: Event): void {
  const role = (event.target as HTMLSelectElement).value as Role;
  run({ kind: 'set-role', compound, member, role });
}

const roles = computed(() => {
  const node = row.value?.node;
  if (node?.kind === 'compound')
    return [...node.members]
      .reverse()
      .map((member) => ({ compound: node.id, node: member.node, role: member.role }));
  const parent = row.value?.parent;
  return parent && row.value?.role
    ? [{ compound: parent, node: row.value.node, role: row.value.role }]
    : [];
});
</script>

<template>
  <aside class="facts" aria-label="Facts">
    <template v-if="row && figure">
      <section>
        <h3 class="title">{{ row.node.name }}</h3>
        <div :key="fresh" class="grid">
          <NumberField
            label="x"
            says="x of its centre"
            :value="figure.x"
            @change="place({ x: $event })"
          />
          <NumberField
            label="y"
            says="y of its centre"
            :value="figure.y"
            @change="place({ y: $event })"
          />
          <NumberField
            label="w"
            says="width along its own axes"
            :value="figure.width"
            :rule="SIZE"
            @change="resize({ width: $event })"
          />
          <NumberField
            label="h"
            says="height along its own axes"
            :value="figure.height"
            :rule="SIZE"
            @change="resize({ height: $event })"
          />
          <NumberField
            label="angle"
            :value="figure.angle_deg"
            :rule="ANGLE"
            unit="°"
            @change="place({ angle_deg: $event })"
          />
        </div>
      </section>
      <section v-if="parameters.length">
        <h3>Shape</h3>
        <div :key="fresh" class="grid one">
          <NumberField
            v-for="parameter in parameters"
            :key="parameter.key"
            :label="parameter.word"
            :value="valueOf(parameter)"
            :rule="parameter"
            @change="setParameter(parameter, $event)"
          />
        </div>
        <p v-if="clamped !== null" class="soft note">
          Drawn with {{ clamped }}, the most that fits; it comes back when there is room.
        </p>
      </section>
      <section v-if="roles.length">
        <h3>{{ roles.length > 1 ? 'Roles' : 'Role' }}</h3>
        <div v-for="each in roles" :key="each.node.id" class="role">
          <button class="who" @click="selection.pick(each.node.id)">{{ each.node.name }}</button>
          <select
            :value="each.role"
            :class="each.role"
            :aria-label="`Role of ${each.node.name}`"
            @change="setRole(each.compound, each.node.id, $event)"
          >
            <option v-for="role in ROLES" :key="role" :value="role">{{ role }}</option>
          </select>
        </div>
        <p class="soft note">A role acts on all that lies below it in the compound.</p>
      </section>
    </template>
    <section v-else-if="selection.selected.length > 1">
      <h3 class="title">{{ selection.selected.length }} shapes</h3>
      <p class="soft note">The one picked first is {{ selection.selected[0]!.node.name }}.</p>
    </section>
    <section v-else>
      <h3 class="title">Facts</h3>
      <p class="soft note">Select a shape to see its exact numbers, and to type them.</p>
    </section>
    <section v-if="selection.selected.length">
      <h3>Paint</h3>
      <PaintField
        :key="selection.ids.join()"
        :fill="fills.size === 1 ? [...fills][0]! : undefined"
        @paint="paint"
      />
    </section>
  </aside>
</template>

<style scoped>
.facts {
  background: var(--card);
  border-left: 1px solid var(--rule);
  overflow-y: auto;
}
section {
  padding: 12px 16px 14px;
  border-bottom: 1px solid var(--rule);
}
section:last-child {
  border-bottom: 0;
}
h3 {
  font-size: 12px;
  letter-spacing: 0.02em;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.grid {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 6px 10px;
  margin-top: 6px;
}
.grid.one {
  grid-template-columns: minmax(0, 1fr);
}
.note {
  margin: 8px 0 0;
  line-height: 1.45;
}
.role {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 8px;
  padding: 3px 0;
}
.who {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.role:first-of-type {
  margin-top: 5px;
}
select {
  padding: 3px 6px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
select.cuts {
  color: var(--clay);
}
</style>
