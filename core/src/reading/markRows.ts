import type { RunFact } from '@keen-bleed/contract';
import { clockAnswers, correctedMs } from '../facts/factTimes';
import type { RunState } from '../run/runState';

/** One mark as a line of a table, for export. */
export interface MarkRow {
  /** Place in the run. */
  seq: number;
  /** By the server's clock, as far as the device's offset is known. */
  timeUtc: string;
  /** By the clock of the device. */
  deviceTimeUtc: string;
  /** How far that clock was ahead, s; empty where that is not known. */
  clockAheadS: number | '';
  /** When the server took it; empty on a device. */
  receivedUtc: string;
  step: string;
  mark: string;
  readingPsi: number;
  resolutionPsi: number;
  /** `read`, `crossing`, or `suggested` where nobody set the needle. */
  method: string;
  gauge: string;
  /** `stands`, `corrected` by a later mark, `taken back`, or `not counted`: made where the run had been taken from. */
  state: string;
}

/**
 * Every mark a run holds, corrected and taken-back ones too.
 *
 * @param facts in their order
 */
export function markRows(state: RunState, facts: readonly RunFact[]): MarkRow[] {
  const standing = new Set(state.marks.map((mark) => mark.factId));
  const takenBack = new Set(
    facts.flatMap((fact) => (fact.kind === 'retract' ? [fact.target] : [])),
  );
  const aside = new Set(state.setAside.map(({ id }) => id));
  const answers = clockAnswers(facts);
  const utc = (atMs: number) => new Date(atMs).toISOString();
  return facts
    .flatMap((fact, place) => (fact.kind === 'mark' ? [{ mark: fact, seq: place + 1 }] : []))
    .map(({ mark, seq }) => {
      const aheadMs = mark.offsetMs ?? answers.get(mark.lane);
      return {
        seq,
        timeUtc: utc(correctedMs(mark, aheadMs)),
        deviceTimeUtc: utc(mark.atMs),
        clockAheadS: aheadMs === undefined ? '' : aheadMs / 1000,
        receivedUtc: mark.receivedAtMs === undefined ? '' : utc(mark.receivedAtMs),
        step: mark.stepId,
        mark: mark.key,
        readingPsi: mark.readingPsi,
        resolutionPsi: mark.resolutionPsi,
        method: mark.suggested ? 'suggested' : mark.method,
        gauge: state.gauge ?? '',
        state: standing.has(mark.id)
          ? 'stands'
          : aside.has(mark.id)
            ? 'not counted'
            : takenBack.has(mark.id)
              ? 'taken back'
              : 'corrected',
      };
    });
}
