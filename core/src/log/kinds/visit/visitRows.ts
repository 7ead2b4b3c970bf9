import type { CheckFact, VisitFact, VisitHeader } from '@keen-bleed/contract';
import { clockAnswers, correctedMs } from '../../../facts/factTimes';
import { partTitle } from '../../../rig/partList';
import { entryTitles, entryWords } from './sayEntry';
import { partOfEntry, type VisitEntry, type VisitState } from './visitKind';

/** One entry of a visit as a row of a table; pressures psi, times UTC. */
export interface VisitRow {
  timeUtc: string;
  by: string;
  unit: string;
  part: string;
  kind: VisitEntry['kind'];
  what: string;
  found: string;
  /** A number, a grade or a choice by its id; empty where points were read, or nothing was answered. */
  answer: string | number;
  /** Points as `in:out`, in the order they were read, psi. */
  pointsPsi: string;
  fromPsi: number | '';
  toPsi: number | '';
  seconds: number | '';
  waterMl: number | '';
}

/**
 * The entries of a visit as they stand, one row each, in order.
 *
 * @param writers who wrote in each lane, by name
 */
export function visitRows(
  { made }: VisitHeader,
  { entries }: Pick<VisitState, 'entries'>,
  facts: readonly VisitFact[],
  writers: Readonly<Record<string, string>>,
): VisitRow[] {
  const answers = clockAnswers(facts);
  return entries.map((entry) => {
    const at = partOfEntry(entry);
    const unitId = at?.unitId ?? ('unitId' in entry ? entry.unitId : null);
    const unit = made.units.find(({ id }) => id === unitId);
    const held = entry.kind === 'held' ? entry : null;
    return {
      timeUtc: new Date(Math.round(correctedMs(entry, answers.get(entry.lane)))).toISOString(),
      by: writers[entry.lane] ?? '',
      unit: unit?.number ?? '',
      part: at && unit ? (partTitle(unit, at.partId) ?? at.partId) : '',
      kind: entry.kind,
      what:
        entry.kind === 'check'
          ? entry.title
          : entry.kind === 'seen'
            ? entry.standing
            : entryTitles[entry.kind],
      found: entryWords(entry),
      ...(entry.kind === 'check' ? answered(entry) : { answer: '', pointsPsi: '', waterMl: '' }),
      fromPsi: held?.fromPsi ?? '',
      toPsi: held?.toPsi ?? '',
      seconds: held?.seconds ?? '',
    };
  });
}

function answered({
  answer,
  water,
}: CheckFact): Pick<VisitRow, 'answer' | 'pointsPsi' | 'waterMl'> {
  return {
    answer:
      answer.kind === 'number'
        ? answer.value
        : answer.kind === 'grade'
          ? answer.grade
          : answer.kind === 'choice'
            ? answer.choice
            : '',
    pointsPsi:
      answer.kind === 'points' ? answer.points.map(([from, to]) => `${from}:${to}`).join(' ') : '',
    waterMl: water?.ml ?? '',
  };
}
