import { RefusedError, UnreachableError } from '@/api/client';
import { useNotices } from '@/stores/notices';

/** What the server answers, or null if it refuses or is away: then it is said why. */
export async function attempt<T>(ask: () => Promise<T>): Promise<T | null> {
  try {
    return await ask();
  } catch (error) {
    if (!(error instanceof RefusedError || error instanceof UnreachableError)) throw error;
    useNotices().say(error.message);
    return null;
  }
}
