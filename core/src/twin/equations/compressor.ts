import { R_AIR } from '../../gas/orifice';
import type { Compressor } from '../network/network';
import { RHO_REFERENCE, T_REFERENCE_K } from './flow';

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { max, min, sqrt } = Math;

/** Polytropic exponent of a reciprocating compressor's clearance air; handbooks give 1.2 to 1.35. */
const CLEARANCE_EXPONENT = 1.3;
/** Gauge pressure over which an unloader goes from loaded to unloaded, Pa. */
const UNLOADER_BAND = 60_000;
/** Turns at which an intake's loss is given, 1/s: 1,400 a minute. */
const INTAKE_TURNS = 1400 / 60;
/** However blocked, an intake lets this share of the outside pressure through. */
const LEAST_INTAKE = 0.15;

/** What a compressor delivers, and how that changes; made once and written over. */
export interface CompressorAt {
  kgPerS: number;
  /** By the pressure it delivers into, and by its unloader's line, kg/(s·Pa). */
  byDelivery: number;
  byUnloader: number;
}

/** What is worn, or other than usual, about a compressor. */
export interface CompressorState {
  /** Its swept volume against the one given. */
  swept: number;
  /** Clearance beside its own, as a share of the swept volume: an unloader that stays partly open. */
  extraClearance: number;
  /** Back past rings and valves, as a sonic conductance, m³/(s·Pa): as much in an hour however fast it turns. */
  rings: number;
  /** Share of the outside pressure that its intake loses at 1,400 turns a minute; grows with the square of the speed. */
  intake: number;
}

export const SOUND_COMPRESSOR: CompressorState = {
  swept: 1,
  extraClearance: 0,
  rings: 0,
  intake: 0,
};

/** The air around a compressor, and how it is driven. */
interface Around {
  outsidePa: number;
  outsideK: number;
  /** Turns, 1/s. */
  turns: number;
  compressor: CompressorState;
}

/**
 * Mass a compressor delivers after its clearance has taken its share, and its rings theirs; unloaded it delivers
 * none. Volumetric efficiency 1 − c·((p₂/p₁)^(1/n) − 1) [textbook].
 *
 * @param state absolute pressures, Pa
 * @param out written over
 */
export function compressorAt(
  { into, unloader, sweptM3, clearance, unloadsAtPa }: Compressor,
  { outsidePa, outsideK, turns, compressor }: Around,
  state: Float64Array,
  out: CompressorAt,
): void {
  out.kgPerS = 0;
  out.byDelivery = 0;
  out.byUnloader = 0;
  const lost = compressor.intake * (turns / INTAKE_TURNS) ** 2;
  const drawnPa = outsidePa * max(LEAST_INTAKE, 1 - lost);
  const most = (drawnPa / (R_AIR * outsideK)) * sweptM3 * compressor.swept * turns;
  const share = clearance + compressor.extraClearance;
  const p = max(state[into]!, outsidePa);
  const raised = (p / drawnPa) ** (1 / CLEARANCE_EXPONENT);
  const filled = 1 - share * (raised - 1);
  const back = compressor.rings * RHO_REFERENCE * sqrt(T_REFERENCE_K / outsideK);
  const net = most * filled - back * (p - outsidePa);
  if (filled <= 0 || net <= 0) return;
  const over = (state[unloader]! - outsidePa - unloadsAtPa) / UNLOADER_BAND;
  const x = min(1, max(0, over));
  const loaded = 1 - x * x * (3 - 2 * x);
  out.kgPerS = net * loaded;
  out.byDelivery = loaded * ((-most * share * raised) / (CLEARANCE_EXPONENT * p) - back);
  out.byUnloader = (-net * 6 * x * (1 - x)) / UNLOADER_BAND;
}
