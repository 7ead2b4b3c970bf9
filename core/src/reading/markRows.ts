import type { RunEvent } from '@keen-bleed/contract';
import type { RunState } from '../run/runState';

/** One mark as a line of a table, for export. */
export interface MarkRow {
  seq: number;
  timeUtc: string;
  step: string;
  mark: string;
  readingPsi: number;
  resolutionPsi: number;
  method: string;
  gauge: string;
  /** `stands`, `corrected` by a later mark, or `taken back`. */
  state: string;
}

/** Every mark a run holds, corrected and taken-back ones too, in the order they were made. */
export function markRows(state: RunState, events: readonly RunEvent[]): MarkRow[] {
  const standing = new Set(state.marks.map((mark) => mark.eventId));
  const takenBack = new Set(
    events.flatMap((event) => (event.kind === 'retract' ? [event.target] : [])),
  );
  return events
    .flatMap((event) => (event.kind === 'mark' ? [event] : []))
    .sort((a, b) => a.seq - b.seq)
    .map((mark) => ({
      seq: mark.seq,
      timeUtc: new Date(mark.atMs).toISOString(),
      step: mark.stepId,
      mark: mark.key,
      readingPsi: mark.readingPsi,
      resolutionPsi: mark.resolutionPsi,
      method: mark.method,
      gauge: state.gauge ?? '',
      state: standing.has(mark.id) ? 'stands' : takenBack.has(mark.id) ? 'taken back' : 'corrected',
    }));
}
