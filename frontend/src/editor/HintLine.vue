<script setup lang="ts">
import { computed } from 'vue';

import { articled } from '@/marks/keys';
import { shapeWord } from '@/marks/shapes';
import { shared } from '@/marks/sharing';
import { useActions } from '@/stores/actions';
import { useColours } from '@/stores/colours';
import { useCorners } from '@/stores/corners';
import { useInto } from '@/stores/into';
import { useNodes } from '@/stores/nodes';
import { useRegions } from '@/stores/regions';
import { useSelection } from '@/stores/selection';
import { useShelf } from '@/stores/shelf';
import { useSimplifying } from '@/stores/simplifying';
import { useTyping } from '@/stores/typing';
import { useView } from '@/stores/view';

/** What the pointer does now, and which keys change it. */
const view = useView();
const selection = useSelection();
const regions = useRegions();
const colours = useColours();
const corners = useCorners();
const nodes = useNodes();
const simplifying = useSimplifying();
const typing = useTyping();
const shelf = useShelf();
const into = useInto();
const actions = useActions();

interface Hint {
  says: string;
  keys: [string, string][];
}

/** Ctrl or Cmd, everywhere where something snaps. */
const FREE: [string, string] = ['Ctrl', 'no snapping'];

/** What is drawn, and what it does where it goes into a shape. */
function drawing_(tool: Exclude<typeof view.tool, 'pick'>): Hint {
  const hint = plainly(tool);
  const { does, target } = into;
  if (!target) return hint;
  // What is no single drag is told how it is drawn, whatever it does.
  const plain = ['path', 'text'].includes(tool) ? hint.says : 'Drag, or click to type its size.';
  const says = does ? `${plain} In ${target.name} it ${does}.` : hint.says;
  return { says, keys: [['J C O T', 'into it'], ...hint.keys] };
}

function plainly(tool: Exclude<typeof view.tool, 'pick'>): Hint {
  const back: [string, string] = ['Esc', 'back to picking'];
  if (tool === 'path')
    return {
      says: 'Click for corners, drag for curves; Enter or a click on the first node closes.',
      keys: [['Shift+Enter', 'leave it open'], ['Backspace', 'take a node back'], FREE, back],
    };
  if (tool === 'text')
    return { says: 'Click where the words begin, and type.', keys: [FREE, back] };
  const what = articled(shapeWord(tool).word.toLowerCase());
  if (shapeWord(tool).between)
    return {
      says: `Drag ${what} from end to end, or click to type its size.`,
      keys: [['Shift', 'by 15°'], ['Alt', 'from the middle'], FREE, back],
    };
  return {
    says: `Drag to draw ${what}, or click to type its size.`,
    keys: [['Shift', 'proportions'], ['Alt', 'from the centre'], FREE, back],
  };
}

function picking(): Hint {
  if (regions.placing)
    return { says: 'Click the dot that the lost region is now.', keys: [['Esc', 'leave']] };
  return {
    says: 'Click a dot to keep it, drag across dots to fuse.',
    keys: [
      ['X', 'drop while held'],
      ['Tab', 'from dot to dot'],
      ['Enter', 'applies'],
      ['Esc', 'leaves all as it was'],
    ],
  };
}

function editing(): Hint {
  const back: [string, string] = ['Esc', 'back'];
  if (nodes.snipping)
    return {
      says: 'Click a stretch between two crossings, or drag across several: they go.',
      keys: [['K', 'no more']],
    };
  if (nodes.live.length)
    return {
      says: 'What is live is settled first by a change here, as a step of its own.',
      keys: [['E', 'corners'], back],
    };
  if (nodes.sidesInHand.length)
    return {
      says: 'Drag a side to bend it; double-click adds a node.',
      keys: [['Alt', 'bends a straight one'], ['I A U', 'straight, arc, curve'], FREE, back],
    };
  if (nodes.inHand.length)
    return {
      says: 'Drag a node, or a handle.',
      keys: [
        ['Alt', 'one handle alone'],
        ['C S V', 'corner, smooth, even'],
        ['Delete', 'removes'],
        FREE,
        back,
      ],
    };
  return {
    says: 'Click a node or a side, or drag a box round several nodes.',
    keys: [['Shift', 'pick several'], ['Tab', 'the next'], ['E', 'corners'], back],
  };
}

