import { afterEach, beforeEach, expect, test, vi } from 'vitest';

import { latestWins, type Manner } from '@/stores/latestWins';

/** Questions that are answered by hand. */
function asking(manner: Manner = {}) {
  const sent: string[] = [];
  const used: string[] = [];
  const signals: AbortSignal[] = [];
  const settle: { answer(value: string): void; fail(error: Error): void }[] = [];
  const asked = latestWins<string, string>(
    (question, signal) => {
      sent.push(question);
      signals.push(signal);
      return new Promise((answer, fail) => settle.push({ answer, fail }));
    },
    (answer, question) => used.push(`${question}: ${answer}`),
    manner,
  );
  return { ...asked, sent, used, settle, signals };
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());
const soon = () => vi.advanceTimersByTimeAsync(0);

test('one question is in flight, and of those behind it only the newest', async () => {
  const { ask, busy, sent, used, settle } = asking();
  ask('a');
  ask('b');
  ask('c');
  expect(sent).toEqual(['a']);
  settle[0]!.answer('1');
  await soon();
  expect(sent).toEqual(['a', 'c']);
  expect(busy.value).toBe(true);
  settle[1]!.answer('2');
  await soon();
  expect(used).toEqual(['a: 1', 'c: 2']);
  expect(busy.value).toBe(false);
});

test('what is cancelled is neither asked nor used, and what comes after it is', async () => {
  const { ask, busy, cancel, sent, used, settle, signals } = asking();
  ask('a');
  ask('b');
  expect(signals[0]!.aborted).toBe(false);
  cancel();
  expect(signals[0]!.aborted).toBe(true);
  expect(busy.value).toBe(false);
  ask('c');
  settle[0]!.answer('1');
  await soon();
  expect(used).toEqual([]);
  expect(sent).toEqual(['a', 'c']);
  settle[1]!.answer('2');
  await soon();
  expect(used).toEqual(['c: 2']);
});

test('a question waits until nothing newer has come for a while', async () => {
  const { ask, sent } = asking({ restMs: 40 });
  ask('a');
  await vi.advanceTimersByTimeAsync(30);
  ask('b');
  await vi.advanceTimersByTimeAsync(30);
  expect(sent).toEqual([]);
  await vi.advanceTimersByTimeAsync(10);
  expect(sent).toEqual(['b']);
});

test('of a burst of questions the first goes at once, and then the last when it is over', async () => {
  const { ask, sent, settle } = asking({ burstMs: 40 });
  ask('a');
  expect(sent).toEqual(['a']);
  settle[0]!.answer('1');
  await vi.advanceTimersByTimeAsync(30);
  ask('b');
  await vi.advanceTimersByTimeAsync(30);
  ask('c');
  await vi.advanceTimersByTimeAsync(30);
  expect(sent).toEqual(['a']);
  await vi.advanceTimersByTimeAsync(10);
  expect(sent).toEqual(['a', 'c']);
});

test('an error is told, unless it was overtaken, and the next question follows', async () => {
  const told: unknown[] = [];
  const { ask, cancel, sent, settle } = asking({ failed: (error) => told.push(error) });
  ask('a');
  ask('b');
  const error = new Error('away');
  settle[0]!.fail(error);
  await soon();
  expect(told).toEqual([error]);
  expect(sent).toEqual(['a', 'b']);
  cancel();
  settle[1]!.fail(new Error('stale'));
  await soon();
  expect(told).toEqual([error]);
});
