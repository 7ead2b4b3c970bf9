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

/** Where the chambers of a group hang, and the sonic conductance of one side's service hose, dm³/(s·bar). */
interface Axle {
  part: string;
  feed: number;
  springs: number | null;
  hose: number;
  sides: Sides;
}

/**
 * The chambers of one group, left and right, each side behind its own hoses. Where both are alike, what is called
 * left stands for both: half the places, and the same pressures as long as nothing is wrong on one side alone.
 */
export function axle(
  net: NetworkBuilder,
  name: string,
  group: ChamberGroup,
  { part, feed, springs, hose, sides }: Axle,
): void {
  const apart = sides === 'apart';
  const share = apart ? 1 : 2;
  for (const side of apart ? (['left', 'right'] as const) : (['left'] as const)) {
    const at = name === '' ? side : `${name} ${side}`;
    const count = (group.count / 2) * share;
    const service = serviceChambers(net, at, part, group, count);
    net.way(`${at} hose`, feed, service, hose * share, { part });
    if (springs === null || !group.springBrake) continue;
    const spring = springChambers(net, `${at} spring`, part, group, count);
    net.way(`${at} spring hose`, springs, spring, SPRING_HOSE * share, { part });
    // Shut in a sound one: the seal between spring and service side.
    net.way(`${at} centre seal`, spring, service, 0, { does: 'seal', part });
  }
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