/** What is taken hold of, by how many ends a shape has. */
const HOLDS: Record<number, string> = {
  2: 'an end to put it elsewhere',
  3: 'a dot on it to bend it',
};

function hintNow(): Hint {
  if (colours.waiting)
    return {
      says: 'Click where the colour is to be taken from.',
      keys: [
        ['Alt', 'the mean of a small disc'],
        ['Esc', 'leave'],
      ],
    };
  if (regions.open) return picking();
  if (corners.open)
    return {
      says: 'Drag a handle inward; double-click for its contour.',
      keys: [
        ['Shift', 'pick several'],
        ['Tab', 'the next'],
        ['arrows', 'larger, smaller'],
        ['E', 'its nodes'],
        ['Esc', 'back'],
      ],
    };
  if (nodes.open) return editing();
  if (typing.spacing)
    return {
      says: 'Drag a gap; its clear width is written under it.',
      keys: [
        ['Tab', 'the next'],
        ['arrows', 'closer, wider'],
        ['Delete', 'as the font has it'],
        ['Esc', 'back'],
      ],
    };
  if (typing.open)
    return {
      says: 'Type; Enter begins a new line.',
      keys: [
        ['Alt+← →', 'closer or wider here'],
        ['Ctrl+Z', 'take back'],
        ['Esc', 'done'],
      ],
    };
  if (simplifying.open)
    return {
      says: 'The outlines are shown as they would be; the bound says how far they may stray.',
      keys: [
        ['Enter', 'takes them'],
        ['Esc', 'leaves all as it is'],
      ],
    };
  if (shelf.inHand)
    return {
      says: `Drag to draw ${shelf.inHand.name}, or click to put it at ${shelf.percent} %.`,
      keys: [['Alt', 'from the centre'], FREE, ['Esc', 'let go of it']],
    };
  if (view.tool !== 'pick') return drawing_(view.tool);
  if (selection.only?.held)
    return {
      says: `${selection.only.node.name} is locked: it can be seen and snapped to, not moved.`,
      keys: [['L', 'unlock']],
    };
  if (actions.onSources && actions.onSources === selection.ids.join())
    return {
      says: `${selection.only ? 'The copy lies on its source' : 'The copies lie on their sources'}: drag to move.`,
      keys: [['arrows', 'nudge'], FREE],
    };
  const grips = selection.only ? (selection.figures[0]?.grips.length ?? 0) : 0;
  if (selection.only)
    return {
      says: `Drag to move, ${HOLDS[grips] ?? 'a bracket to resize'}, the dot on the ring to turn.`,
      keys: [['Shift', 'one axis, or proportions'], ['Alt', 'leave a copy'], FREE],
    };
  if (selection.selected.length > 1)
    return {
      says: 'Drag to move.',
      keys: [['J C O T', 'combine'], ['.', 'same centre'], [',', 'align'], ['U', 'group'], FREE],
    };
  if (selection.focused)
    return {
      says: selection.wholeInHand
        ? `On the ${selection.strand === 'pieces' ? 'pieces' : 'shapes'} of ${selection.focused.node.name}: click one, drag to move it alone.`
        : `Inside ${selection.focused.node.name}: click a shape of it.`,
      keys: [['Esc', 'step out']],
    };
  return {
    says: 'Click a shape to select it, or drag a box round several.',
    keys: [
      ['Alt', 'only what lies wholly inside'],
      ['wheel', 'zoom'],
      ['Space-drag', 'pan'],
      ['?', 'all keys'],
    ],
  };
}
const hint = computed<Hint>((before) => shared(before, hintNow()));
</script>

<template>
  <div class="hint" aria-live="polite">
    {{ hint.says }}
    <template v-for="([key, does], i) in hint.keys" :key="key">
      <template v-if="i"> · </template><b>{{ key }}</b> {{ does }}
    </template>
  </div>
</template>

<style scoped>
.hint {
  position: absolute;
  left: 14px;
  bottom: 9px;
  padding: 1px 6px;
  border-radius: 8px;
  background: rgb(233 227 214 / 85%);
  color: #4e5b67;
  font-size: 12px;
  pointer-events: none;
}
b {
  font-weight: 600;
}
</style>
