import type { AirEvent } from './solver/airRun';

/** When the engine was given other turns. */
export interface EngineChange {
  atS: number;
  rpm: number;
}

/** What a stretch of a rig's life has worn. */
export interface Wear {
  /** Time the engine ran, and the compressor loaded, s. */
  engineS: number;
  loadedS: number;
  /** Turns the compressor made under load. */
  loadedTurns: number;
  /** Each cut-out purges the dryer once. */
  purges: number;
  /** Applications strong enough for the stop lamps. */
  applications: number;
}

/**
 * What wears in a stretch: the compressor by its turns under load, the dryer by its purges, valves and linings by
 * applications.
 *
 * @param events switchings from the start on, in order; the governor begins loaded
 * @param engine changes of the engine's turns, in order
 * @param turnsPerEngine turns of the compressor for one of the engine
 */
export function wearOf(
  events: readonly AirEvent[],
  engine: readonly EngineChange[],
  untilS: number,
  turnsPerEngine: number,
): Wear {
  const switched = events.filter(({ role, atS }) => role === 'governor' && atS <= untilS);
  const moments = [
    ...new Set([0, ...switched.map(({ atS }) => atS), ...engine.map(({ atS }) => atS), untilS]),
  ]
    .filter((atS) => atS <= untilS)
    .sort((a, b) => a - b);
  let engineS = 0;
  let loadedS = 0;
  let loadedTurns = 0;
  for (const [n, fromS] of moments.entries()) {
    const toS = moments[n + 1];
    if (toS === undefined) break;
    const rpm = engine.findLast(({ atS }) => atS <= fromS)?.rpm ?? 0;
    if (rpm === 0) continue;
    engineS += toS - fromS;
    if (switched.findLast(({ atS }) => atS <= fromS)?.high) continue;
    loadedS += toS - fromS;
    loadedTurns += ((toS - fromS) * rpm * turnsPerEngine) / 60;
  }
  const rises = events.filter(({ high, atS }) => high && atS <= untilS);
  // Of two stop-lamp switches either one lights the lamps.
  const lit = new Map<string, number>();
  for (const { name, role } of rises) {
    if (role === 'stop-lamp switch') lit.set(name, (lit.get(name) ?? 0) + 1);
  }
  return {
    engineS,
    loadedS,
    loadedTurns,
    purges: rises.filter(({ role }) => role === 'governor').length,
    applications: Math.max(0, ...lit.values()),
  };
}
