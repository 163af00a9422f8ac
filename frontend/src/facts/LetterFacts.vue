<script setup lang="ts">
import { computed, ref } from 'vue';

import type { Figure, Node } from '@/api/types';
import FontList from '@/facts/FontList.vue';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import { common } from '@/marks/common';
import type { Fields } from '@/marks/commands';
import { useActions } from '@/stores/actions';
import { useDrawing } from '@/stores/drawing';
import { useFonts } from '@/stores/fonts';
import { useTyping } from '@/stores/typing';

/** How the words of the texts in hand are set, and what they stand on. */
const props = defineProps<{ nodes: Node[]; figures: Figure[] }>();

type Text = Extract<Node, { kind: 'text' }>;
type Changes = Omit<Fields<'set-letters'>, 'ids'>;

const MEASURES = [
  { value: 'cap-height', word: 'capitals', title: 'How high the letter H is' },
  { value: 'x-height', word: 'small', title: 'How high the letter x is' },
  { value: 'body', word: 'body', title: 'The size of the body that letters are cast on' },
] as const;
const ALIGNMENTS = [
  { value: 'start', word: 'start', title: 'Lines start where they are set from' },
  { value: 'middle', word: 'middle', title: 'Lines have their middle there' },
  { value: 'end', word: 'end', title: 'Lines end there' },
] as const;
/** In hundredths of the body, as it is shown; a text keeps thousandths. */
const SPACING = { min: -1000, max: 1000 };
const LENGTH = { min: 0, max: 1e6, above: true };

const drawing = useDrawing();
const fonts = useFonts();
const typing = useTyping();
const { actions } = useActions();
const more = ref(false);
void fonts.load();

const texts = computed(() => props.nodes.filter((node): node is Text => node.kind === 'text'));
const only = computed(() => (texts.value.length === 1 ? texts.value[0]! : null));
const of = <T,>(value: (text: Text) => T) => common(texts.value, value);

const family = computed(() => of((text) => text.font.family));
const font = computed(() => {
  const digest = of((text) => text.font.digest);
  return digest ? fonts.byDigest.get(digest) : undefined;
});
const styles = computed(
  () => fonts.families.find(({ name }) => name === family.value)?.styles ?? [],
);
const missing = computed(() => props.figures.some((figure) => figure.font_missing));
const lacks = computed(() =>
  [...new Set(props.figures.flatMap(({ lacks }) => [...lacks]))].join(' '),
);
const course = computed(() => only.value?.course ?? null);
const standsOn = computed(() => course.value?.kind ?? 'straight');
const onCircle = computed(() => (course.value?.kind === 'circle' ? course.value : null));
const onLine = computed(() => (course.value?.kind === 'line' ? course.value : null));

async function set(changes: Changes): Promise<void> {
  await typing.commit();
  const ids = texts.value.map((text) => text.id);
  if ((await drawing.do('set-letters', { ids, ...changes })) && texts.value[0])
    fonts.remember(texts.value[0]);
}

function setStyle(name: string, of_: string): void {
  const style = fonts.styleOf(of_, name);
  if (style) void set({ font: style.font.digest, axes: style.axes });
}

function stand(on: string): void {
  if (on === 'straight') void set({ course: 'straight' });
  else if (on === 'circle') {
    // As large as the words go half round it.
    const wide = props.figures[0]?.width ?? 100;
    const radius = Number(Math.max(1, wide / Math.PI).toPrecision(2));
    void set({
      course: { kind: 'circle', radius, start_deg: -90, inside: false },
      alignment: 'middle',
    });
  }
}

function bend(changes: Partial<NonNullable<typeof onCircle.value>>): void {
  void set({ course: { ...onCircle.value!, ...changes } });
}

/** On the other side of a circle the words go round to its foot, where they stand upright. */
function turnInside(inside: boolean): void {
  bend({ inside, start_deg: -onCircle.value!.start_deg });
}

const isOn = (tag: string, usual: boolean) => (of((text) => text.features[tag]) ?? +usual) > 0;
</script>

