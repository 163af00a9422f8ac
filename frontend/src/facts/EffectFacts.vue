<script setup lang="ts">
import { computed } from 'vue';

import type { Depth, Node, Shadow } from '@/api/types';
import FactCard from '@/facts/FactCard.vue';
import ColourField from '@/fields/ColourField.vue';
import NumberField from '@/fields/NumberField.vue';
import { useDrawing } from '@/stores/drawing';
import { useTwins } from '@/stores/twins';

/** Shadows and depth of the whole result, each off with one click. */
const props = defineProps<{ nodes: Node[] }>();

const SIZE = { min: -1e6, max: 1e6 };
const BLUR = { min: 0, max: 2000 };
const LENGTH = { min: 0, max: 1e6 };
const SHARE = { min: 0, max: 100 };
const SHADOW: Shadow = {
  on: true,
  dx: 0,
  dy: 6,
  blur: 8,
  colour: '#22303C',
  opacity: 0.4,
  inside: false,
};
const DEPTH: Depth = {
  on: true,
  angle_deg: 45,
  length: 24,
  colour: null,
  shaded: true,
  bevel: 0,
};

const drawing = useDrawing();
const twins = useTwins();
/** The first one stands for all; what is changed is changed in each. */
const look = computed(() => props.nodes[0]!.look);
const shadows = computed(() => look.value.shadows as Shadow[]);
const depth = computed(() => look.value.depth as Depth | null);

function paint(fields: object): void {
  const ids = props.nodes.map((node) => node.id);
  void drawing.run(twins.here('paint', { ids, ...fields }));
}
function setShadow(place: number, fields: Partial<Shadow>): void {
  paint({ shadows: shadows.value.map((each, i) => (i === place ? { ...each, ...fields } : each)) });
}
function setDepth(fields: Partial<Depth>): void {
  paint({ depth: { ...depth.value!, ...fields } });
}
</script>

<template>
  <section>
    <h3>
      Effects
      <span>
        <button class="more soft" @click="paint({ shadows: [...shadows, SHADOW] })">
          add shadow
        </button>
        <button v-if="!depth" class="more soft" @click="paint({ depth: DEPTH })">add depth</button>
      </span>
    </h3>
    <div v-if="shadows.length || depth" class="cards">
      <FactCard
        v-for="(shadow, i) in shadows"
        :key="i"
        word="Shadow"
        :label="`Shadow ${i + 1}`"
        :on="shadow.on"
        @toggle="setShadow(i, { on: !shadow.on })"
        @remove="paint({ shadows: shadows.filter((_, place) => place !== i) })"
      >
        <div class="two">
          <NumberField
            label="right"
            :value="shadow.dx"
            :path="`look.shadows.${i}.dx`"
            :rule="SIZE"
            @change="setShadow(i, { dx: $event })"
          />
          <NumberField
            label="down"
            :value="shadow.dy"
            :path="`look.shadows.${i}.dy`"
            :rule="SIZE"
            @change="setShadow(i, { dy: $event })"
          />
          <NumberField
            label="blur"
            says="the width of its soft edge"
            :value="shadow.blur"
            :path="`look.shadows.${i}.blur`"
            :rule="BLUR"
            @change="setShadow(i, { blur: $event })"
          />
          <NumberField
            label="opaque"
            says="how opaque the shadow is"
            :value="shadow.opacity * 100"
            :path="`look.shadows.${i}.opacity`"
            :times="0.01"
            :rule="SHARE"
            unit="%"
            @change="setShadow(i, { opacity: $event / 100 })"
          />
        </div>
        <ColourField
          :fill="shadow.colour"
          :label="`Shadow ${i + 1} colour`"
          @choose="setShadow(i, { colour: $event! })"
        />
        <label class="keeps">
          <input
            type="checkbox"
            :checked="shadow.inside"
            @change="setShadow(i, { inside: !shadow.inside })"
          />
          falls into the shape
        </label>
      </FactCard>
      <FactCard
        v-if="depth"
        word="Depth"
        :on="depth.on"
        @toggle="setDepth({ on: !depth.on })"
        @remove="paint({ depth: null })"
      >
        <div class="two">
          <NumberField
            label="length"
            :value="depth.length"
            path="look.depth.length"
            :rule="LENGTH"
            @change="setDepth({ length: $event })"
          />
          <NumberField
            label="to"
            says="where it is pushed to, clockwise from the right"
            :value="depth.angle_deg"
            path="look.depth.angle_deg"
            unit="°"
            @change="setDepth({ angle_deg: $event })"
          />
          <NumberField
            label="bevel"
            says="how wide the slanted edge of the front is"
            :value="depth.bevel"
            path="look.depth.bevel"
            :rule="LENGTH"
            @change="setDepth({ bevel: $event })"
          />
        </div>
        <ColourField
          :fill="depth.colour"
          label="Depth colour"
          none
          @choose="setDepth({ colour: $event })"
        />
        <p class="soft note">No colour takes that of the front.</p>
        <label class="keeps">
          <input
            type="checkbox"
            :checked="depth.shaded"
            @change="setDepth({ shaded: !depth.shaded })"
          />
          sides shaded by where they face
        </label>
      </FactCard>
    </div>
    <label v-if="look.lines.length || shadows.length || depth" class="keeps all">
      <input type="checkbox" :checked="look.grows" @change="paint({ grows: !look.grows })" />
      lines and effects grow with the shape
    </label>
  </section>
</template>

<style scoped>
h3 {
  display: flex;
  justify-content: space-between;
}
.more {
  margin-left: 10px;
  font-weight: 400;
}
.more:hover {
  color: var(--ink);
}
.cards {
  display: grid;
  gap: 8px;
  margin-top: 8px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 10px;
}
.note {
  margin: 0;
}
.all {
  margin-top: 8px;
}
</style>
