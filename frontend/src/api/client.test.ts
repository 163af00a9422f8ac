import { expect, test } from 'vitest';

import { answered, RefusedError, UnreachableError } from '@/api/client';

const answer = (status: number, error?: object) =>
  Promise.resolve({ data: { fine: true }, error, response: new Response(null, { status }) });
const problem = (status: number) => ({ title: 'No', status, detail: 'Not now.' });

test('an answer is given, a refusal said, and what may go better later told apart', async () => {
  await expect(answered(answer(200))).resolves.toEqual({ fine: true });
  await expect(answered(answer(422, problem(422)))).rejects.toThrow(RefusedError);
  const cases: [Promise<Awaited<ReturnType<typeof answer>>>, boolean][] = [
    [Promise.reject(new TypeError('away')), false],
    [answer(500, problem(500)), true],
    [answer(502), true],
    // A busy server has not failed: a step waits for it, and is not left out after some tries.
    [answer(503, problem(503)), false],
  ];
  for (const [pending, failed] of cases) {
    const error = await answered(pending).catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(UnreachableError);
    expect((error as UnreachableError).failed).toBe(failed);
  }
});
