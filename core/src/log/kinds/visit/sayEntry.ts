import type { VisitEntry } from './visitKind';

/** How a thing is that was seen, in a word or two. */
export const seenWords = { good: 'good', noted: 'noted', bad: 'not right' } as const;

/** What an entry is headed by where it is not its part or its check. */
export const entryTitles = {
  note: 'Note',
  complaint: 'The driver says',
  named: 'Named as the fault',
  ranked: 'Suspects',
  mended: 'Mended',
  held: 'Held',
  aside: 'Seen on the way',
  weather: 'Weather',
} as const;

/** What an entry says by itself: the words of a note or of what was seen, or what a check gave. */
export const entryWords = (entry: VisitEntry): string =>
  entry.kind === 'check' ? [entry.said, entry.note].filter(Boolean).join('. ') : entry.text;

/** An entry in one line, with the check that gave it, or how the thing seen is. */
export function sayEntry(entry: VisitEntry): string {
  if (entry.kind === 'check') return `${entry.title}: ${entryWords(entry)}`;
  if (entry.kind !== 'note' && entry.kind !== 'seen')
    return `${entryTitles[entry.kind]}: ${entry.text}`;
  return entry.kind === 'seen' ? `${seenWords[entry.standing]}: ${entry.text}` : entry.text;
}
