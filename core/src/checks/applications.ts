import { bring, press, wait } from './bring';
import { STATES } from './states';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { Twin } from '../twin/twin';

/** Pressures of the pedal that are counted: a light one, a hard one, and all the way down, psi. */
export const PRESSED_PSI = [20, 40, 120] as const;
/** Applications are counted down to this in the tank, psi: where the warning comes. */
export const DOWN_TO_PSI = 60;
/** Nobody counts on. */
const MOST = 60;
/** Pedal down, and up again, s: chambers fill and empty in that. */
const DOWN_S = 1.5;
const UP_S = 2;
const LITRES_PER_M3 = 1_000;

/** Applications a tank gives with the engine off, from cut-out down to where the warning comes. */
export interface Applications {
  /** The tank's place. */
  tank: string;
  pedalPsi: number;
  /** With part of the last; `MOST` where it never comes down. */
  count: number;
}

/**
 * Counts applications on the rig's own twin: charged to cut-out, engine off, the pedal pressed and let go until a tank
 * has come down to 60 psi.
 *
 * @param waterMl by tank's place: what stands in it and takes its air's room
 * @returns for each dash tank and each pressure of the pedal; none for a rig without its own compressor
 */
export function applicationsOf(
  rig: RigUnderTest,
  waterMl: Readonly<Record<string, number>> = {},
): Applications[] {
  const twin = new Twin(rig, { tanksPsi: 90 });
  const tanks = ['primary tank', 'secondary tank'].filter((tank) => twin.hasPlace(tank));
  for (const [place, ml] of Object.entries(waterMl)) {
    const node = twin.system.network.nodes.find(({ id }) => id === place);
    if (!node || ml <= 0) continue;
    const share = ml / (node.volumeM3 * LITRES_PER_M3 * LITRES_PER_M3);
    twin.apply([{ does: 'volume', place, times: Math.max(0.05, 1 - share) }]);
  }
  if (tanks.length === 0) return [];
  bring(twin, STATES.released);
  const start = twin.save();
  return PRESSED_PSI.flatMap((pedalPsi) => {
    twin.restore(start);
    const counts = new Map<string, number>();
    let before = tanks.map((tank) => twin.psi(tank));
    for (let n = 1; n <= MOST && counts.size < tanks.length; n += 1) {
      press(twin, pedalPsi);
      wait(twin, DOWN_S);
      press(twin, 0);
      wait(twin, UP_S);
      const after = tanks.map((tank) => twin.psi(tank));
      tanks.forEach((tank, t) => {
        if (counts.has(tank) || after[t]! > DOWN_TO_PSI) return;
        const part = (before[t]! - DOWN_TO_PSI) / Math.max(1e-6, before[t]! - after[t]!);
        counts.set(tank, n - 1 + Math.min(1, Math.max(0, part)));
      });
      before = after;
    }
    return tanks.map((tank) => ({ tank, pedalPsi, count: counts.get(tank) ?? MOST }));
  });
}
