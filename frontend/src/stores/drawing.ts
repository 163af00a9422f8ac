import { defineStore } from 'pinia';
import { computed, ref, shallowReactive, shallowRef } from 'vue';

import client, { answered, RefusedError, UnreachableError } from '@/api/client';
import type {
  Command,
  DrawingState,
  Entries,
  Figure,
  Node,
  PlateHead,
  PreviewState,
} from '@/api/types';
import { latestWins } from '@/stores/latestWins';
import { useNotices } from '@/stores/notices';

const RETRY_MS = 1000;

export type SaveState = 'saved' | 'saving' | 'offline';

/** Random, and safe as an id in the document. */
export function newId(): string {
  return crypto.randomUUID().replaceAll('-', '').slice(0, 12);
}

/**
 * The open drawing: a copy of what the server holds, changed by commands only.
 *
 * Commands go out one at a time, each on the revision that the one before led to. While the
 * server cannot be reached the command waits and is sent again under the same key, so that
 * it is never done twice and never lost while this page is open.
 */
export const useDrawing = defineStore('drawing', () => {
  const id = ref('');
  const revision = ref(0);
  const name = ref('');
  const plates = ref<readonly string[]>([]);
  const heads = shallowReactive<Record<string, PlateHead>>({});
  const nodes = shallowReactive<Record<string, Node>>({});
  const figures = shallowReactive<Record<string, Figure[]>>({});
  const undoLabel = ref<string | null>(null);
  const redoLabel = ref<string | null>(null);
  const saveState = ref<SaveState>('saved');
  /** How many commands were refused: fields then show again what is true. */
  const refusals = ref(0);
  const preview = shallowRef<PreviewState | null>(null);
  const notices = useNotices();
  let queue: Promise<unknown> = Promise.resolve();
  let prepared: { id: string; answer: Promise<DrawingState> } | null = null;

  function put<T>(target: Record<string, T>, changes: Record<string, T | null>): void {
    for (const [key, value] of Object.entries(changes)) {
      if (value === null) delete target[key];
      else target[key] = value;
    }
  }

  function take(state: DrawingState): void {
    if (state.whole) {
      for (const target of [heads, nodes, figures])
        for (const key of Object.keys(target)) delete target[key];
    }
    const entries: Entries = state.entries;
    id.value = state.id;
    revision.value = state.revision;
    undoLabel.value = state.undo ?? null;
    redoLabel.value = state.redo ?? null;
    name.value = entries.name;
    put(nodes, entries.nodes as Record<string, Node | null>);
    for (const key of Object.keys(entries.nodes)) delete figures[key];
    put(figures, state.figures);
    put(heads, entries.heads);
    plates.value = entries.plates;
    preview.value = null;
  }

  function fetched(drawingId: string): Promise<DrawingState> {
    const params = { path: { drawing_id: drawingId } };
    return answered(client.GET('/api/drawings/{drawing_id}', { params }));
  }

  /** Asks for a drawing already while the editor itself is being loaded. */
  function prepare(drawingId: string): void {
    const answer = fetched(drawingId);
    answer.catch(() => undefined);
    prepared = { id: drawingId, answer };
  }

  async function open(drawingId: string): Promise<void> {
    const answer = prepared?.id === drawingId ? prepared.answer : fetched(drawingId);
    prepared = null;
    take(await answer);
    saveState.value = 'saved';
  }

  /** Sends until there is an answer; the server may be away for a while. */
  async function persistently(send: () => Promise<DrawingState>): Promise<DrawingState> {
    for (;;) {
      try {
        return await send();
      } catch (error) {
        if (!(error instanceof UnreachableError)) throw error;
        saveState.value = 'offline';
        await new Promise((done) => setTimeout(done, RETRY_MS));
      }
    }
  }

  function enqueue(send: () => Promise<DrawingState>): Promise<boolean> {
    const turn = queue.then(async () => {
      saveState.value = saveState.value === 'offline' ? 'offline' : 'saving';
      try {
        take(await persistently(send));
        return true;
      } catch (error) {
        preview.value = null;
        if (!(error instanceof RefusedError)) throw error;
        notices.say(error.message);
        if (error.problem.current) await open(id.value);
        refusals.value += 1;
        return false;
      } finally {
        saveState.value = 'saved';
      }
    });
    queue = turn.catch(() => undefined);
    return turn;
  }

  const path = () => ({ path: { drawing_id: id.value } });

  /** Does a command; answers whether it was taken. */
  function run(command: Command): Promise<boolean> {
    const key = newId();
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/commands', {
          params: path(),
          body: { revision: revision.value, key, command },
        }),
      ),
    );
  }

  function placeAsset(plate: string, asset: string, x: number, y: number, scale: number) {
    const key = newId();
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/assets', {
          params: path(),
          body: { revision: revision.value, key, plate, asset, x, y, scale },
        }),
      ),
    );
  }

  function undo(): Promise<boolean> {
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/undo', {
          params: path(),
          body: { revision: revision.value },
        }),
      ),
    );
  }

  function redo(): Promise<boolean> {
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/redo', {
          params: path(),
          body: { revision: revision.value },
        }),
      ),
    );
  }

  const look = latestWins(
    (command: Command) =>
      answered(
        client.POST('/api/drawings/{drawing_id}/preview', {
          params: path(),
          body: { revision: revision.value, command },
        }),
      ),
    (state) => {
      preview.value = state;
    },
  );

  function stopPreview(): void {
    look.cancel();
    preview.value = null;
  }

  /** What is to be seen: the drawing, or what it would be after the command in hand. */
  const shown = computed(() => {
    const over = preview.value;
    if (!over) return { heads, nodes, figures };
    const drop = <T>(record: Record<string, T | null>): Record<string, T> =>
      Object.fromEntries(
        Object.entries(record).filter((entry): entry is [string, T] => entry[1] !== null),
      );
    return {
      heads: drop<PlateHead>({ ...heads, ...over.entries.heads }),
      nodes: drop<Node>({ ...nodes, ...(over.entries.nodes as Record<string, Node | null>) }),
      figures: { ...figures, ...over.figures },
    };
  });

  return {
    id,
    revision,
    name,
    plates,
    heads,
    nodes,
    undoLabel,
    redoLabel,
    saveState,
    refusals,
    shown,
    prepare,
    open,
    run,
    placeAsset,
    undo,
    redo,
    look: look.ask,
    stopPreview,
  };
});
