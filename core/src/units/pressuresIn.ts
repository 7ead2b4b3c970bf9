import type { PressureUnit } from '@keen-bleed/contract';
import { sayLevel } from './say';

const NAMED = /(\d+(?:\.\d+)?)(?:(, | to | and | or |-)(\d+(?:\.\d+)?))? psi\b/g;

/** A sentence with every pressure in it said in the unit that is spoken: `85 to 100 psi` becomes `5.86 to 6.89 bar`. */
export function pressuresIn(text: string, unit: PressureUnit): string {
  if (unit === 'psi') return text;
  return text.replace(NAMED, (_, one: string, between?: string, other?: string) => {
    const first = sayLevel(Number(one), unit);
    return other === undefined
      ? `${first} ${unit}`
      : `${first}${between ?? ' to '}${sayLevel(Number(other), unit)} ${unit}`;
  });
}
