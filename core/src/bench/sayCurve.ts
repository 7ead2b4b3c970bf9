import type { PressureUnit } from '@keen-bleed/contract';
import { rounded, sayPressure } from '../units/say';
import type { Curve } from './curve';

/** A gain this far from one is spoken of. */
const FOLLOWS_WITHIN = 0.03;
/** Left at the outlet, more than this is spoken of, psi: less is the needle. */
const LEFT_PSI = 1;

/** What a curve says of its valve, a sentence each. */
export function sayCurve(
  { crack, gain, hysteresis, residualPsi, odd }: Curve,
  unit: PressureUnit,
): string[] {
  const say = (psi: number) => sayPressure(psi, unit);
  return [
    `Opens at ${say(crack.value)}, ± ${say(1.96 * crack.sd)}`,
    Math.abs(gain.value - 1) > FOLLOWS_WITHIN
      ? `then gives ${rounded(gain.value, 2)} for each one that is asked for`
      : 'then gives what it is asked for',
    ...(hysteresis ? [`${say(Math.max(0, hysteresis.value))} more going down than going up`] : []),
    ...(residualPsi === null
      ? []
      : [
          residualPsi > LEFT_PSI
            ? `${say(residualPsi)} is left with nothing asked for`
            : 'nothing is left once it is let go',
        ]),
    ...(odd.length > 0
      ? [
          `point ${odd.map((n) => n + 1).join(' and ')} does not go with the others: read ${odd.length > 1 ? 'them' : 'it'} again`,
        ]
      : []),
  ];
}
