import type { Unit } from '@keen-bleed/contract';
import type { Check } from '@keen-bleed/core/checks';

/** What the valve of a check is made to open at, psi, as it was read off it; null where nobody has. */
export const madeForPsi = (units: readonly Unit[], { unit, part }: Check): number | null =>
  // Relays have a crack pressure of their own.
  part.includes('relay')
    ? (units[unit]?.parts?.find(({ partId }) => partId === part)?.setPsi ?? null)
    : null;
