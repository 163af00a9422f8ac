import { defineStore } from 'pinia';
import { computed, ref, shallowReactive, shallowRef } from 'vue';

import client, { answered, RefusedError, UnreachableError } from '@/api/client';
import type {
  Command,
  DrawingState,
  Entries,
  Figure,
  Line,
  Measure,
  Node,
  PlateHead,
  PreviewState,
  Source,
  Swatch,
} from '@/api/types';
import type { Fields, Kind } from '@/marks/commands';
import { commandOf } from '@/marks/commands';
import type { Point } from '@/marks/numbers';
import { shared } from '@/marks/sharing';
import { latestWins } from '@/stores/latestWins';
import { useNotices } from '@/stores/notices';
import type { Waiting } from '@/stores/waiting';
import { settle, wait, waitingFor } from '@/stores/waiting';

const RETRY_MS = 1000;
/** So often a step is sent at which the server fails: it must not stand in the way of others. */
const TRIES = 3;

export type SaveState = 'saved' | 'saving' | 'offline';

function mapped<T>(record: Record<string, T>, change: (value: T, key: string) => T) {
  return Object.fromEntries(
    Object.entries(record).map(([key, value]) => [key, change(value, key)]),
  );
}

/** What ``value`` and all that is in it come to. */
function gathered(value: unknown, of: (one: object | string) => string[]): string[] {
  if (typeof value === 'string') return of(value);
  if (typeof value !== 'object' || !value) return [];
  return [...of(value), ...Object.values(value).flatMap((inner) => gathered(inner, of))];
}

