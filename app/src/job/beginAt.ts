import type { Likely } from '../air/drawing';
import type { Conclusion } from './ProveSheet';
import type { LiveJob } from './useJob';

/** Where a conclusion begins for a likely fault: what was checked at its part, or what the run showed. */
export function beginAt(
  { header }: LiveJob,
  { faultId, unit, partId, title }: Likely,
  checks: readonly { partId: string; said: string }[],
): Conclusion {
  const { made } = header;
  const by = checks.find((each) => each.partId === partId)?.said;
  // A suspect's name is no check: which one proved it is for the technician to say.
  const asFound = made.bornOf.kind === 'suspect' ? '' : made.found;
  return {
    unitId: made.units[unit]?.id ?? made.units[0]!.id,
    partId,
    faultId,
    text: title,
    by: by ?? asFound,
  };
}
