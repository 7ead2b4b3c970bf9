import type { Figure, FigureId } from '@keen-bleed/contract';
import {
  dialError,
  levelChance,
  levelOf,
  levelUncertaintyPsi,
  type Level,
} from '../gauge/gaugeCheck';
import { isTrueGauge, readingUncertaintyPsi } from '../gauge/uncertainty';
import { sayPressure } from '../units/say';
import type { Reckoning } from '../procedure/procedure';
import { pedalDropRatio } from '../rig/pedalDrop';
import type { LiveMark } from '../run/runState';
import { eventDoubt, type EventDoubt } from './eventDoubt';
import type { StepMarks } from './figureContext';
import { judged, unreadable } from './figureParts';
import { judge, SURE_OF_PRESSURE } from './judge';

type LevelReckoning = Extract<Reckoning, { kind: 'level' }>;

/** A pressure gauge made for the low end, as it is teed in for the stop lamps: what it is off by, psi. House value. */
const APPLICATION_GAUGE_PSI = 0.5;
/** The mark by which the other tank's needle was read in a step, where it was. */
const OTHER_NEEDLE = 'other';
const COMPARE = 'Compare the dash gauge with a master gauge.';
/** What settles a pressure that one reading leaves open. */
function onMaster(figure: FigureId): string {
  const where =
    figure === 'warning'
      ? 'Tee a master gauge into the lower tank'
      : figure === 'pop-out-park' || figure === 'pop-out-trailer'
        ? 'Tee a master gauge into the higher tank'
        : 'Tee in a master gauge';
  return `${where}, take it three times with small strokes, and mark the mean.`;
}
const THREE_TIMES = 'Take it three times with small strokes, and mark the mean.';
const NO_GAUGE_TELLS = 'This close to its limit no gauge tells: set it right, and test it again.';

/** A pressure at which something happened, held against its window. */
export function levelFigure(
  { figure, by }: LevelReckoning,
  mark: LiveMark,
  found: StepMarks,
): Figure {
  if (mark.suggested) return notSet(figure, mark, found);
  const level = by ? apartLevel(by, mark, found) : gaugeLevel(mark, found);
  const event = by ? null : eventOf(figure, mark, found);
  const whole: Level = {
    ...level,
    psi: level.psi + (event?.addPsi ?? 0),
    eyePsi: Math.hypot(level.eyePsi / Math.sqrt(mark.takes), event?.sdPsi ?? 0),
  };
  const isDashAlone = !by && !level.checked && !isTrueGauge(found.gauge);
  return judged(
    figure,
    'psi',
    {
      value: whole.psi,
      standardUncertainty: levelUncertaintyPsi(whole),
      chanceAtMost: levelChance(whole, mark.resolutionPsi),
      ...(whole.psi === mark.readingPsi ? {} : { read: mark.readingPsi }),
    },
    found,
    (limit) => {
      // Would it be told if the dial were right? Then the dial is what is in the way.
      const dialApart =
        judge(whole.psi, Math.max(whole.eyePsi, 1e-6), limit, SURE_OF_PRESSURE).verdict !==
        'cant-tell';
      if (isDashAlone && (dialApart || whole.halfWidthPsi > 2 * whole.eyePsi))
        return { say: event ? onMaster(figure) : COMPARE, openBy: 'dial' };
      if (mark.takes > 1) return { say: NO_GAUGE_TELLS };
      if (!event?.settle && event?.sdPsi === 0) {
        return { say: 'Do it again and read to the half division.' };
      }
      return { say: isTrueGauge(found.gauge) ? THREE_TIMES : onMaster(figure) };
    },
  );
}

/** The suggested value was left untouched: it is kept as that, and says nothing of the vehicle. */
export function notSet(figure: FigureId, mark: LiveMark, found: StepMarks): Figure {
  const shown = sayPressure(mark.readingPsi, found.sayIn);
  return unreadable(
    figure,
    'psi',
    found,
    `${shown} was suggested and not set: nothing was read.`,
    'Set the needle where it stands and mark it again.',
  );
}

/** What stands between the needle and what happened, for a level of this run. */
export function eventOf(figure: FigureId | null, mark: LiveMark, found: StepMarks): EventDoubt {
  const other = found.mark(mark.stepId, OTHER_NEEDLE);
  const last = found.marks.filter((each) => each.key !== OTHER_NEEDLE).at(-1);
  return eventDoubt(
    figure ?? 'reserve-left',
    // With a single circuit there is no other tank to be misled by.
    found.unit.circuits === 'single'
      ? 0
      : other && last
        ? other.readingPsi - last.readingPsi
        : null,
    pedalDropRatio(found),
    mark.readingPsi,
    mark.takes,
  );
}

function gaugeLevel(mark: LiveMark, found: StepMarks): Level {
  const { readingPsi, resolutionPsi, atMs } = mark;
  return levelOf(readingPsi, resolutionPsi, found.gauge, found.unit, found.cutOutPsi, atMs);
}

/** A level read from a gauge of its own: one for applications, or a test gauge at a coupling. */
function apartLevel(by: 'application' | 'test', mark: LiveMark, found: StepMarks): Level {
  const { readingPsi, resolutionPsi, atMs } = mark;
  if (by === 'test') {
    return levelOf(readingPsi, resolutionPsi, 'master', found.unit, found.cutOutPsi, atMs);
  }
  return {
    psi: readingPsi,
    halfWidthPsi: 0,
    eyePsi: Math.hypot(readingUncertaintyPsi(resolutionPsi), APPLICATION_GAUGE_PSI),
    checked: true,
  };
}

/** What comparisons found of the run's gauge, where there were any: a dial beyond its allowance fails a run. */
export function dialFigure(found: StepMarks): Figure | null {
  const error = dialError(found.gauge, found.unit, found.cutOutPsi);
  if (!error) return null;
  return judged(
    'gauge-error',
    'psi',
    { value: error.offPsi, standardUncertainty: error.standardUncertaintyPsi },
    found,
    () => ({ say: 'Compare it again, at a pressure that stands still.' }),
    {
      id: 'dash-gauge',
      min: null,
      max: error.allowedPsi,
      source: '49 CFR 571.121 S5.1.4: within 7 % of cut-out',
      tag: 'std',
    },
  );
}