/** The ids of a node and of all nodes in it. */
function idsOf(node: Node): string[] {
  return gathered(node, (one) => (typeof one === 'object' && 'id' in one ? [String(one.id)] : []));
}

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
  const swatches = ref<readonly Swatch[]>([]);
  const measures = ref<readonly Measure[]>([]);
  const sources = shallowReactive<Record<string, Source>>({});
  const heads = shallowReactive<Record<string, PlateHead>>({});
  const nodes = shallowReactive<Record<string, Node>>({});
  const figures = shallowReactive<Record<string, Figure[]>>({});
  const undoLabel = ref<string | null>(null);
  const redoLabel = ref<string | null>(null);
  const saveState = ref<SaveState>('saved');
  /** How many commands were refused: fields then show again what is true. */
  const refusals = ref(0);
  const preview = shallowRef<PreviewState | null>(null);
  /** The shapes whose nodes are told with every look. */
  const watched = ref<readonly string[]>([]);
  /** The text of which every look tells where its letters stand. */
  const watchedText = ref<string | null>(null);
  /** Those of which it is told with every look how what they are made of stands. */
  const opened = ref<readonly string[]>([]);
  /** How many steps are on their way to the disk. */
  const pending = ref(0);
  /** The steps that are not on disk yet. */
  const waiting = shallowRef<readonly Waiting[]>([]);
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
      for (const target of [heads, nodes, figures, sources])
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
    put(sources, entries.sources);
    plates.value = entries.plates;
    swatches.value = entries.swatches ?? [];
    measures.value = entries.measures ?? [];
    // What was looked at before it was taken would be shown over it.
    stopPreview();
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
    // What was done while the server was away goes to it now, if it has not been.
    for (const { key, command } of waitingFor(drawingId)) void runFound(async () => command, key);
  }

  /** Sends until there is an answer; the server may be away for a while. */
  async function persistently<T>(send: () => Promise<T>): Promise<T> {
    for (let failed = 0; ;) {
      try {
        return await send();
      } catch (error) {
        if (!(error instanceof UnreachableError)) throw error;
        failed += error.failed ? 1 : 0;
        if (failed === TRIES) {
          const detail = `The server fails at this step, which is left out: ${error.message}`;
          throw new RefusedError({ title: 'Left out', status: 500, detail });
        }
        saveState.value = 'offline';
        await new Promise((done) => setTimeout(done, RETRY_MS));
      }
    }
  }

  function enqueue(send: () => Promise<DrawingState | null>): Promise<boolean> {
    pending.value += 1;
    // At once, also where it waits behind others: nothing else is *saved*.
    if (saveState.value === 'saved') saveState.value = 'saving';
    const turn = queue.then(async () => {
      try {
        const state = await persistently(send);
        if (state) take(state);
        return state !== null;
      } catch (error) {
        stopPreview();
        if (!(error instanceof RefusedError)) throw error;
        notices.say(error.message);
        if (error.problem.current) take(await fetched(id.value));
        refusals.value += 1;
        return false;
      } finally {
        pending.value -= 1;
        saveState.value = pending.value ? 'saving' : 'saved';
      }
    });
    queue = turn.catch(() => undefined);
    return turn;
  }

  /** When all commands that were given are on disk, or were refused. */
  async function settled(): Promise<void> {
    await queue;
  }

  const path = () => ({ path: { drawing_id: id.value } });

  /** Takes all of the drawing anew, where what it is shown by has changed. */
  function reopen(): Promise<boolean> {
    return enqueue(() => fetched(id.value));
  }

  /** Takes steps that were done elsewhere, unless something is in hand here. */
  function catchUp(): void {
    queue = queue.then(async () => {
      if (preview.value) return;
      const newest = await answered<{ revision: number }>(
        client.GET('/api/drawings/{drawing_id}/revision', { params: path() }),
      ).catch(() => null);
      if (!newest || newest.revision === revision.value) return;
      const state = await fetched(id.value).catch(() => null);
      if (state && !preview.value) take(state);
    });
  }

  function waits(drawingId: string, step: Waiting): void {
    wait(drawingId, step);
    waiting.value = waitingFor(drawingId);
  }

  /** Does the command that ``found`` comes to, if any; what follows waits for it. */
  function runFound(found: () => Promise<Command | null>, key: string = newId()): Promise<boolean> {
    const drawingId = id.value;
    const turn = enqueue(async () => {
      const command = await found();
      if (!command) return null;
      waits(drawingId, { key, command });
      const send = () =>
        answered<DrawingState>(
          client.POST('/api/drawings/{drawing_id}/commands', {
            params: path(),
            body: { revision: revision.value, key, command },
          }),
        );
      try {
        return await send();
      } catch (error) {
        if (!(error instanceof RefusedError && error.problem.current)) throw error;
        return await rebased(command, send);
      }
    });
    return turn.finally(() => {
      settle(drawingId, key);
      waiting.value = waitingFor(drawingId);
    });
  }

  /**
   * Does a command on a drawing that was changed elsewhere: at once if the change was to other
   * shapes, else when the person says so.
   */
  async function rebased(
    command: Command,
    send: () => Promise<DrawingState>,
  ): Promise<DrawingState | null> {
    // Who names a piece means its whole; who names a shape inside a twin is told by its id.
    const said = new Set(
      gathered(command, (one) => (typeof one === 'string' ? [one.split('.')[0]!] : [])),
    );
    const touched = () =>
      Object.values(nodes).filter((node) => idsOf(node).some((key) => said.has(key)));
    const before = JSON.stringify(touched());
    take(await fetched(id.value));
    if (JSON.stringify(touched()) === before) return send();
    refusals.value += 1;
    notices.say('What you changed was changed elsewhere meanwhile, and is shown as it is now.', {
      label: 'Do mine all the same',
      run: () => void run(command),
    });
    return null;
  }

  /** Does a command; answers whether it was taken. */
  function run(command: Command): Promise<boolean> {
    const key = newId();
    // It waits from now on, also behind others.
    waits(id.value, { key, command });
    return runFound(() => Promise.resolve(command), key);
  }

  /** The same, of a kind of command and its fields. */
  function act<K extends Kind>(kind: K, fields: Fields<K>): Promise<boolean> {
    return run(commandOf(kind, fields));
  }

  /** Puts a copy of an asset on a plate, in its own paint or in another. */
  function placeAsset(
    plate: string,
    asset: string,
    { x, y }: Point,
    scale: number,
    paint: { fill: string | null; lines: Line[] } | null = null,
  ): Promise<boolean> {
    const key = newId();
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/assets', {
          params: path(),
          body: { revision: revision.value, key, plate, asset, x, y, scale, paint },
        }),
      ),
    );
  }

  /** Gives a placed copy its asset's new mark, or keeps it as it is. */
  function renew(node: string, keep: boolean): Promise<boolean> {
    const key = newId();
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/renew', {
          params: path(),
          body: { revision: revision.value, key, id: node, keep },
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

  /** Makes the drawing what it was in a state of its history, as a new step. */
  function goBack(state: string): Promise<boolean> {
    const key = newId();
    return enqueue(() =>
      answered(
        client.POST('/api/drawings/{drawing_id}/go-back', {
          params: path(),
          body: { revision: revision.value, key, state },
        }),
      ),
    );
  }

  /** What a command would lead to; it is not done. */
  function tried(command: Command, signal?: AbortSignal): Promise<PreviewState> {
    return answered<PreviewState>(
      client.POST('/api/drawings/{drawing_id}/preview', {
        params: path(),
        signal,
        body: {
          revision: revision.value,
          command,
          nodes: [...watched.value],
          letters: watchedText.value,
          opened: [...opened.value],
        },
      }),
    );
  }

  const look = latestWins(tried, (state) => {
    const before = preview.value?.entries.nodes ?? {};
    const after = state.entries.nodes;
    // What stays the same keeps its identity, so that only the rest is drawn anew.
    for (const key of Object.keys(after))
      after[key] = shared(before[key], shared(nodes[key], after[key]));
    preview.value = state;
  });

  /** The nodes of what is watched, as the command in hand would leave them. */
  const lookedNodes = computed(() => preview.value?.nodes ?? {});
  /** The letters of the text that is watched, likewise. */
  const lookedLetters = computed(() => preview.value?.letters ?? null);

  function stopPreview(): void {
    look.cancel();
    preview.value = null;
  }

  /** Figures with those of the same id that are others now. */
  function merged(before: readonly Figure[] | undefined, fresh: Figure[]): Figure[] {
    const byId = new Map(fresh.map((figure) => [figure.id, figure]));
    const kept = (before ?? []).map((figure) => {
      const other = byId.get(figure.id);
      byId.delete(figure.id);
      return other ?? figure;
    });
    return [...kept, ...byId.values()];
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
      figures: { ...figures, ...mapped(over.figures, (fresh, key) => merged(figures[key], fresh)) },
    };
  });

  return {
    id,
    revision,
    name,
    plates,
    swatches,
    measures,
    sources,
    heads,
    nodes,
    figures,
    undoLabel,
    redoLabel,
    saveState,
    pending,
    waiting,
    refusals,
    shown,
    prepare,
    open,
    settled,
    catchUp,
    reopen,
    run,
    do: act,
    runFound,
    placeAsset,
    renew,
    undo,
    redo,
    goBack,
    tried,
    look: look.ask,
    watched,
    lookedNodes,
    watchedText,
    opened,
    lookedLetters,
    stopPreview,
  };
});
