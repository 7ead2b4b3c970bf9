import { hasCompressor } from '../../rig/hasCompressor';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import type { Effect } from '../effects';
import { effectsAt } from '../graded';
import { drawsOf, type Draws } from '../random';
import type { Nuisance } from './nuisance';
import { spreadOf, type Known } from './spreadOf';

/** A needle shows its pressure within this share of cut-out, evenly [std: 49 CFR 571.121 S5.1.4, value from memory]. */
export const NEEDLE_SHARE = 0.07;
/** Cut-out where a rig has no governor of its own: shop air. */
const USUAL_CUT_OUT_PSI = 125;
const CUT_AT = 2;

/** A sound rig as it might stand in the yard: how it differs from its paper, and what its needles show too much. */
export interface DrawnRig {
  /** By nuisance. */
  drawn: Readonly<Record<string, number>>;
  effects: readonly Effect[];
  /** By gauge, psi. */
  needleErrorPsi: Readonly<Record<'primary' | 'secondary' | 'supply', number>>;
}

/** What is drawn for a nuisance, in the measure of its effects. */
function drawFor({ law, least = -CUT_AT, most = CUT_AT }: Nuisance, draws: Draws): number {
  if (law === 'even') return draws.even();
  for (;;) {
    const z = draws.normal(CUT_AT);
    if (z >= least && z <= most) return z;
  }
}

/** A rig like this one, drawn from a seed: the same for the same seed. */
export function drawRig(rig: RigUnderTest, seed: number, known: Known = {}): DrawnRig {
  const draws = drawsOf(seed);
  const drawn: Record<string, number> = {};
  const effects: Effect[] = [];
  for (const nuisance of spreadOf(rig, known)) {
    const x = drawFor(nuisance, draws);
    drawn[nuisance.id] = x;
    effects.push(...effectsAt(nuisance.does, x));
  }
  const cutOut = hasCompressor(rig.unit.kind)
    ? (rig.unit.governor?.cutOutPsi ?? USUAL_CUT_OUT_PSI)
    : USUAL_CUT_OUT_PSI;
  const needle = () => (2 * draws.even() - 1) * NEEDLE_SHARE * cutOut;
  return {
    drawn,
    effects,
    needleErrorPsi: { primary: needle(), secondary: needle(), supply: needle() },
  };
}
