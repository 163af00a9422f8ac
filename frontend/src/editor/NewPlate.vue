<script setup lang="ts">
import { ref } from 'vue';

import ColourField from '@/fields/ColourField.vue';
import { vFirst } from '@/fields/first';
import NumberField from '@/fields/NumberField.vue';
import { newId, useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';

/** Asks for a plate's name and size, of a new one or of one that is there. */
const MM = 96 / 25.4;
/** A business card, 85 × 55 mm; a plate's unit is the pixel of CSS. */
const CARD: readonly [number, number, string] = [85 * MM, 55 * MM, '85 × 55 mm'];
const SIZES: (readonly [number, number, string])[] = [
  ...[24, 32, 48, 64, 256, 512].map((side) => [side, side, `${side}`] as const),
  CARD,
];
const RULE = { min: 0, max: 1e6, above: true };

const props = defineProps<{ number: number; plate?: string }>();
const emit = defineEmits<{ close: [] }>();

const drawing = useDrawing();
const selection = useSelection();
const known = props.plate ? drawing.heads[props.plate] : undefined;
const name = ref(known?.name ?? `Plate ${props.number}`);
const width = ref(known?.width ?? 256);
const height = ref(known?.height ?? 256);
/** The ground, or none; as ``<select>`` would have it. */
const ground = ref<string | null>(known ? (known.background ?? null) : '#FFFFFF');
const fault = ref('');
const fields = ref<InstanceType<typeof NumberField>[]>([]);

function field(each: unknown): void {
  if (each) fields.value.push(each as InstanceType<typeof NumberField>);
}

async function keep(): Promise<void> {
  fault.value = name.value.trim() ? '' : 'A name is wanted.';
  if (!fields.value.every((each) => each.commit()) || fault.value) return;
  const size = { name: name.value.trim(), width: width.value, height: height.value };
  if (known && props.plate) {
    const changes = Object.entries({ ...size, background: ground.value }).filter(
      ([key, value]) => known[key as keyof typeof known] !== value,
    );
    if (changes.length)
      await drawing.do('set-plate', { plate: props.plate, ...Object.fromEntries(changes) });
  } else {
    const id = newId();
    if (await drawing.run({ kind: 'add-plate', id, ...size })) selection.plate = id;
  }
  emit('close');
}
</script>

<template>
  <v-card class="card" rounded="xl" :title="known ? 'This plate' : 'New plate'">
    <form @submit.prevent="keep">
      <v-text-field
        v-model="name"
        v-first
        label="Name"
        maxlength="120"
        :error-messages="fault"
        @focus="($event.target as HTMLInputElement).select()"
      />
      <div class="sizes">
        <v-btn
          v-for="[across, down, word] in SIZES"
          :key="word"
          size="small"
          :variant="width === across && height === down ? 'flat' : 'outlined'"
          :color="width === across && height === down ? 'ink' : undefined"
          @click="[width, height] = [across, down]"
        >
          {{ word }}
        </v-btn>
      </div>
      <div class="exact">
        <NumberField
          :ref="field"
          label="width"
          :value="width"
          :rule="RULE"
          @change="width = $event"
          @enter="keep"
        />
        <NumberField
          :ref="field"
          label="height"
          :value="height"
          :rule="RULE"
          @change="height = $event"
          @enter="keep"
        />
      </div>
      <div v-if="known" class="soft ground">Background</div>
      <ColourField v-if="known" :fill="ground" label="Background" none @choose="ground = $event" />
      <div class="ends">
        <v-btn @click="emit('close')">Cancel</v-btn>
        <v-btn color="primary" variant="flat" type="submit">{{
          known ? 'Keep' : 'Add plate'
        }}</v-btn>
      </div>
    </form>
  </v-card>
</template>

<style scoped>
.card {
  width: 460px;
}
form {
  display: grid;
  gap: 14px;
  padding: 4px 20px 18px;
}
.sizes,
.exact {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.exact > * {
  flex: 1;
}
.ground {
  margin-bottom: -14px;
}
</style>
