import type { Unit } from '@keen-bleed/contract';
import { newUnitDraft } from '../rig/newUnit';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { Twin, type TwinSite } from '../twin/twin';
import { testUnit } from './walk';

/** A unit with the usual equipment of its kind, called by its kind and number. */
export const unit = (kind: Unit['kind'], number: string, change: Partial<Unit> = {}): Unit =>
  testUnit({
    ...newUnitDraft(kind, 2015),
    id: `00000000-0000-7000-8000-0000000000${number}`,
    number,
    name: kind,
    ...change,
  });

export const truck: RigUnderTest = { unit: unit('truck', '10'), towed: [] };
export const semi: RigUnderTest = { unit: unit('tractor', '11'), towed: [unit('trailer', '22')] };

/** A rig with brakes released and tanks full, 30 s after the start. */
export function released(rig: RigUnderTest, site: TwinSite = {}): Twin {
  const twin = new Twin(rig, { tanksPsi: 120, ...site });
  twin.dash('park valve', true);
  twin.advanceTo(3);
  twin.dash('trailer supply valve', true);
  twin.advanceTo(30);
  return twin;
}

/** Seconds from `fromS` until a place passes a pressure. */
export function until(
  twin: Twin,
  fromS: number,
  place: string,
  past: (psi: number) => boolean,
): number {
  for (let n = 1; n < 300; n += 1) {
    twin.advanceTo(fromS + n / 100);
    if (past(twin.psi(place))) return n / 100;
  }
  return Infinity;
}
