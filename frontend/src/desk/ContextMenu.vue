<script setup lang="ts">
import { computed } from 'vue';

import { NODE_ACTS } from '@/marks/nodes';
import type { Point } from '@/marks/numbers';
import type { Action } from '@/stores/actions';
import { useActions } from '@/stores/actions';
import { useClipboard } from '@/stores/clipboard';
import { useDrawing } from '@/stores/drawing';
import { useNodes } from '@/stores/nodes';
import { useSelection } from '@/stores/selection';

/** What makes sense where it was asked for, in a few groups, with the keys that do the same. */
const props = defineProps<{ at: Point }>();
const open = defineModel<boolean>({ required: true });

/** What is at hand, and what lies one step further. */
const AT_HAND = [
  ['copy', 'cutOut', 'duplicate', 'again', 'pasteHere', 'remove'],
  ['type', 'spaceLetters', 'putOnLine', 'takeOffLine', 'breakIntoLetters'],
  [
    'group',
    'ungroup',
    'focus',
    'regions',
    'allHome',
    'settle',
    'unbundle',
    'clip',
    'takeOut',
    'role',
    'liftOut',
  ],
  ['nodes', 'corners', 'simplify', 'joinEnds', 'completeHalf'],
  ['hide', 'showAll', 'lock', 'guide'],
];
const FURTHER: Record<string, string[]> = {
  'Twin and repeat': [
    ...['makeTwin', 'allTwins', 'followAgain', 'freeTwins'],
    ...['spin', 'row', 'mirrorLive', 'bringBack'],
  ],
  Outline: ['grow', 'band', 'lineToOutline'],
  Order: ['raise', 'lower', 'top', 'bottom'],
  'Turn and mirror': [
    ...['turn', 'turnBack', 'quarter', 'quarterBack'],
    ...['mirrorX', 'mirrorY', 'mirrorPlate', 'otherHalf', 'mirrorLine'],
  ],
  'Make alike': ['sameCentre', 'sameSize', 'sameAngle', 'copyPaint', 'takePaint'],
  Select: ['all', 'likeFill', 'likeLine', 'likeKind'],
};

const drawing = useDrawing();
const selection = useSelection();
const nodes = useNodes();
const clipboard = useClipboard();
const { actions } = useActions();

const known = computed<Record<string, Action>>(() => ({
  ...actions,
  pasteHere: { word: 'Paste in place', key: 'Ctrl+Shift+V', can: () => true, run: paste },
  all: { word: 'All', key: 'Ctrl+A', can: () => true, run: selection.all },
}));
const able = (names: readonly string[]) =>
  names.flatMap((name) => (known.value[name]!.can() ? [{ name, action: known.value[name]! }] : []));

/** What can be done to nodes that are worked on. */
function ofNodes(): { name: string; action: Action }[] {
  const can = () => true;
  const acts = NODE_ACTS.filter(({ needs }) => nodes.has(needs)).map(({ name, word, key }) => ({
    name,
    action: { word, key, can, run: () => nodes.act(name) },
  }));
  return nodes.ends.length > 1
    ? [
        ...acts,
        { name: 'joinEnds', action: { word: 'Join ends', key: 'J', can, run: nodes.joinEnds } },
      ]
    : acts;
}

const groups = computed(() => {
  if (!open.value) return [];
  const own = nodes.open ? [ofNodes()] : AT_HAND.map(able);
  return own.filter((group) => group.length);
});
const further = computed(() =>
  open.value && !nodes.open
    ? [
        ...Object.entries(FURTHER).map(([word, names]) => ({ word, items: able(names) })),
        { word: 'Move to plate', items: plates() },
      ].filter(({ items }) => items.length)
    : [],
);

/** The other plates, to which what is selected can be moved. */
function plates(): { name: string; action: Action }[] {
  const others = drawing.plates.filter((plate) => plate !== selection.plate);
  return (selection.ids.length ? others : []).map((plate) => ({
    name: plate,
    action: {
      key: '',
      word: drawing.heads[plate]!.name,
      can: () => true,
      run: () => clipboard.moveTo(plate).then(() => (selection.plate = plate)),
    },
  }));
}

async function paste(): Promise<void> {
  const text = await navigator.clipboard.readText().catch(() => null);
  await clipboard.paste(text, true);
}
</script>

<template>
  <v-menu v-model="open" :target="[props.at.x, props.at.y]" class="menus">
    <v-list density="compact" class="menu" aria-label="What can be done here">
      <template v-for="(group, i) in groups" :key="i">
        <v-divider v-if="i" />
        <v-list-item
          v-for="{ name, action } in group"
          :key="name"
          :data-action="name"
          @click="action.run()"
        >
          {{ action.word }}
          <template #append>
            <kbd>{{ action.key }}</kbd>
          </template>
        </v-list-item>
      </template>
      <v-divider v-if="further.length" />
      <v-list-item v-for="{ word, items } in further" :key="word" data-further>
        {{ word }}
        <template #append>›</template>
        <v-menu activator="parent" submenu open-on-hover class="menus" max-height="400">
          <v-list density="compact" class="menu" :aria-label="word">
            <v-list-item
              v-for="{ name, action } in items"
              :key="name"
              :data-action="name"
              @click="((open = false), action.run())"
            >
              {{ action.word }}
              <template #append>
                <kbd>{{ action.key }}</kbd>
              </template>
            </v-list-item>
          </v-list>
        </v-menu>
      </v-list-item>
    </v-list>
  </v-menu>
</template>

<style>
.menus .menu {
  min-width: 230px;
  padding: 5px 0;
  border: 1px solid var(--rule);
}
.menus .menu .v-list-item {
  min-height: 26px;
  font-size: 13px;
}
.menus .menu .v-divider {
  margin: 4px 0;
}
.menus kbd {
  margin-left: 18px;
  color: var(--soft);
  font-size: 10px;
}
</style>
