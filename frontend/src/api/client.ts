import createClient from 'openapi-fetch';

import type { paths } from './schema';
import type { Problem } from './types';

const client = createClient<paths>();
const BUSY = 503;
/** Nobody has said the access phrase here, or it is another one by now. */
const OUTSIDE = 401;

/** The server said no, and why. */
export class RefusedError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail);
  }
}

/** The server could not be reached, or did not understand itself; trying again may help. */
export class UnreachableError extends Error {
  constructor(
    message: string,
    /** Whether it answered that it failed. */
    readonly failed = false,
  ) {
    super(message);
  }
}

interface Answer {
  data?: unknown;
  error?: unknown;
  response: Response;
}

/**
 * Waits for an answer; throws RefusedError or UnreachableError.
 *
 * The caller names its type: nodes hold nodes, too deep for what the client derives by itself.
 */
export async function answered<T>(pending: Promise<Answer>): Promise<T> {
  let answer: Answer;
  try {
    answer = await pending;
  } catch {
    throw new UnreachableError('Dot Stack cannot be reached.');
  }
  if (answer.response.ok) return answer.data as T;
  // The server answers a page that asks for the phrase, and leads back here.
  if (answer.response.status === OUTSIDE) location.reload();
  const problem = answer.error as Problem | undefined;
  if (problem?.detail && answer.response.status < 500) throw new RefusedError(problem);
  // One that is busy has not failed: it says so, and has changed nothing.
  const failed = answer.response.status !== BUSY;
  throw new UnreachableError(problem?.detail ?? 'Dot Stack did not answer.', failed);
}

export default client;