<template>
  <section v-if="texts.length && texts.length === nodes.length">
    <h3>Letters</h3>
    <p v-if="missing" class="note lost" role="alert">
      The font {{ family }} is not here: what is shown is how the words looked last. Choose another
      font, or add its file.
    </p>
    <p v-if="lacks" class="note lost" role="status">
      {{ family }} has no letter for <b>{{ lacks }}</b>: a box stands for it, or nothing. Fonts of
      pictures, as those of emoji, have no outlines.
    </p>
    <p v-if="font && !font.travels" class="soft note">
      Its file does not allow drawings to carry this font: elsewhere they show how the words look.
    </p>
    <div class="fields">
      <FontList
        label="Font"
        :chosen="family"
        @choose="(name) => setStyle(of((text) => text.font.style) ?? '', name)"
      />
      <select
        v-if="styles.length"
        aria-label="Style"
        :value="of((text) => text.font.style)"
        @change="setStyle(($event.target as HTMLSelectElement).value, family!)"
      >
        <option v-for="{ name } in styles" :key="name" :value="name">{{ name }}</option>
      </select>
      <NumberField
        v-for="axis in font?.axes ?? []"
        :key="axis.tag"
        :label="axis.name.toLowerCase()"
        :value="of((text) => text.axes[axis.tag] ?? axis.usual)"
        :rule="{ min: axis.low, max: axis.high }"
        :says="`${axis.name}, ${axis.low} to ${axis.high}`"
        @change="set({ axes: { [axis.tag]: $event } })"
      />
      <NumberField
        label="size"
        :value="of((text) => text.size)"
        path="size"
        :rule="LENGTH"
        @change="set({ size: $event })"
      />
      <ChoicePill
        label="What the size is of"
        :model-value="of((text) => text.measure) ?? 'body'"
        :options="MEASURES"
        @update:model-value="set({ measure: $event as Text['measure'] })"
      />
      <NumberField
        label="tracking"
        unit="%"
        says="added between letters, in hundredths of the body"
        :value="of((text) => text.tracking / 10)"
        path="tracking"
        :times="10"
        :rule="SPACING"
        @change="set({ tracking: 10 * $event })"
      />
      <NumberField
        label="word space"
        unit="%"
        says="added to spaces, in hundredths of the body"
        :value="of((text) => text.word_space / 10)"
        path="word_space"
        :times="10"
        :rule="SPACING"
        @change="set({ word_space: 10 * $event })"
      />
      <NumberField
        label="leading"
        says="from line to line, in bodies"
        :value="of((text) => text.leading)"
        path="leading"
        :rule="{ min: 0, max: 20 }"
        @change="set({ leading: $event })"
      />
      <ChoicePill
        label="Alignment"
        :model-value="of((text) => text.alignment) ?? 'start'"
        :options="ALIGNMENTS"
        @update:model-value="set({ alignment: $event as Text['alignment'] })"
      />
    </div>
    <template v-if="font?.features.length">
      <button class="more" :aria-expanded="more" @click="more = !more">
        {{ more ? '‹ fewer features' : `features of the font (${font.features.length}) ›` }}
      </button>
      <div v-if="more" class="features">
        <label v-for="{ tag, name, usual } in font.features" :key="tag" :title="tag">
          <input
            type="checkbox"
            :checked="isOn(tag, usual)"
            @change="
              set({
                features: {
                  [tag]: ($event.target as HTMLInputElement).checked === usual ? null : +!usual,
                },
              })
            "
          />
          {{ name }}
        </label>
      </div>
    </template>
    <template v-if="only">
      <h3 class="stands">Stands on</h3>
      <div class="fields">
        <ChoicePill
          v-if="!onLine"
          label="What they stand on"
          :model-value="standsOn"
          :options="[
            { value: 'straight', word: 'straight', title: 'A straight line' },
            { value: 'circle', word: 'a circle', title: 'Bent round a circle' },
          ]"
          @update:model-value="stand"
        />
        <template v-if="onCircle">
          <NumberField
            label="radius"
            :value="onCircle.radius"
            :rule="LENGTH"
            @change="bend({ radius: $event })"
          />
          <NumberField
            label="from"
            unit="°"
            says="where the words are set from, clockwise from the right"
            :value="onCircle.start_deg"
            :rule="{ min: -360, max: 360 }"
            @change="bend({ start_deg: $event })"
          />
          <ChoicePill
            label="Side of the circle"
            :model-value="onCircle.inside ? 'inside' : 'outside'"
            :options="[
              { value: 'outside', word: 'outside', title: 'Heads away from the centre' },
              { value: 'inside', word: 'inside', title: 'Heads towards the centre' },
            ]"
            @update:model-value="turnInside($event === 'inside')"
          />
        </template>
        <template v-if="onLine">
          <p class="soft note">On {{ onLine.line.name }}, which stays live inside.</p>
          <NumberField
            label="from"
            says="how far along it the words are set from"
            :value="onLine.start"
            @change="set({ start: $event })"
          />
          <label class="side">
            <input
              type="checkbox"
              :checked="onLine.other_side"
              @change="set({ other_side: ($event.target as HTMLInputElement).checked })"
            />
            on its other side
          </label>
          <button class="off" title="Shift+Q" @click="actions.takeOffLine.run()">
            Take off the line
          </button>
        </template>
        <p v-else class="soft note">
          Select a shape too, and press Shift+Q: the words stand on its outline.
        </p>
      </div>
    </template>
  </section>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 6px;
  margin-top: 6px;
}
.stands {
  margin-top: 12px;
}
.lost {
  color: #7d5510;
}
select {
  padding: 4px 8px;
  border: 1px solid var(--rule);
  border-radius: 10px;
  background: #fff;
}
.more {
  margin-top: 6px;
  color: var(--tide);
  font-size: 12.5px;
}
.features {
  display: grid;
  gap: 2px;
  margin-top: 4px;
  font-size: 12px;
}
.features label,
.side {
  display: flex;
  gap: 6px;
}
.off {
  justify-self: start;
  padding: 3px 12px;
  border: 1px solid var(--clay);
  border-radius: 12px;
  color: var(--clay);
}
</style>
