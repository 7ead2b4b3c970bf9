import type { Unit } from '@keen-bleed/contract';
import { R_AIR } from '../../gas/orifice';
import type { AirBuild } from './airBuild';
import { OUTSIDE, type TankWall } from './network';
import { litresFromIn3, pa } from './pascal';
import { setPa } from './setPa';

/** Swept by the usual compressor at each of its own turns, L, which are the engine's [trade: 0.3 to 0.45 each engine turn]. */
export const USUAL_COMPRESSOR = { litresPerTurn: 0.32, perEngineTurn: 1, clearance: 0.05 } as const;
/** The air that comes out of the dryer is warmer than outside by this much under load, K. */
const WARM_BY_K = 25;
const SAFETY_OPENS_PSI = 150;
/** A dryer that purges from a service tank takes so much off that tank, psi. */
const PURGE_TAKES_PSI = 8;

/** A tank is a steel cylinder, so many times as long as it is wide. */
const LENGTH_PER_WIDTH = 2.5;
/** Heat its wall takes up, kJ/K for each litre [trade, from memory]. */
const WALL_KJ_PER_K_PER_LITRE = 0.2;
/** From a wall to air outside, in some draught, W/(m²·K) [textbook estimate]. */
const OUTSIDE_W_PER_M2_K = 10;
/** Of air near room temperature: conductivity, W/(m·K), heat capacity, J/(kg·K), viscosity, Pa·s. */
const AIR_K = 0.026;
const AIR_CP = 1005;
const AIR_MU = 1.85e-5;
const G = 9.81;
const ROOM_K = 293;

/**
 * Natural convection inside: Nu = 0.14·Ra^⅓ [textbook, for turbulent layers; value from memory], which is within 4 %
 * of the 0.1·Ra^0.35 of gas cylinders from Ra 10^8.5 to 10^9.7, where tanks are, and costs a quarter of it.
 */
const NUSSELT = 0.14;

/** The wall of a lying steel tank: its film grows with the air's density and with the difference of temperatures. */
export function tankWall(litres: number): TankWall {
  const widthM = Math.cbrt((4 * (litres / 1000)) / (Math.PI * LENGTH_PER_WIDTH));
  const areaM2 = Math.PI * widthM * widthM * (LENGTH_PER_WIDTH + 0.5);
  // Rayleigh's number over ρ²·ΔT.
  const rayleigh = (G * widthM ** 3 * AIR_CP) / (ROOM_K * AIR_MU * AIR_K);
  return {
    film: ((NUSSELT * AIR_K * areaM2) / widthM) * Math.cbrt(rayleigh / (R_AIR * R_AIR)),
    jPerK: 1000 * WALL_KJ_PER_K_PER_LITRE * litres,
    outsideWPerK: OUTSIDE_W_PER_M2_K * areaM2,
  };
}

/** Volume of the tanks of one role, in³. */
export const volumeOf = (unit: Unit, role: Unit['tanks'][number]['role']): number =>
  unit.tanks.filter((each) => each.role === role).reduce((sum, each) => sum + each.volumeIn3, 0);

/** A tank of a powered unit as the place that it is; the volumes of its role are those entered. */
export function tankPlace(
  build: AirBuild,
  part: string,
  role: Unit['tanks'][number]['role'],
  usualIn3: number,
): void {
  if (!build.has(part)) return;
  const litres = litresFromIn3(volumeOf(build.unit, role) || usualIn3);
  build.own(part, 'air', { role: `${role} tank`, litres, wall: tankWall(litres), part });
}

/** Discharge line, dryer, supply tank, governor line. */
export function supplyPlaces(build: AirBuild): void {
  const warm = { warmerByK: WARM_BY_K };
  build.own('discharge-line', 'in', {
    role: 'discharge line',
    litres: 1,
    part: 'discharge-line',
    ...warm,
  });
  if (build.has('dryer'))
    build.own('dryer', 'in', { role: 'dryer', litres: 2, part: 'dryer', ...warm });
  tankPlace(build, 'supply-tank', 'supply', 1400);
  build.own('governor', 'signal', { role: 'governor line', litres: 0.05, part: 'governor' });
}

