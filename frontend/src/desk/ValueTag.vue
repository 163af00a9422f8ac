<script setup lang="ts">
import { nextTick, ref } from 'vue';

import NumberField from '@/fields/NumberField.vue';

/** A number on the desk, dragged to change it, double-clicked to type it. */
defineProps<{
  text: string;
  label: string;
  value: number;
  rule: InstanceType<typeof NumberField>['$props']['rule'];
}>();
const emit = defineEmits<{ change: [value: number] }>();
defineOptions({ inheritAttrs: false });

const typing = ref(false);

async function type(event: Event): Promise<void> {
  const around = (event.currentTarget as Element).parentElement;
  typing.value = true;
  await nextTick();
  around?.querySelector('input')?.select();
}

function typed(value: number): void {
  typing.value = false;
  emit('change', value);
}
</script>

<template>
  <div
    v-if="typing"
    class="typing"
    :class="$attrs.class"
    :style="$attrs.style as string"
    @pointerdown.stop
    @keydown.esc.stop="typing = false"
    @focusout="typing = false"
  >
    <NumberField :label="label" :value="value" :rule="rule" @change="typed" />
  </div>
  <button
    v-else
    class="tag mono"
    :title="`${label}: drag to change, double-click to type`"
    v-bind="$attrs"
    @dblclick.stop="type"
    @keydown.enter.stop.prevent="type"
  >
    {{ text }}
  </button>
</template>

<style scoped>
.tag,
.typing {
  border: 1px solid var(--tide);
  border-radius: 11px;
  background: var(--card);
  color: var(--tide);
  white-space: nowrap;
}
.tag {
  padding: 0 8px;
  font-size: 11px;
  line-height: 18px;
  cursor: ew-resize;
  touch-action: none;
}
.tag:hover {
  background: #fff;
  box-shadow: 0 0 0 1.5px var(--tide);
}
.typing {
  width: 150px;
  padding: 2px 10px 4px;
  color: var(--ink);
}
</style>
