/** A dial as somebody sees it: apart from the pressure behind it. */
export interface SeenGauge {
  /** What it shows too much, psi: within ±7 % of cut-out [std: 571.121 S5.1.4, value from memory]. */
  errorPsi: number;
  /** Seconds its needle takes for two thirds of the way. */
  dampingS: number;
  /** How much the needle trembles with the engine running, psi. */
  tremblePsi: number;
}

export const usualSeenGauge: SeenGauge = {
  errorPsi: 2,
  dampingS: 0.25,
  tremblePsi: 0.3,
};

/** Where the needle stands after `elapsedS` at a true pressure, from where it stood; psi. */
export function needlePsi(
  seen: SeenGauge,
  beforePsi: number,
  truePsi: number,
  elapsedS: number,
): number {
  // A dial that stands at its stop with no air shows no error there.
  const shownPsi = truePsi <= 1 ? Math.max(0, truePsi) : Math.max(0, truePsi + seen.errorPsi);
  const share = 1 - Math.exp(-elapsedS / seen.dampingS);
  return beforePsi + (shownPsi - beforePsi) * share;
}

/** The engine's own shake, and the compressor's strokes in the line, Hz: two that do not fall in with each other. */
const SHAKES_HZ = [3.1, 7.3] as const;

/** How far the needle trembles from where it stands at a moment with the engine running, psi. */
export function trembleAt(seen: SeenGauge, atS: number): number {
  const [slow, fast] = SHAKES_HZ;
  const wave =
    0.6 * Math.sin(2 * Math.PI * slow * atS) + 0.4 * Math.sin(2 * Math.PI * fast * atS + 1);
  return seen.tremblePsi * wave;
}
