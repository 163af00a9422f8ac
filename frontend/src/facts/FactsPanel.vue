<script setup lang="ts">
import { computed, provide, ref } from 'vue';

import type { Role } from '@/api/types';
import AlignFacts from '@/facts/AlignFacts.vue';
import BetweenFacts from '@/facts/BetweenFacts.vue';
import LetterFacts from '@/facts/LetterFacts.vue';
import NodeFacts from '@/facts/NodeFacts.vue';
import PaintFacts from '@/facts/PaintFacts.vue';
import PlaceFacts from '@/facts/PlaceFacts.vue';
import PlateFacts from '@/facts/PlateFacts.vue';
import RefineFacts from '@/facts/RefineFacts.vue';
import RegionFacts from '@/facts/RegionFacts.vue';
import RepeatFacts from '@/facts/RepeatFacts.vue';
import ShapeFacts from '@/facts/ShapeFacts.vue';
import TwinFacts from '@/facts/TwinFacts.vue';
import { FOLLOWED, ofShapes } from '@/fields/followed';
import { ROLES } from '@/marks/roles';
import { useDrawing } from '@/stores/drawing';
import { useNodes } from '@/stores/nodes';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';

/** Exact numbers of the selection, and its paint. */
const drawing = useDrawing();
const selection = useSelection();
const regions = useRegions();
const outline = useNodes();
const align = ref<InstanceType<typeof AlignFacts>>();

const row = computed(() => selection.only);
const nodes = computed(() => selection.selected.map((each) => each.node));
provide(
  FOLLOWED,
  ofShapes(() => nodes.value),
);

/** Fields begin anew with another selection. */
const fresh = computed(() => selection.ids.join());

function setRole(compound: string, member: string, event: Event): void {
  const role = (event.target as HTMLSelectElement).value as Role;
  void drawing.do('set-role', { compound, member, role });
}

const roles = computed(() => {
  const node = row.value?.node;
  if (node?.kind === 'compound' && !node.bundled)
    return [...node.members]
      .reverse()
      .map((member) => ({ compound: node.id, node: member.node, role: member.role }));
  const parent = row.value?.parent;
  return parent && row.value?.role
    ? [{ compound: parent, node: row.value.node, role: row.value.role }]
    : [];
});

const lost = computed(() => selection.figures.reduce((sum, figure) => sum + (figure.lost ?? 0), 0));

const faulty = computed(() =>
  selection.selected.find((each) => selection.faultById.has(each.node.id)),
);

defineExpose({ align: () => align.value?.focus() });
</script>

<template>
  <aside class="facts" aria-label="Facts">
    <RegionFacts v-if="regions.open" />
    <template v-else-if="nodes.length">
      <section>
        <h3 class="title">{{ row ? row.node.name : `${nodes.length} shapes` }}</h3>
        <p v-if="!row" class="soft note">The one picked first is {{ nodes[0]!.name }}.</p>
        <p v-if="faulty" class="note lost">
          {{ faulty.node.name }} cannot be shown: {{ selection.faultById.get(faulty.node.id) }}.
          Undo takes back the step that put it there, Delete removes it.
        </p>
        <PlaceFacts
          v-else-if="!outline.open"
          :key="fresh"
          :nodes="nodes"
          :figures="selection.figures"
        />
      </section>
      <TwinFacts v-if="row && !outline.open" :key="`twin ${fresh}`" />
      <NodeFacts v-if="outline.open" />
      <BetweenFacts v-if="nodes.length === 2 && !outline.open" :ids="[...selection.ids]" />
      <AlignFacts v-if="nodes.length > 1 && !outline.open" ref="align" />
      <ShapeFacts :key="fresh" :nodes="nodes" :figures="selection.figures" />
      <RepeatFacts v-if="row?.node.kind === 'repeat'" :key="`repeat ${fresh}`" :node="row.node" />
      <LetterFacts :key="`letters ${fresh}`" :nodes="nodes" :figures="selection.figures" />
      <RefineFacts :key="`refine ${fresh}`" :nodes="nodes" :figures="selection.figures" />
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
      <section v-if="lost">
        <h3>Regions</h3>
        <p class="note lost">
          {{
            lost === 1 ? 'One pick has lost its region' : `${lost} picks have lost their regions`
          }}; press R to place {{ lost === 1 ? 'it' : 'them' }} again.
        </p>
      </section>
      <PaintFacts :key="fresh" :nodes="nodes" :figures="selection.figures" />
    </template>
    <PlateFacts v-else-if="drawing.heads[selection.plate]" :key="selection.plate" />
  </aside>
</template>

<style scoped>
.facts {
  background: var(--card);
  border-left: 1px solid var(--rule);
  overflow-y: auto;
}
.facts :deep(section) {
  padding: 12px 16px 14px;
  border-bottom: 1px solid var(--rule);
}
.facts :deep(section:last-child) {
  border-bottom: 0;
}
.facts :deep(h3) {
  font-size: 12px;
  letter-spacing: 0.02em;
}
.title {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.facts :deep(.note) {
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
.lost {
  color: #7d5510;
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