/** The compressor, unloaded at its own port, and the line it delivers into. */
export function compressorWays(build: AirBuild): void {
  const { net, unit } = build;
  const { compressorLPerTurn, compressorPerEngineTurn, compressorClearance } = unit.air ?? {};
  net.compressor = {
    into: build.at('compressor', 'delivery'),
    sweptM3: (compressorLPerTurn ?? USUAL_COMPRESSOR.litresPerTurn) / 1000,
    perEngineTurn: compressorPerEngineTurn ?? USUAL_COMPRESSOR.perEngineTurn,
    clearance: compressorClearance ?? USUAL_COMPRESSOR.clearance,
    unloader: build.at('compressor', 'unloader'),
    unloadsAtPa: pa(35),
  };
  const [from, to] = [build.at('discharge-line', 'in'), build.at('discharge-line', 'out')];
  net.way('discharge', from, to, 8, { part: 'discharge-line' });
}

/** The dryer's outlet check, and the valve that blows it off while it is told to. */
export function dryerWays(build: AirBuild): void {
  const { net } = build;
  const dryer = build.at('dryer', 'in');
  net.check('dryer outlet check', dryer, build.at('dryer', 'out'), 7, { part: 'dryer' });
  net.way('purge valve', dryer, OUTSIDE, 6, {
    does: 'exhaust',
    part: 'dryer',
    openings: [{ on: [[build.at('dryer', 'control'), 1]], biasPa: -pa(45), bandPa: pa(10) }],
  });
}

export function governorWays(build: AirBuild): void {
  const { net, unit } = build;
  const { cutInPsi, cutOutPsi } = unit.governor ?? { cutInPsi: 100, cutOutPsi: 125 };
  const [sense, signal] = [build.at('governor', 'sense'), build.at('governor', 'signal')];
  net.way('governor feed', sense, signal, 0.3, { part: 'governor' });
  net.way('governor exhaust', signal, OUTSIDE, 0.3, { does: 'exhaust', part: 'governor' });
  net.latch({
    id: 'governor',
    role: 'governor',
    part: 'governor',
    node: sense,
    lowPa: pa(cutInPsi),
    highPa: pa(cutOutPsi),
    openHigh: ['governor feed'],
    openLow: ['governor exhaust'],
  });
}

export function safetyValveWay(build: AirBuild): void {
  const feels = build.at('safety-valve', 'in');
  build.net.way('safety valve', feels, OUTSIDE, 6, {
    does: 'exhaust',
    part: 'safety-valve',
    openings: [
      { on: [[feels, 1]], biasPa: -setPa(build, 'safety-valve', SAFETY_OPENS_PSI), bandPa: pa(8) },
    ],
  });
}

/** A tank's drain, shut until a hand opens it. */
export function drainWay(build: AirBuild, name: string): void {
  const part = `${name}-drain`;
  if (!build.has(part)) return;
  build.net.way(`${name} drain`, build.at(part, 'in'), OUTSIDE, 4, { does: 'drain', part });
}

/** What sends dry air back through the dryer at cut-out: a volume of its own, or a service tank. */
export function purgeAir(build: AirBuild): void {
  const { net, unit } = build;
  const part = 'dryer';
  const dryer = build.at(part, 'in');
  const whileUnloaded = {
    on: [[build.at(part, 'control'), 1]],
    biasPa: -pa(35),
    bandPa: pa(10),
  } as const;
  if (build.part(part)?.variant === 'service-tank') {
    const serviceTank = build.at(part, 'regeneration');
    const cutOutPsi = unit.governor?.cutOutPsi ?? 125;
    net.way('regeneration valve', serviceTank, dryer, 0.5, {
      part,
      openings: [
        whileUnloaded,
        // It shuts once its tank has given what a purge takes.
        { on: [[serviceTank, 1]], biasPa: -pa(cutOutPsi - PURGE_TAKES_PSI), bandPa: pa(2) },
      ],
    });
    return;
  }
  const purge = net.node('purge volume', 3, { part });
  net.check('purge fill', dryer, purge, 1, { part });
  // Let back through an orifice for its 25 s.
  net.way('purge orifice', purge, dryer, 0.24, { part, openings: [whileUnloaded] });
  net.latch({ id: 'purge', role: 'note', part, node: purge, lowPa: pa(5), highPa: pa(60) });
}
