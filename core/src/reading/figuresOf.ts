import type { Figure, FigureId } from '@keen-bleed/contract';
import { freeAirScfm } from '../gas/freeAir';
import type { Reckoning, Step } from '../procedure/procedure';
import { heatAtStart } from '../run/heatBefore';
import type { LiveMark, RunState } from '../run/runState';
import { totalTankVolumeIn3 } from '../rig/tankVolume';
import { sayPressure } from '../units/say';
import { buildUp, FASTEST_CLIMB_PSI_PER_S } from './buildUp';
import type { FigureContext, StepMarks } from './figureContext';
import { forTheRecord, judged, unreadable } from './figureParts';
import { sayValue } from './figureWords';
import { SURE_OF_DIFFERENCE } from './judge';
import { leakFigures } from './leakFigures';
import {
  REACTION_S,
  readingUncertaintyPsi,
  SLIP_CHANCE,
  SLIP_HALF_DIVISIONS,
  slopeShare,
} from '../gauge/uncertainty';
import { normalCdf } from '../statistics/normal';
import type { EventDoubt } from './eventDoubt';
import { stopFigure } from './stopFigure';
import { dialFigure, eventOf, levelFigure, notSet } from './levelFigures';

/** Every figure that the marks of a run allow so far, in the order of the steps. */
export function figuresOf(state: RunState, context: FigureContext): Figure[] {
  const mark = (stepId: string, key: string) =>
    state.marks.find((each) => each.stepId === stepId && each.key === key) ?? null;
  const cutOutPsi =
    mark('cut-out', 'cut-out')?.readingPsi ?? context.unit.governor?.cutOutPsi ?? 120;
  const { steps } = state.procedure;
  const heatOf = (step: Step) =>
    step.act.kind === 'hold'
      ? heatAtStart(state.procedure, state.marks, { ...step, act: step.act })
      : null;
  const levelAt = ({ stepId, key }: LiveMark) => {
    const reckoned = steps.find((step) => step.id === stepId)?.reckon ?? [];
    for (const each of reckoned) if (each.kind === 'level' && each.key === key) return each.figure;
    return null;
  };
  return steps.flatMap((step) => {
    if (state.skips.has(step.id)) return [];
    const found: StepMarks = {
      ...context,
      step,
      gauge: state.gauge ?? 'primary',
      marks: state.marks.filter((each) => each.stepId === step.id),
      mark,
      cutOutPsi,
      stop: state.stops.get(step.id) ?? null,
      holdOverAtMs: state.holdsOver.get(step.id) ?? null,
      heat: heatOf(step),
      levelAt,
    };
    const dial = step.act.kind === 'ready' && state.gauge ? dialFigure(found) : null;
    return [...(dial ? [dial] : []), ...step.reckon.flatMap((each) => reckon(each, found))];
  });
}

function reckon(reckoning: Reckoning, found: StepMarks): Figure[] {
  switch (reckoning.kind) {
    case 'build-up':
      return buildUpFigures(reckoning, found);
    case 'level': {
      const mark = found.mark(found.step.id, reckoning.key);
      return mark ? [levelFigure(reckoning, mark, found)] : [];
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
    case 'stop': {
      const figure = stopFigure(reckoning.figure, found);
      return figure ? [figure] : [];
    }
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
      () => ({ say: 'Fan down and time it again.' }),
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
      standardUncertainty: Math.SQRT2 * REACTION_S + slopeShare(found.gauge) * elapsedS,
    },
    found,
    () => ({ say: 'Time it again.' }),
  );
}

function differenceFigure(id: FigureId, high: LiveMark, low: LiveMark, found: StepMarks): Figure {
  const untouched = [low, high].find((mark) => mark.suggested);
  if (untouched) return notSet(id, untouched, found);
  const read = high.readingPsi - low.readingPsi;
  if (read <= 0) {
    const words = `${sayPressure(low.readingPsi, found.sayIn)} is not under ${sayPressure(high.readingPsi, found.sayIn)}`;
    return unreadable(
      id,
      'psi',
      found,
      `Cut-in was marked above cut-out: ${words}.`,
      'Mark cut-out and cut-in again.',
    );
  }
  // What the needle hides at either end, as for the two levels themselves.
  const [top, foot] = [high, low].map((mark) => eventOf(found.levelAt(mark), mark, found)) as [
    EventDoubt,
    EventDoubt,
  ];
  const value = read + top.addPsi - foot.addPsi;
  // The gauge's error is nearly the same at both ends; only its share of the difference is left.
  const doubt = Math.hypot(
    readingUncertaintyPsi(high.resolutionPsi) / Math.sqrt(high.takes),
    readingUncertaintyPsi(low.resolutionPsi) / Math.sqrt(low.takes),
    top.sdPsi,
    foot.sdPsi,
    slopeShare(found.gauge) * value,
  );
  return judged(
    id,
    'psi',
    {
      value,
      standardUncertainty: doubt,
      read,
      // A slip among several takes is seen, and not marked.
      ...(high.takes > 1 && low.takes > 1
        ? {}
        : {
            sure: SURE_OF_DIFFERENCE,
            chanceAtMost: eitherSlipped(value, doubt, high.resolutionPsi),
          }),
    },
    found,
    () => ({
      say:
        high.takes > 1 && low.takes > 1
          ? 'This close to its limit no gauge tells: set the governor, and test it again.'
          : 'Take cut-out and cut-in three times each on a master gauge, with small strokes, and mark the means.',
      openBy: 'stroke',
    }),
  );
}

/** A difference of two readings, either of which may be a slip. */
function eitherSlipped(value: number, doubt: number, resolutionPsi: number) {
  const wide = Math.hypot(doubt, Math.SQRT2 * SLIP_HALF_DIVISIONS * resolutionPsi);
  const slips = 2 * SLIP_CHANCE;
  return (atMost: number): number =>
    (1 - slips) * normalCdf((atMost - value) / doubt) + slips * normalCdf((atMost - value) / wide);
}
