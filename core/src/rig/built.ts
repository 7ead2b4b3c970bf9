import type { UnitDraft } from '@keen-bleed/contract';

/** Whether a unit was built before a month or from it on; undecided where its date does not say. */
export type BuiltWhen = 'before' | 'from' | 'undecided';

/**
 * Compares when a unit was built with the day a rule begins on. A year alone leaves the months of that year undecided,
 * and a year that nobody confirmed leaves everything undecided.
 *
 * @param day a rule begins on, such as `1998-03-01`, or a month; a rule that begins within a month leaves that month
 *   undecided
 * @example builtWhen({ buildYear: 1998 }, '1998-03') // 'undecided'
 */
export function builtWhen(
  {
    buildYear,
    buildMonth,
    buildYearUnsure,
  }: Pick<UnitDraft, 'buildYear' | 'buildMonth' | 'buildYearUnsure'>,
  day: string,
): BuiltWhen {
  if (buildYearUnsure) return 'undecided';
  const [year = 0, of = 1, begins = 1] = day.split('-').map(Number);
  const at = year * 12 + of;
  const first = buildYear * 12 + (buildMonth ?? 1);
  const last = buildYear * 12 + (buildMonth ?? 12);
  if (last < at) return 'before';
  return first >= at + (begins > 1 ? 1 : 0) ? 'from' : 'undecided';
}
