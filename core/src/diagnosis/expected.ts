import type { FigureId } from '@keen-bleed/contract';
import { hasCompressor } from '../rig/hasCompressor';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { dashRun } from '../twin/routine/dashRun';
import { played } from '../twin/routine/player';
import { Twin } from '../twin/twin';
import { runFigures, type NumberFigure } from './runFigures';

/** Build-up hangs on how fast the engine turns, and cut-in on where the last stroke ended: neither is foretold. */
const AS: Readonly<Partial<Record<NumberFigure, FigureId>>> = {
  'cut-out': 'cut-out',
  'static primary': 'static-leak',
  'applied primary': 'applied-leak',
  warning: 'warning',
  red: 'pop-out-trailer',
  yellow: 'pop-out-park',
};

/** A rig is found with this much in its tanks, psi. */
const FOUND_PSI = 90;

/**
 * What a sound rig of this description reads in a run, by figure: what a repair should bring it to. Empty for a trailer
 * alone, which has no dash.
 */
export function expectedFigures(rig: RigUnderTest): Partial<Record<FigureId, number>> {
  if (!hasCompressor(rig.unit.kind)) return {};
  const twin = new Twin(rig, { tanksPsi: FOUND_PSI });
  const figures = runFigures(played(twin, dashRun(twin, { ears: false })));
  return Object.fromEntries(
    Object.entries(AS).flatMap(([figure, id]) => {
      const value = figures[figure as NumberFigure];
      // A needle that rises by a tenth as the air warms is no leak.
      return value === undefined ? [] : [[id, Math.max(0, value)]];
    }),
  );
}
