<script setup lang="ts">
import { computed } from 'vue';

import { useActions } from '@/editor/actions';
import { useClipboard } from '@/stores/clipboard';
import { useDrawing } from '@/stores/drawing';
import { useSelection } from '@/stores/selection';
import type { Point } from '@/stores/view';

/** What makes sense where it was asked for, with the keys that do the same. */
const props = defineProps<{ at: Point }>();
const open = defineModel<boolean>({ required: true });

const drawing = useDrawing();
const selection = useSelection();
const clipboard = useClipboard();
const actions = useActions();

const able = computed(() =>
  open.value ? Object.entries(actions.actions).filter(([, action]) => action.can()) : [],
);
const plates = computed(() =>
  selection.ids.length ? drawing.plates.filter((plate) => plate !== selection.plate) : [],
);

async function paste(): Promise<void> {
  const text = await navigator.clipboard.readText().catch(() => null);
  await clipboard.paste(text, true);
}
</script>

<template>
  <v-menu v-model="open" :target="[props.at.x, props.at.y]" max-height="520">
    <v-list density="compact" class="menu" aria-label="What can be done here">
      <v-list-item
        v-for="[name, action] in able"
        :key="name"
        :data-action="name"
        @click="action.run()"
      >
        {{ action.word }}
        <template #append>
          <kbd>{{ action.key }}</kbd>
        </template>
      </v-list-item>
      <v-list-item
        v-for="plate in plates"
        :key="plate"
        @click="clipboard.moveTo(plate).then(() => (selection.plate = plate))"
      >
        Move to {{ drawing.heads[plate]?.name }}
      </v-list-item>
      <v-list-item @click="paste">
        Paste in place
        <template #append><kbd>Ctrl+Shift+V</kbd></template>
      </v-list-item>
      <v-list-item @click="selection.all()">
        Select all
        <template #append><kbd>Ctrl+A</kbd></template>
      </v-list-item>
    </v-list>
  </v-menu>
</template>

<style scoped>
.menu {
  min-width: 240px;
  border: 1px solid var(--rule);
}
.menu :deep(.v-list-item) {
  min-height: 27px;
  font-size: 13px;
}
kbd {
  margin-left: 18px;
  color: var(--soft);
  font-size: 10px;
}
</style>
