import { R_AIR } from '../../gas/orifice';
import type { Compressor } from '../network/network';

/** Polytropic exponent of a reciprocating compressor's clearance air; handbooks give 1.2 to 1.35. */
const CLEARANCE_EXPONENT = 1.3;
/** Gauge pressure over which an unloader goes from loaded to unloaded, Pa. */
const UNLOADER_BAND = 60_000;

/** What a compressor delivers, and how that changes; made once and written over. */
export interface CompressorAt {
  kgPerS: number;
  /** By the pressure it delivers into, and by its unloader's line, kg/(s·Pa). */
  byDelivery: number;
  byUnloader: number;
}

/** The air around a compressor, and how it is driven. */
interface Around {
  outsidePa: number;
  outsideK: number;
  /** Turns, 1/s. */
  turns: number;
  /** How much of its swept volume it still delivers, 0 to 1. */
  delivers: number;
}

/**
 * Mass a compressor delivers after its clearance has taken its share; unloaded it delivers none. Volumetric
 * efficiency 1 − c·((p₂/p₁)^(1/n) − 1) [textbook].
 *
 * @param state absolute pressures, Pa
 * @param out written over
 */
export function compressorAt(
  { into, unloader, sweptM3, clearance, unloadsAtPa }: Compressor,
  { outsidePa, outsideK, turns, delivers }: Around,
  state: Float64Array,
  out: CompressorAt,
): void {
  out.kgPerS = 0;
  out.byDelivery = 0;
  out.byUnloader = 0;
  const most = (outsidePa / (R_AIR * outsideK)) * sweptM3 * turns * delivers;
  const p = Math.max(state[into]!, outsidePa);
  const raised = (p / outsidePa) ** (1 / CLEARANCE_EXPONENT);
  const filled = 1 - clearance * (raised - 1);
  if (filled <= 0) return;
  const over = (state[unloader]! - outsidePa - unloadsAtPa) / UNLOADER_BAND;
  const x = Math.min(1, Math.max(0, over));
  const loaded = 1 - x * x * (3 - 2 * x);
  out.kgPerS = most * filled * loaded;
  out.byDelivery = (-most * loaded * clearance * raised) / (CLEARANCE_EXPONENT * p);
  out.byUnloader = (-most * filled * 6 * x * (1 - x)) / UNLOADER_BAND;
}
