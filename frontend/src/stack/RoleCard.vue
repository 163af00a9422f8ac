<script setup lang="ts">
import { onMounted, ref, shallowRef } from 'vue';

import { RefusedError } from '@/api/client';
import type { Command, Figure, Node, Piece, Role } from '@/api/types';
import PathPicture from '@/look/PathPicture.vue';
import { commandOf } from '@/marks/commands';
import { paintOf } from '@/marks/kinds';
import { cssOf, pieceOf } from '@/marks/paint';
import { ROLE_WORDS, ROLES } from '@/marks/roles';
import { newId, useDrawing } from '@/stores/drawing';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';

/** What shapes that are dropped on another do there, as pictures of what it comes to. */
const props = defineProps<{ ids: readonly string[]; target: Node }>();
const emit = defineEmits<{ done: [] }>();

interface Way {
  word: string;
  says: string;
  command: Command;
  /** What is seen of it; null where it cannot be, with the reason. */
  figure: Figure | null;
  fault: string;
}

const drawing = useDrawing();
const selection = useSelection();
const notices = useNotices();
const whole = newId();
const ways = shallowRef<readonly Way[]>([]);
const card = ref<HTMLElement>();

function making(role: Role): Command {
  const { result } = ROLE_WORDS[role];
  const into = { id: props.target.id, role, whole, name: result };
  return commandOf('make-members', { ids: [...props.ids], into });
}

/** What a command would make, as the core has it. */
async function looked(word: string, says: string, command: Command): Promise<Way> {
  try {
    const figures = Object.values((await drawing.tried(command)).figures).flat();
    const made = [whole, props.target.id];
    const figure = made.flatMap((key) => figures.filter(({ id }) => id === key))[0] ?? null;
    return { word, says, command, figure, fault: figure ? '' : 'nothing left' };
  } catch (error) {
    if (!(error instanceof RefusedError)) throw error;
    return { word, says, command, figure: null, fault: error.message };
  }
}

async function take(way: Way): Promise<void> {
  drawing.stopPreview();
  emit('done');
  if (await drawing.run(way.command)) selection.pick(...props.ids);
}

function walk(by: number): void {
  const tiles = [...card.value!.querySelectorAll<HTMLElement>('.tile:not(:disabled)')];
  const at = tiles.indexOf(document.activeElement as HTMLElement);
  tiles[(at + by + tiles.length) % tiles.length]?.focus();
}

function leave(): void {
  drawing.stopPreview();
  emit('done');
}

function plain({ path, fill_rule }: Figure): Piece {
  return pieceOf({ path, fill_rule, fill: cssOf(paintOf(props.target).look.fill) ?? '#D8CFBF' });
}

onMounted(async () => {
  const clip = commandOf('put-inside', { ids: [...props.ids], holder: props.target.id, id: whole });
  ways.value = await Promise.all([
    ...ROLES.map((role) => looked(role, ROLE_WORDS[role].says, making(role))),
    looked('shows within', 'keeps its own paint, and shows only inside', clip),
  ]);
  const [first] = ways.value;
  if (ways.value.every(({ figure }) => !figure)) {
    notices.say(first!.fault);
    emit('done');
  } else requestAnimationFrame(() => walk(1));
});
</script>

<template>
  <div
    ref="card"
    class="card"
    role="dialog"
    :aria-label="`What it does in ${target.name}`"
    @keydown.esc.stop="leave"
    @keydown.right.prevent="walk(1)"
    @keydown.left.prevent="walk(-1)"
  >
    <p class="soft">
      In {{ target.name }} it
      <button class="leave" title="leave all as it was (Esc)" @click="leave">leave</button>
    </p>
    <div class="tiles">
      <button
        v-for="way in ways"
        :key="way.word"
        class="tile"
        :disabled="!way.figure"
        :title="way.fault || `${way.word}: ${way.says}`"
        @pointerenter="drawing.look(way.command)"
        @focus="drawing.look(way.command)"
        @pointerleave="drawing.stopPreview()"
        @click="take(way)"
      >
        <PathPicture
          v-if="way.figure"
          :pieces="way.figure.pieces ?? [plain(way.figure)]"
          :box="way.figure.bounds"
          :margin="0.05"
        />
        <svg v-else viewBox="0 0 66 58" aria-hidden="true"><circle cx="33" cy="29" r="20" /></svg>
        <b>{{ way.word }}</b>
      </button>
    </div>
  </div>
</template>

<style scoped>
.card {
  position: absolute;
  z-index: 5;
  left: 16px;
  padding: 8px 12px 12px;
  background: var(--card);
  border: 1px solid var(--rule);
  border-radius: 16px;
}
p {
  display: flex;
  justify-content: space-between;
  margin: 0 2px 6px;
  font-size: 12px;
}
.leave {
  color: var(--tide);
}
.tiles {
  display: grid;
  grid-template-columns: repeat(2, 92px);
  gap: 6px;
}
.tile {
  height: 84px;
}
.tile circle {
  fill: none;
  stroke: var(--rule);
  stroke-width: 2;
  stroke-dasharray: 3 4;
}
</style>
