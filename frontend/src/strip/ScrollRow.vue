<script setup lang="ts">
import { onMounted, onScopeDispose, ref } from 'vue';

/** Tiles in a row: what does not fit fades out at that end, and is reached by wheel or arrow. */
const STEP = 180;

const row = ref<HTMLElement>();
const before = ref(false);
const after = ref(false);

function look(): void {
  const { scrollLeft, scrollWidth, clientWidth } = row.value!;
  before.value = scrollLeft > 1;
  after.value = scrollLeft + clientWidth < scrollWidth - 1;
}

function go(by: number): void {
  row.value!.scrollLeft += by;
}

/** From tile to tile by the arrow keys; the one in hand is brought into sight. */
function step(event: KeyboardEvent, by: number): void {
  const buttons = [...row.value!.querySelectorAll<HTMLButtonElement>('button.tile:enabled')];
  const at = buttons.indexOf(event.target as HTMLButtonElement);
  const next = buttons[(at + by + buttons.length) % buttons.length];
  next?.focus();
  next?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
}

const sizes = new ResizeObserver(look);
const tiles = new MutationObserver(look);
onMounted(() => {
  sizes.observe(row.value!);
  tiles.observe(row.value!, { childList: true, subtree: true });
  look();
});
onScopeDispose(() => {
  sizes.disconnect();
  tiles.disconnect();
});
</script>

<template>
  <div
    class="scroller"
    :class="{ before, after }"
    @wheel.prevent="go($event.deltaX + $event.deltaY)"
  >
    <div
      ref="row"
      class="tiles"
      @scroll="look"
      @keydown.right.prevent="step($event, 1)"
      @keydown.left.prevent="step($event, -1)"
    >
      <slot />
    </div>
    <button v-if="before" class="way back" aria-label="Tiles before these" @click="go(-STEP)">
      ‹
    </button>
    <button v-if="after" class="way on" aria-label="More tiles" @click="go(STEP)">›</button>
  </div>
</template>

<style scoped>
.scroller {
  --before: 0px;
  --after: 0px;
  position: relative;
  flex: 1;
  min-width: 0;
}
.scroller.before {
  --before: 44px;
}
.scroller.after {
  --after: 44px;
}
.tiles {
  display: flex;
  gap: 7px;
  height: 100%;
  padding: 2px;
  overflow-x: auto;
  scrollbar-width: none;
  mask-image: linear-gradient(
    90deg,
    transparent,
    #000 var(--before),
    #000 calc(100% - var(--after)),
    transparent
  );
}
.way {
  position: absolute;
  top: 50%;
  width: 24px;
  height: 24px;
  margin-top: -12px;
  border: 1px solid var(--rule);
  border-radius: 50%;
  background: var(--card);
  line-height: 1;
}
.way:hover {
  border-color: var(--clay);
}
.back {
  left: 0;
}
.on {
  right: 0;
}
</style>
