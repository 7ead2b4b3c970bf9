import type { Figure, FigureId } from '@keen-bleed/contract';
import { freeAirScfm } from '../gas/freeAir';
import type { Reckoning } from '../procedure/procedure';
import type { LiveMark, RunState } from '../run/runState';
import { totalTankVolumeIn3 } from '../rig/tankVolume';
import { sayPressure } from '../units/say';
import { buildUp, FASTEST_CLIMB_PSI_PER_S } from './buildUp';
import type { FigureContext, StepMarks } from './figureContext';
import { forTheRecord, judged, unreadable } from './figureParts';
import { sayValue } from './figureWords';
import { levelOf } from '../gauge/gaugeCheck';
import { leakFigures } from './leakFigures';
import { gaugeShare, REACTION_S, readingUncertaintyPsi } from '../gauge/uncertainty';

/** Every figure that the marks of a run allow so far, in the order of the steps. */
export function figuresOf(state: RunState, context: FigureContext): Figure[] {
  const mark = (stepId: string, key: string) =>
    state.marks.find((each) => each.stepId === stepId && each.key === key) ?? null;
  const cutOutPsi =
    mark('cut-out', 'cut-out')?.readingPsi ?? context.unit.governor?.cutOutPsi ?? 120;
  return state.procedure.steps.flatMap((step) =>
    state.skips.has(step.id)
      ? []
      : step.reckon.flatMap((reckoning) =>
          reckon(reckoning, {
            ...context,
            step,
            gauge: state.gauge ?? 'primary',
            marks: state.marks.filter((each) => each.stepId === step.id),
            mark,
            cutOutPsi,
            holdOverAtMs: state.holdsOver.get(step.id) ?? null,
          }),
        ),
  );
}

function reckon(reckoning: Reckoning, found: StepMarks): Figure[] {
  switch (reckoning.kind) {
    case 'build-up':
      return buildUpFigures(reckoning, found);
    case 'level': {
      const mark = found.mark(found.step.id, reckoning.key);
      return mark ? [levelFigure(reckoning.figure, mark, found)] : [];
    }
    case 'interval': {
      const from = found.mark(found.step.id, reckoning.fromKey);
      const to = found.mark(found.step.id, reckoning.toKey);
      return from && to ? [intervalFigure(reckoning.figure, from, to, found)] : [];
    }
    case 'difference': {
      const low = found.mark(found.step.id, reckoning.key);
      const high = found.mark(reckoning.otherStepId, reckoning.otherKey);
      return low && high ? [differenceFigure(reckoning.figure, high, low, found)] : [];
    }
    case 'leak':
      return leakFigures(reckoning, found);
  }
}

function buildUpFigures(
  reckoning: Extract<Reckoning, { kind: 'build-up' }>,
  found: StepMarks,
): Figure[] {
  const from = found.mark(found.step.id, reckoning.fromKey);
  const to = found.mark(found.step.id, reckoning.toKey);
  if (!from || !to) return [];
  const climb = buildUp(from, to, reckoning.spanPsi, found.gauge);
  const again = 'Fan down and take both marks again.';
  if (!climb) {
    const why = 'The second mark is not above and after the first.';
    return [unreadable('build-up-time', 's', found, why, again)];
  }
  if (climb.ratePsiPerS > FASTEST_CLIMB_PSI_PER_S) {
    const quick = sayValue(climb.ratePsiPerS, 'psi/s', found.sayIn);
    const why = `${quick} is quicker than any compressor: was the pad pressed twice?`;
    return [unreadable('build-up-time', 's', found, why, again)];
  }
  const share = climb.standardUncertaintyS / climb.timeS;
  const scfm = freeAirScfm(totalTankVolumeIn3(found.unit.tanks), climb.ratePsiPerS * 60);
  return [
    judged(
      'build-up-time',
      's',
      { value: climb.timeS, standardUncertainty: climb.standardUncertaintyS },
      found,
      () => 'Fan down and time it again.',
    ),
    forTheRecord(
      'build-up-rate',
      'psi/s',
      climb.ratePsiPerS,
      climb.ratePsiPerS * share,
      found,
      'Climb between the two marks.',
    ),
    forTheRecord(
      'free-air-delivery',
      'scfm',
      scfm,
      scfm * share,
      found,
      'What the compressor puts into all tanks together.',
    ),
  ];
}

function levelFigure(id: FigureId, mark: LiveMark, found: StepMarks): Figure {
  const level = levelOf(
    mark.readingPsi,
    mark.resolutionPsi,
    found.gauge,
    found.unit,
    found.cutOutPsi,
  );
  const isMaster = found.gauge === 'master' || level.checked;
  return judged(
    id,
    'psi',
    {
      value: level.psi,
      standardUncertainty: level.standardUncertaintyPsi,
      ...(level.psi === mark.readingPsi ? {} : { read: mark.readingPsi }),
    },
    found,
    () =>
      isMaster
        ? 'Do it again and read to the half division.'
        : 'Check the dash gauge against a master gauge.',
  );
}

function intervalFigure(id: FigureId, from: LiveMark, to: LiveMark, found: StepMarks): Figure {
  const elapsedS = (to.atMs - from.atMs) / 1000;
  if (elapsedS <= 0) {
    const why = 'The second mark is not after the first.';
    return unreadable(id, 's', found, why, 'Take both marks again.');
  }
  return judged(
    id,
    's',
    {
      value: elapsedS,
      standardUncertainty: Math.SQRT2 * REACTION_S + gaugeShare(found.gauge) * elapsedS,
    },
    found,
    () => 'Time it again.',
  );
}

function differenceFigure(id: FigureId, high: LiveMark, low: LiveMark, found: StepMarks): Figure {
  const value = high.readingPsi - low.readingPsi;
  if (value <= 0) {
    const words = `${sayPressure(low.readingPsi, found.sayIn)} is not under ${sayPressure(high.readingPsi, found.sayIn)}`;
    return unreadable(
      id,
      'psi',
      found,
      `Cut-in was marked above cut-out: ${words}.`,
      'Mark cut-out and cut-in again.',
    );
  }
  // The gauge's error is nearly the same at both ends; only its share of the difference is left.
  const doubt = Math.hypot(
    readingUncertaintyPsi(high.resolutionPsi),
    readingUncertaintyPsi(low.resolutionPsi),
    gaugeShare(found.gauge) * value,
  );
  return judged(
    id,
    'psi',
    { value, standardUncertainty: doubt },
    found,
    () => 'Do both again and read to the half division.',
  );
}
