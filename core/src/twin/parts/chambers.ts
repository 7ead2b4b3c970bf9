import type { ChamberGroup } from '@keen-bleed/contract';
import { RATED_CHAMBER_VOLUME_IN3 } from '../../rig/chamberVolume';
import type { NetworkBuilder } from '../network';
import { litresFromIn3, pa } from './pascal';

/** Share of a chamber's rated volume that is there before its rod moves, and with the stroke of a set brake. */
const DEAD_SHARE = 0.15;
const STROKE_SHARE = 0.6;
/** Type 6 is in no table: by its area against type 9. */
const SMALLEST_IN3 = 16;

const ratedLitres = (group: ChamberGroup): number =>
  litresFromIn3(RATED_CHAMBER_VOLUME_IN3[group.type] ?? SMALLEST_IN3);

/** Service sides of some chambers as one place: the rods move between a return spring's pressure and the drums. */
export function serviceChambers(
  net: NetworkBuilder,
  name: string,
  group: ChamberGroup,
  count: number,
): number {
  const litres = ratedLitres(group) * count;
  return net.node(name, litres * DEAD_SHARE, {
    strokeM3: (litres * STROKE_SHARE) / 1000,
    strokeFromPa: pa(2),
    strokeToPa: pa(22),
  });
}

/** Spring sides of some chambers: the spring gives way between these pressures. */
export function springChambers(
  net: NetworkBuilder,
  name: string,
  group: ChamberGroup,
  count: number,
): number {
  const litres = ratedLitres(group) * count;
  return net.node(name, litres * 0.3, {
    strokeM3: (litres * STROKE_SHARE) / 1000,
    strokeFromPa: pa(30),
    strokeToPa: pa(60),
  });
}
