<script setup lang="ts">
import { inject } from 'vue';

import { SAID } from '@/desk/said';
import { useView } from '@/stores/view';

/** Why something has snapped, and the numbers of what is in hand beside the pointer. */
const { said, marks } = inject(SAID)!;
const view = useView();
</script>

<template>
  <div
    v-for="(mark, i) in marks"
    :key="i"
    class="reason"
    :style="{
      left: `${view.toDesk(mark.to).x + 9}px`,
      top: `${view.toDesk(mark.to).y - 22 - 18 * i}px`,
    }"
  >
    {{ mark.says }}
  </div>
  <div
    v-if="said?.text"
    class="numbers mono"
    :style="{ left: `${said.at.x + 16}px`, top: `${said.at.y + (marks.length ? 30 : 14)}px` }"
  >
    {{ said.text }}
  </div>
</template>

<style scoped>
.reason {
  position: absolute;
  padding: 0 6px;
  border-radius: 8px;
  background: rgb(251 247 239 / 90%);
  color: var(--moss);
  font-size: 12px;
  pointer-events: none;
  white-space: nowrap;
}
.numbers {
  position: absolute;
  padding: 2px 8px;
  border: 1px solid var(--clay);
  border-radius: 10px;
  background: #fff;
  color: var(--clay);
  pointer-events: none;
  white-space: nowrap;
}
</style>
