import type { FieldProblem, Repair, Unit } from '@keen-bleed/contract';
import { jobHeader, JobWriter } from './jobWriter';

/** What a job on a unit says of one repair of one part: null where it is taken. */
export function admitsWithUnit(
  unit: Unit,
  partId: string,
): (repair: Repair) => Pick<FieldProblem, 'field' | 'message'> | null {
  const writer = new JobWriter(jobHeader([unit]));
  return (repair) =>
    writer.problemOf({
      ...{ kind: 'fitted', at: { unitId: unit.id, partId }, repair, was: {}, now: {} },
    });
}
