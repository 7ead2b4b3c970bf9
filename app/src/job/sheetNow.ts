import type { Owed } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import type { Conclusion } from './ProveSheet';
import type { LiveJob } from './useJob';

/** The sheet that stands over a job. */
export type SheetNow =
  | { sheet: 'prove'; begins: Conclusion | null; replaces: boolean }
  | { sheet: 'mend'; does: 'choose' | 'fit' }
  | { sheet: 'wait' | 'measure' | 'reopen' }
  | { sheet: 'accept'; owed: Owed }
  | { sheet: 'check'; owed: Owed; check: Check };

/** What a marker that was let go at a station asks for; nothing where the job is not so far. */
export function asksFor(
  to: string | undefined,
  { state }: LiveJob,
  mayWrite: boolean,
): SheetNow | null {
  if (!mayWrite || to === undefined) return null;
  const { station, proven } = state;
  if (to === 'proven' && station === 'found')
    return { sheet: 'prove', begins: null, replaces: false };
  if ((to === 'found' || to === 'proven') && proven)
    return { sheet: 'prove', begins: null, replaces: true };
  if (to === 'part' && station === 'proven') return { sheet: 'mend', does: 'choose' };
  if (to === 'fitted' && (station === 'part' || station === 'proven'))
    return { sheet: 'mend', does: 'fit' };
  return null;
}
