import { readonly, ref } from 'vue';

/** How to ask, beside what is asked. */
export interface Manner {
  /** How long nothing newer must have been asked before a question goes out. */
  restMs?: number;
  /** The same, but only for a question that comes as soon as that after another one. */
  burstMs?: number;
  /** What becomes of an error; without it, it is dropped: the next question follows. */
  failed?: (error: unknown) => void;
}

/**
 * One request in flight, the newest waiting, stale answers dropped.
 *
 * `ask` is given a signal by which it hears that its answer is not wanted any more.
 */
export function latestWins<Q, A>(
  ask: (question: Q, signal: AbortSignal) => Promise<A>,
  use: (answer: A, question: Q) => void,
  { restMs = 0, burstMs = 0, failed }: Manner = {},
) {
  let resting: ReturnType<typeof setTimeout> | undefined;
  let inFlight: AbortController | null = null;
  let waiting: { question: Q } | null = null;
  let generation = 0;
  let asked = -Infinity;
  /** Whether an answer is wanted that has not come. */
  const busy = ref(false);

  const isBehind = () => waiting !== null || resting !== undefined;

  async function send(question: Q): Promise<void> {
    inFlight = new AbortController();
    const mine = generation;
    try {
      const answer = await ask(question, inFlight.signal);
      if (mine === generation) {
        busy.value = isBehind();
        use(answer, question);
      }
    } catch (error) {
      if (mine === generation) {
        busy.value = isBehind();
        failed?.(error);
      }
    }
    inFlight = null;
    if (waiting) {
      const next = waiting.question;
      waiting = null;
      void send(next);
    }
  }

  function go(question: Q): void {
    resting = undefined;
    if (inFlight) waiting = { question };
    else void send(question);
  }

  return {
    busy: readonly(busy),
    ask(question: Q): void {
      busy.value = true;
      clearTimeout(resting);
      const now = performance.now();
      const rest = now - asked < burstMs ? burstMs : restMs;
      asked = now;
      if (rest) resting = setTimeout(() => go(question), rest);
      else go(question);
    },
    /** Forgets what waits, and drops the answer that is on its way. */
    cancel(): void {
      clearTimeout(resting);
      resting = undefined;
      generation += 1;
      waiting = null;
      inFlight?.abort();
      busy.value = false;
    },
  };
}
