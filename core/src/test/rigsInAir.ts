import type { RigUnderTest } from '../rig/rigUnderTest';
import { Twin, type TwinSite } from '../twin/twin';
import { unitOf } from './walk';

/** A truck, and a tractor with its semi-trailer. */
export const truck: RigUnderTest = { unit: unitOf('truck', '10'), towed: [] };
export const semi: RigUnderTest = {
  unit: unitOf('tractor', '11'),
  towed: [unitOf('trailer', '22')],
};

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
