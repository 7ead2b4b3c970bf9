import { ALIKE_WITHIN_PSI, BEHIND_MOST_PSI, CRACK_WITHIN_PSI } from '@keen-bleed/core/bench';
import type { Check } from '@keen-bleed/core/checks';

/** By how much less the second port may read than the first, psi, from and to; null where no band is drawn. */
export type CurveBand = readonly [from: number, to: number] | null;

/** Where the points of a check should lie on its drawing. */
export function bandOf({ answer }: Pick<Check, 'answer'>, madeForPsi: number | null): CurveBand {
  if (answer.kind !== 'points') return null;
  switch (answer.as ?? 'follows') {
    case 'follows':
      return madeForPsi === null
        ? null
        : [madeForPsi - CRACK_WITHIN_PSI, madeForPsi + CRACK_WITHIN_PSI];
    case 'balance':
    case 'passes':
      return [-ALIKE_WITHIN_PSI, ALIKE_WITHIN_PSI];
    case 'springs':
      return [0, BEHIND_MOST_PSI];
    default:
      return null;
  }
}
