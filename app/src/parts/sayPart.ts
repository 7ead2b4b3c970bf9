import type { PartRecord, PressureUnit } from '@keen-bleed/contract';
import { sayPressure } from '@keen-bleed/core';
import { sayDay } from '../data/when';

/** How a part stands, in words. */
export const standingWords = {
  fitted: 'fitted',
  'not-fitted': 'not fitted',
  'not-known': 'not known',
} as const;

/** What was found of a part, in one line. */
export function sayPart(record: PartRecord | null, unit: PressureUnit): string {
  if (!record) return 'usual, not confirmed';
  const { standing, number, thread, setPsi, fittedOn, note, foundAtMs } = record;
  return [
    `${standingWords[standing]}, ${sayDay(foundAtMs)}`,
    number,
    thread,
    setPsi === undefined ? null : `set to ${sayPressure(setPsi, unit)}`,
    fittedOn ? `fitted on ${fittedOn}` : null,
    note,
  ]
    .filter(Boolean)
    .join(' · ');
}
