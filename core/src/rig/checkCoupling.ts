import type { FieldProblem, Unit } from '@keen-bleed/contract';
import { hasCompressor } from './hasCompressor';
import { unitTitle } from './unitTitle';

type Coupled = Pick<Unit, 'kind' | 'name' | 'number' | 'retiredAtMs'>;

/** Trailers one rig may have: a double, and no more. */
const MOST_TRAILERS = 2;

/**
 * Whether units can be coupled in this order. The phone asks before it offers, the server before it keeps.
 *
 * @param units front to rear
 * @returns what is wrong, each saying what would be right; none where they can be coupled
 */
export function checkCoupling(units: readonly Coupled[]): FieldProblem[] {
  const [front, ...towed] = units;
  const problem = (at: number, message: string): FieldProblem => ({
    field: `unitIds.${at}`,
    message,
  });
  if (!front || towed.length === 0) {
    return [{ field: 'unitIds', message: 'A rig has a unit in front and at least one behind it.' }];
  }
  const problems: FieldProblem[] = [];
  if (!hasCompressor(front.kind) || front.kind === 'bus') {
    problems.push(
      problem(0, `A truck or a tractor goes in front; ${unitTitle(front)} is neither.`),
    );
  }
  units.forEach((unit, at) => {
    if (unit.retiredAtMs !== null) {
      problems.push(
        problem(at, `${unitTitle(unit)} is retired: bring it back into service first.`),
      );
    }
  });
  towed.forEach((unit, index) => {
    const at = index + 1;
    if (hasCompressor(unit.kind)) {
      problems.push(problem(at, `${unitTitle(unit)} has its own engine: it cannot be towed here.`));
    } else if (unit.kind === 'dolly' && towed[index + 1]?.kind !== 'trailer') {
      problems.push(problem(at, `A dolly carries a trailer: put one behind ${unitTitle(unit)}.`));
    }
  });
  const trailers = towed.filter((unit) => unit.kind === 'trailer').length;
  if (trailers > MOST_TRAILERS) {
    problems.push({ field: 'unitIds', message: 'Two trailers are the most one rig may have.' });
  }
  return problems;
}
