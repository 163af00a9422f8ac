/**
 * One request in flight, the newest waiting, stale answers dropped.
 *
 * Errors are dropped too: what is asked here is only looked at, and the next one follows.
 */
export function latestWins<Q, A>(ask: (question: Q) => Promise<A>, use: (answer: A) => void) {
  let inFlight = false;
  let waiting: { question: Q } | null = null;
  let generation = 0;

  async function send(question: Q): Promise<void> {
    inFlight = true;
    const mine = generation;
    try {
      const answer = await ask(question);
      if (mine === generation) use(answer);
    } catch {
      // A preview that fails leaves what was seen before.
    }
    inFlight = false;
    if (waiting) {
      const next = waiting.question;
      waiting = null;
      void send(next);
    }
  }

  return {
    ask(question: Q): void {
      if (inFlight) waiting = { question };
      else void send(question);
    },
    /** Forgets what waits, and drops the answer that is on its way. */
    cancel(): void {
      generation += 1;
      waiting = null;
    },
  };
}
