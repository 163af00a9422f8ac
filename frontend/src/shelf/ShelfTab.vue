<script setup lang="ts">
import { computed, onMounted, onUnmounted, ref } from 'vue';
import { RouterLink } from 'vue-router';

import type { AssetOnShelf } from '@/api/types';
import NumberField from '@/fields/NumberField.vue';
import ChoicePill from '@/look/ChoicePill.vue';
import { shortNumber } from '@/marks/numbers';
import AssetButton from '@/shelf/AssetButton.vue';
import { ASSET, placeAsset } from '@/shelf/placing';
import { useFound } from '@/shelf/useFound';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';

/** The shelf beside the stack: drag an asset on to the plate, draw it there, or type its size. */
const PAINTS = [
  { value: true, word: 'own paint', title: 'as it was kept' },
  { value: false, word: 'current paint', title: 'in the paint that new shapes get' },
];

const drawing = useDrawing();
const selection = useSelection();
const shelf = useShelf();
const notices = useNotices();
const search = ref('');
const field = ref<InstanceType<typeof NumberField>>();

const { found, counts } = useFound(search);
const chosen = computed(() => shelf.inHand);
const size = computed(() => {
  const box = chosen.value && shelf.pictures.get(chosen.value.id)?.box;
  if (!box) return '';
  return [box.x1 - box.x0, box.y1 - box.y0]
    .map((side) => shortNumber((side * shelf.percent) / 100))
    .join(' × ');
});

onMounted(() => shelf.load().catch((error: Error) => notices.say(error.message)));
onUnmounted(() => (shelf.inHand = null));

function dragStart(asset: AssetOnShelf, event: DragEvent): void {
  shelf.inHand = asset;
  event.dataTransfer!.setData(ASSET, asset.id);
  event.dataTransfer!.effectAllowed = 'copy';
}

/** Puts the chosen asset in the middle of the plate. */
async function place(): Promise<void> {
  const head = drawing.heads[selection.plate];
  if (!chosen.value || !head || (field.value && !field.value.commit())) return;
  await placeAsset(chosen.value.id, { x: head.width / 2, y: head.height / 2 }, shelf.percent / 100);
}
</script>

<template>
  <div class="shelf">
    <div class="top">
      <input
        v-model="search"
        type="search"
        class="find"
        placeholder="Name or tag"
        aria-label="Find an asset"
      />
      <RouterLink to="/shelf" title="The whole shelf on a page of its own">tend</RouterLink>
    </div>
    <p v-if="search && !found.length" class="soft none">Nothing on the shelf is called that.</p>
    <div
      v-for="collection in shelf.collections"
      v-show="counts.has(collection.id)"
      :key="collection.id"
    >
      <h3>{{ collection.name }}</h3>
      <div
        v-for="section in collection.sections"
        v-show="counts.has(section.id)"
        :key="section.id"
        class="section"
      >
        <h4 class="soft">{{ section.name }}</h4>
        <p v-if="!section.assets.length" class="soft none">empty</p>
        <div v-else class="grid">
          <AssetButton
            v-for="asset in section.assets"
            :key="asset.id"
            :asset="asset"
            :on="chosen?.id === asset.id"
            :shown="counts.has(asset.id)"
            :aria-pressed="chosen?.id === asset.id"
            @carry="dragStart(asset, $event)"
            @pick="shelf.inHand = chosen?.id === asset.id ? null : asset"
            @take="((shelf.inHand = asset), place())"
          />
        </div>
      </div>
    </div>
    <form v-if="chosen" class="place" @submit.prevent="place">
      <b>{{ chosen.name }}</b>
      <span class="soft">Draw it on the plate as large as you like, or place it at a size:</span>
      <NumberField
        ref="field"
        label="size in %"
        :value="shelf.percent"
        :rule="{ min: 0, max: 10000, above: true }"
        @change="shelf.percent = $event"
      />
      <span class="soft mono size">{{ size }}</span>
      <ChoicePill v-model="shelf.ownPaint" :options="PAINTS" label="Paint of the asset" />
      <v-btn size="small" color="primary" variant="flat" type="submit">Place on this plate</v-btn>
    </form>
    <p v-else class="soft advice">
      Drag an asset on to the plate, or click one and draw it there, as live as it was. Select
      shapes and choose <b>Put on shelf</b> to keep them.
    </p>
  </div>
</template>

<style scoped>
.shelf {
  padding: 0 16px 16px;
}
.top {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
}
.find {
  flex: 1;
  min-width: 0;
  padding: 4px 10px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
}
a {
  color: var(--tide);
}
h3 {
  font-size: 13px;
  margin: 6px 0 2px;
}
h4 {
  margin: 10px 0 4px;
  font-weight: 400;
  font-size: 12px;
}
.none {
  margin: 0;
  font-size: 12px;
  opacity: 0.8;
}
.grid {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px;
}
.place > .pill {
  justify-self: start;
}
.place {
  position: sticky;
  bottom: 0;
  display: grid;
  gap: 6px;
  margin-top: 14px;
  padding: 12px 0;
  border-top: 1px solid var(--rule);
  background: var(--card);
}
/* Its line is there before the picture is, so that nothing moves under the pointer. */
.size {
  min-height: 1lh;
}
.advice {
  margin-top: 14px;
  line-height: 1.5;
}
</style>
