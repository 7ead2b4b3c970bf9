import type { VisitEntry } from '@keen-bleed/core';

const STANDINGS = { good: 'good', noted: 'noted', bad: 'not right' } as const;

/** What was noted, seen or found by a check, in one line. */
export function sayFound(entry: VisitEntry): string {
  if (entry.kind === 'check')
    return [`${entry.title}: ${entry.said}`, entry.note].filter(Boolean).join('. ');
  return entry.kind === 'seen' ? `${STANDINGS[entry.standing]}: ${entry.text}` : entry.text;
}
