import type { Held } from '@keen-bleed/contract';
import { ask, RequestProblem } from '../wire/api';

/** Whether an answer is the server's own word on what it holds of a log. */
export function isHeld(answer: unknown, logId: string): answer is Held {
  if (typeof answer !== 'object' || answer === null) return false;
  const { logId: of, held, lanes } = answer as Partial<Held>;
  return of === logId && typeof held === 'number' && typeof lanes === 'object' && lanes !== null;
}

/** What the server holds of some logs; of one it does not know, nothing. */
export async function askHeldOf(ids: readonly string[]): Promise<Map<string, Held>> {
  const answer = await ask('POST', '/api/v1/logs/held', { ids: [...ids] });
  if (!Array.isArray(answer?.logs)) {
    throw new RequestProblem(
      'offline',
      'Something between here and the shop’s server is in the way.',
    );
  }
  return new Map(answer.logs.map((held) => [held.logId, held]));
}

/** What the server holds of one log, or null where it does not know it. */
export const askHeld = async (logId: string): Promise<Held | null> =>
  (await askHeldOf([logId])).get(logId) ?? null;
