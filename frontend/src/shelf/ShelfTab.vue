<script setup lang="ts">
import { onMounted, ref } from 'vue';

import type { AssetPicture } from '@/api/types';
import { shortNumber } from '@/desk/gestures';
import NumberField from '@/facts/NumberField.vue';
import PathPicture from '@/look/PathPicture.vue';
import { useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';

/** The shelf beside the stack: choose an asset, say how large, place it on the plate. */
const drawing = useDrawing();
const selection = useSelection();
const shelf = useShelf();
const notices = useNotices();
const chosen = ref<AssetPicture | null>(null);
const percent = ref(100);
const field = ref<InstanceType<typeof NumberField>>();

onMounted(() => shelf.load().catch((error: Error) => notices.say(error.message)));

const size = (asset: AssetPicture) =>
  [asset.box.x1 - asset.box.x0, asset.box.y1 - asset.box.y0].map((side) =>
    shortNumber((side * percent.value) / 100),
  );

async function place(): Promise<void> {
  const asset = chosen.value;
  const head = drawing.heads[selection.plate];
  if (!asset || !head || !field.value?.commit()) return;
  const before = new Set(head.nodes);
  const done = await drawing.placeAsset(
    selection.plate,
    asset.id,
    head.width / 2,
    head.height / 2,
    percent.value / 100,
  );
  const fresh = drawing.heads[selection.plate]?.nodes.find((key) => !before.has(key));
  if (done && fresh) selection.pick(fresh);
}
</script>

<template>
  <div class="shelf">
    <template v-for="collection in shelf.collections" :key="collection.id">
      <h3>{{ collection.name }}</h3>
      <template v-for="section in collection.sections" :key="section.id">
        <h4 class="soft">{{ section.name }}</h4>
        <p v-if="!section.assets.length" class="soft none">empty</p>
        <div v-else class="grid">
          <button
            v-for="asset in section.assets"
            :key="asset.id"
            class="asset"
            :class="{ on: chosen?.id === asset.id }"
            :aria-pressed="chosen?.id === asset.id"
            :title="asset.name"
            @click="chosen = asset"
            @dblclick="place"
          >
            <PathPicture :pieces="asset.pieces" :box="asset.box" :margin="0.08" />
            <span>{{ asset.name }}</span>
          </button>
        </div>
      </template>
    </template>
    <form v-if="chosen" class="place" @submit.prevent="place">
      <b>{{ chosen.name }}</b>
      <NumberField
        ref="field"
        label="size in %"
        :value="percent"
        :rule="{ min: 0, max: 10000, above: true }"
        @change="percent = $event"
      />
      <span class="soft mono">{{ size(chosen).join(' × ') }}</span>
      <v-btn size="small" color="primary" variant="flat" type="submit">Place on this plate</v-btn>
    </form>
    <p v-else class="soft advice">
      Select a shape and choose <b>Put on shelf</b> to keep it; choose an asset here to place it
      again, as live as it was.
    </p>
  </div>
</template>

<style scoped>
.shelf {
  padding: 0 16px 16px;
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
.asset {
  display: flex;
  flex-direction: column;
  align-items: center;
  padding: 6px 4px 4px;
  border: 1px solid var(--rule);
  border-radius: 12px;
  background: #fff;
}
.asset svg {
  width: 44px;
  height: 44px;
}
.asset span {
  width: 100%;
  font-size: 11px;
  text-align: center;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.asset.on,
.asset:hover {
  border-color: var(--clay);
}
.asset.on {
  box-shadow: 0 0 0 1px var(--clay);
}
.place {
  display: grid;
  gap: 6px;
  margin-top: 14px;
  padding-top: 12px;
  border-top: 1px solid var(--rule);
}
.advice {
  margin-top: 14px;
  line-height: 1.5;
}
</style>
