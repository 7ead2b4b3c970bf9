import type { Unit } from '@keen-bleed/contract';
import { OUTSIDE, type NetworkBuilder } from './network';
import { litresFromIn3, pa } from './pascal';
import type { PlaceKind } from './placeKinds';

/** A steel tank's wall takes about 5 W/(m²·K) from the air in it; 0.02 m² for each litre [textbook estimate]. */
const WALL_W_PER_K_PER_LITRE = 0.1;
const SWEPT_LITRES_PER_TURN = 0.3;
/** The air that comes out of the dryer is warmer than outside by this much under load, K. */
const WARM_BY_K = 25;
const SAFETY_OPENS_PSI = 150;

/** A tank whose air may be warmer than outside. */
export function tank(
  net: NetworkBuilder,
  role: string,
  volumeIn3: number,
  options: { part: string; kind?: PlaceKind },
): number {
  const litres = litresFromIn3(volumeIn3);
  return net.node(role, litres, { wallWPerK: WALL_W_PER_K_PER_LITRE * litres, ...options });
}

/** Volume of the tanks of one role, in³. */
export const volumeOf = (unit: Unit, role: Unit['tanks'][number]['role']): number =>
  unit.tanks.filter((each) => each.role === role).reduce((sum, each) => sum + each.volumeIn3, 0);

/** Compressor, governor, dryer, supply tank with its safety valve and drain. */
export function supplySide(net: NetworkBuilder, unit: Unit): number {
  const governor = unit.governor ?? { cutInPsi: 100, cutOutPsi: 125 };
  const discharge = net.node('discharge line', 1, { warmerByK: WARM_BY_K, part: 'discharge-line' });
  const dryer = net.node('dryer', 2, { warmerByK: WARM_BY_K, part: 'dryer' });
  const purge = net.node('purge volume', 3, { part: 'dryer' });
  const supply = tank(net, 'supply tank', volumeOf(unit, 'supply') || 1400, {
    part: 'supply-tank',
  });
  const signal = net.node('governor line', 0.05, { part: 'governor' });
  net.compressor = {
    into: discharge,
    sweptM3: SWEPT_LITRES_PER_TURN / 1000,
    clearance: 0.05,
    unloader: signal,
    unloadsAtPa: pa(35),
  };
  net.way('discharge', discharge, dryer, 4, { part: 'discharge-line' });
  net.check('dryer outlet check', dryer, supply, 3, { part: 'dryer' });
  // Dried air for the purge: filled through the outlet's side, let back through an orifice for its 25 s.
  net.check('purge fill', dryer, purge, 1, { part: 'dryer' });
  net.way('purge orifice', purge, dryer, 0.24, {
    part: 'dryer',
    openings: [{ on: [[signal, 1]], biasPa: -pa(35), bandPa: pa(10) }],
  });
  net.way('purge valve', dryer, OUTSIDE, 6, {
    does: 'exhaust',
    part: 'dryer',
    openings: [{ on: [[signal, 1]], biasPa: -pa(45), bandPa: pa(10) }],
  });
  net.way('governor feed', supply, signal, 0.3, { part: 'governor' });
  net.way('governor exhaust', signal, OUTSIDE, 0.3, { does: 'exhaust', part: 'governor' });
  net.way('safety valve', supply, OUTSIDE, 6, {
    does: 'exhaust',
    part: 'safety-valve',
    openings: [{ on: [[supply, 1]], biasPa: -pa(SAFETY_OPENS_PSI), bandPa: pa(8) }],
  });
  net.latch({
    id: 'governor',
    part: 'governor',
    node: supply,
    lowPa: pa(governor.cutInPsi),
    highPa: pa(governor.cutOutPsi),
    openHigh: ['governor feed'],
    openLow: ['governor exhaust'],
    startsHigh: false,
  });
  net.latch({
    id: 'purge',
    part: 'dryer',
    node: purge,
    lowPa: pa(5),
    highPa: pa(60),
    openHigh: [],
    openLow: [],
    startsHigh: false,
  });
  return supply;
}
