import type { ChamberGroup } from '@keen-bleed/contract';
import { RATED_CHAMBER_VOLUME_IN3 } from '../../rig/chamberVolume';
import type { NetworkBuilder } from './network';
import { litresFromIn3, pa } from './pascal';

/** Share of a chamber's rated volume that is there before its rod moves, and with the stroke of a set brake. */
const DEAD_SHARE = 0.15;
const STROKE_SHARE = 0.6;
/** Type 6 is in no table: by its area against type 9. */
const SMALLEST_IN3 = 16;

/** Sonic conductance of the hose to the spring side, dm³/(s·bar). */
const SPRING_HOSE = 4;

const ratedLitres = (group: ChamberGroup): number =>
  litresFromIn3(RATED_CHAMBER_VOLUME_IN3[group.type] ?? SMALLEST_IN3);

/** Whether the chambers of an axle's two sides are places of their own, or one place with the air of both. */
export type Sides = 'apart' | 'alike';

/** Where some chambers of a group hang, and the sonic conductance of their service hoses, dm³/(s·bar). */
interface Hung {
  part: string;
  feed: number;
  springs: number | null;
  hose: number;
  /** Their spring hoses, against those of one side. */
  springHoseShare: number;
  count: number;
}

/** Some chambers of one group that hang on the same air, behind their hoses. */
export function axle(
  net: NetworkBuilder,
  at: string,
  group: ChamberGroup,
  { part, feed, springs, hose, springHoseShare, count }: Hung,
): void {
  const service = serviceChambers(net, at, part, group, count);
  net.way(`${at} hose`, feed, service, hose, { part });
  if (springs === null || !group.springBrake) return;
  const spring = springChambers(net, `${at} spring`, part, group, count);
  net.way(`${at} spring hose`, springs, spring, SPRING_HOSE * springHoseShare, { part });
  // Shut in a sound one: the seal between spring and service side.
  net.way(`${at} centre seal`, spring, service, 0, { does: 'seal', part });
}

/** Service sides of some chambers as one place: the rods move between a return spring's pressure and the drums. */
function serviceChambers(
  net: NetworkBuilder,
  role: string,
  part: string,
  group: ChamberGroup,
  count: number,
): number {
  const litres = ratedLitres(group) * count;
  return net.node(role, litres * DEAD_SHARE, {
    kind: 'service chamber',
    part,
    strokeM3: (litres * STROKE_SHARE) / 1000,
    strokeFromPa: pa(2),
    strokeToPa: pa(22),
  });
}

/** Spring sides of some chambers: the spring gives way between these pressures. */
function springChambers(
  net: NetworkBuilder,
  role: string,
  part: string,
  group: ChamberGroup,
  count: number,
): number {
  const litres = ratedLitres(group) * count;
  return net.node(role, litres * 0.3, {
    kind: 'spring chamber',
    part,
    strokeM3: (litres * STROKE_SHARE) / 1000,
    strokeFromPa: pa(30),
    strokeToPa: pa(60),
  });
}
