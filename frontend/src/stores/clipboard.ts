import { defineStore } from 'pinia';
import { shallowRef } from 'vue';

import { bytes } from '@/api/bytes';
import client, { answered } from '@/api/client';
import type { CopiedShapes, KeptPicture, Node, PastedShapes } from '@/api/types';
import { commandOf } from '@/marks/commands';
import type { Point } from '@/marks/numbers';
import { attempt } from '@/stores/attempt';
import { newId, useDrawing } from '@/stores/drawing';
import { offerToFit } from '@/stores/fitting';
import { useNotices } from '@/stores/notices';
import { useSelection } from '@/stores/selection';
import { useSimplifying } from '@/stores/simplifying';

const PASTE_STEP = 10;
/** From so many nodes on fewer are offered. */
const MANY_NODES = 150;
const KEPT = 'dotstack-copied';

interface Copied {
  /** The text that lies on the system's clipboard for these shapes. */
  svg: string;
  /** The shapes in their plates' axes, the lowest first. */
  nodes: Node[];
  /** How often they were pasted already. */
  pasted: number;
}

/** Copies: over plates and drawings, and to and from other programs as SVG text. */
export const useClipboard = defineStore('clipboard', () => {
  const drawing = useDrawing();
  const selection = useSelection();
  const notices = useNotices();
  const simplifying = useSimplifying();
  const copied = shallowRef<Copied | null>(null);
  /** A copy that is under way: what is pasted meanwhile waits for it. */
  let copying: Promise<boolean> | null = null;
  /** What of the last file could not be kept, and where it is. */
  const notKept = shallowRef<{ name: string; notes: readonly string[] } | null>(null);
  /** Kept: one that nothing refers to may be collected before it has asked. */
  let chooser: HTMLInputElement | null = null;

  /** Copies the selection; answers whether there was one that could be copied. */
  async function copy(): Promise<boolean> {
    const mine = copyOut();
    copying = mine;
    try {
      return await mine;
    } finally {
      if (copying === mine) copying = null;
    }
  }

  async function copyOut(): Promise<boolean> {
    const ids = [...selection.ids];
    if (!ids.length) return false;
    const found = await attempt(() =>
      answered<CopiedShapes>(
        client.POST('/api/drawings/{drawing_id}/copy-out', {
          params: { path: { drawing_id: drawing.id } },
          body: { revision: drawing.revision, ids },
        }),
      ),
    );
    if (!found) return false;
    copied.value = { svg: found.svg, nodes: found.nodes as Node[], pasted: 0 };
    try {
      // Another drawing of ours, even in another tab, gets the shapes live.
      localStorage.setItem(KEPT, JSON.stringify(copied.value));
      await navigator.clipboard.writeText(found.svg);
    } catch {
      notices.say('The system clipboard cannot be reached; paste within this drawing works.');
    }
    return true;
  }

  async function cut(): Promise<void> {
    const ids = [...selection.ids];
    if (await copy()) await drawing.run({ kind: 'remove', ids });
  }

  /** Puts shapes on the plate in hand, moved by ``by``; they are selected then. */
  async function put(nodes: Node[], by: Point): Promise<void> {
    const seed = newId();
    const move = { e: by.x, f: by.y };
    const command = commandOf('paste', { plate: selection.plate, nodes, seed, by: move });
    if (!(await drawing.run(command))) return;
    selection.pick(...selection.copiesOf(seed));
    if (!offerToFit()) offerToSimplify();
  }

  /** Of what has very many nodes, as a tracing, some can go. */
  function offerToSimplify(): void {
    const count = selection.figures.reduce((sum, figure) => sum + figure.node_count, 0);
    if (count < MANY_NODES) return;
    notices.say(`That has ${count} nodes; fewer may do.`, {
      label: 'Simplify',
      run: simplifying.begin,
    });
  }

  /** What was copied here last, if ``text`` is still what was put on the clipboard then. */
  function ours(text: string | null): Copied | null {
    if (copied.value && (text === null || same(copied.value.svg, text))) return copied.value;
    const kept = localStorage.getItem(KEPT);
    const other = kept ? (JSON.parse(kept) as Copied) : null;
    return other && (text === null || same(other.svg, text)) ? other : null;
  }

  /** Pastes ``text`` from the system's clipboard; null where that cannot be read. */
  async function paste(text: string | null, inPlace = false): Promise<void> {
    // What was on the clipboard when a copy was still under way is not what is meant.
    const known = ours(copying && (await copying) ? null : text);
    if (known) {
      copied.value = { ...known, pasted: known.pasted + 1 };
      const by = inPlace ? 0 : PASTE_STEP * copied.value.pasted;
      await put(known.nodes, { x: by, y: by });
    } else if (text?.includes('<')) await pasteSvg(text);
    else notices.say('There is nothing to paste: copy shapes, or SVG text, first.');
  }

  /** Makes shapes of SVG files and underlays of pictures; others are named and left. */
  async function pasteFiles(files: readonly File[]): Promise<void> {
    for (const file of files)
      if (file.type === 'image/svg+xml' || file.name.endsWith('.svg'))
        await pasteSvg(file, file.name);
      else if (['image/png', 'image/jpeg'].includes(file.type)) await pastePicture(file);
      else
        notices.say(
          `${file.name} is of no kind that can be brought in: SVG becomes shapes, PNG and JPEG an underlay.`,
        );
  }

  /** Asks for files, and takes them in. */
  function chooseFiles(): void {
    chooser ??= fileChooser();
    // The same one again would be no change.
    chooser.value = '';
    chooser.click();
  }

  function fileChooser(): HTMLInputElement {
    const made = document.createElement('input');
    made.type = 'file';
    made.multiple = true;
    made.accept = '.svg,image/svg+xml,image/png,image/jpeg';
    made.onchange = () => void pasteFiles([...(made.files ?? [])]);
    return made;
  }

  /** Puts a picture under all shapes of the plate in hand. */
  async function pastePicture(file: File): Promise<void> {
    const found = await attempt(
      () => answered<KeptPicture>(client.POST('/api/pictures', bytes(file, file.type))),
      file.name,
    );
    if (!found) return;
    const id = newId();
    const name =
      file.name
        .replace(/\.[^.]*$/, '')
        .trim()
        .slice(0, 120) || 'Underlay';
    const command = commandOf('add-underlay', { plate: selection.plate, id, name, ...found });
    if (!(await drawing.run(command))) return;
    selection.pick(id);
    offerToFit();
  }

  async function pasteSvg(svg: string | File, name = 'what was pasted'): Promise<void> {
    const found = await attempt(() =>
      answered<PastedShapes>(
        client.POST('/api/import/svg', {
          ...bytes(svg, 'image/svg+xml'),
        }),
      ),
    );
    if (!found) return;
    await put(found.nodes as Node[], { x: 0, y: 0 });
    if (found.notes.length) notKept.value = { name, notes: found.notes };
  }

  /** Puts shapes of this plate in another one, as they stand. */
  function moveTo(plate: string): Promise<boolean> {
    const top = drawing.heads[plate]?.nodes.at(-1) ?? null;
    return drawing.run({
      kind: 'move-in-stack',
      ids: [...selection.ids],
      parent: plate,
      above: top,
    });
  }

  return { copied, notKept, copy, cut, paste, pasteFiles, chooseFiles, moveTo };
});

/** Clipboards may change line ends and the white space round a text. */
function same(one: string, two: string): boolean {
  return one.replace(/\s+/g, '') === two.replace(/\s+/g, '');
}
