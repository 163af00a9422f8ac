import { RefusedError, UnreachableError } from '@/api/client';
import { useNotices } from '@/stores/notices';

/** What the server answers, or null if it refuses ``what`` or is away: then it is said why. */
export async function attempt<T>(ask: () => Promise<T>, what?: string): Promise<T | null> {
  try {
    return await ask();
  } catch (error) {
    if (!(error instanceof RefusedError || error instanceof UnreachableError)) throw error;
    useNotices().say(what ? `${what}: ${error.message}` : error.message);
    return null;
  }
}
