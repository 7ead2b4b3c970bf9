import type { Figure } from '@keen-bleed/contract';
import { freeAirScfm } from '../gas/freeAir';
import { equivalentHoleMm } from '../gas/orifice';
import { leakEstimate, type LeakEstimate, type QuietEnd } from '../leak/leakEstimate';
import type { HoldAct, Reckoning } from '../procedure/procedure';
import type { LiveMark } from '../run/runState';
import { unitsOf } from '../rig/rigUnderTest';
import { totalTankVolumeIn3 } from '../rig/tankVolume';
import { rounded, sayPressure } from '../units/say';
import { settled } from '../leak/heat';
import { SHORTEST_HOLD_S } from '../leak/holdPlan';
import { readingUncertaintyPsi, slopeShare } from '../gauge/uncertainty';
import type { StepMarks } from './figureContext';
import { forTheRecord, judged, unreadable } from './figureParts';
import { sayValue } from './figureWords';
import { lineAbovePsi, lineBelowPsi } from '../gauge/graduation';
import { settlesHold } from './settlesHold';

/** A rate is one that the needle shows from so many standard uncertainties on. */
const NEEDLE_MOVED_COVERAGE = 1.5;
/** A hold that lacks more than this of its length was cut short, s. */
const SHORT_BY_S = 3;

type LeakReckoning = Extract<Reckoning, { kind: 'leak' }>;

/** The leak of one hold on one gauge, and the free air it comes to. */
export function leakFigures(reckoning: LeakReckoning, found: StepMarks): Figure[] {
  const { act } = found.step;
  if (act.kind !== 'hold') return [];
  const marks = found.marks.filter(
    (mark) => mark.key !== act.settle?.key && isOther(mark, act) === (reckoning.gauge === 'other'),
  );
  const untouched = marks.find((mark) => mark.suggested);
  if (untouched) {
    const shown = sayPressure(untouched.readingPsi, found.sayIn);
    return [
      unreadable(
        reckoning.figure,
        'psi/min',
        found,
        `${shown} was suggested and not set: the hold has no reading there.`,
        'Hold again, setting the needle where it stands.',
      ),
    ];
  }
  const heat = found.heat ?? settled;
  const estimate = leakEstimate(
    marks,
    reckoning.gauge === 'other' ? null : quietEnd(marks, found),
    {
      heat,
      slopeShare: slopeShare(found.gauge),
    },
  );
  if (!estimate) return [];
  const { ratePsiPerMin, standardUncertaintyPsiPerMin: doubt, risesPsiPerMin } = estimate;
  if (risesPsiPerMin > 0) {
    return [
      unreadable(
        reckoning.figure,
        'psi/min',
        found,
        `The needle rose ${sayValue(risesPsiPerMin, 'psi/min', found.sayIn)} in the hold, more than air warming up again explains.`,
        'See that the engine is off and no air is coming in; then hold again.',
      ),
    ];
  }
  const resolutionPsi = Math.min(...marks.map((mark) => mark.resolutionPsi));
  const settle = (limit: { max: number | null }) =>
    settlesHold(estimate, {
      resolutionPsi,
      gauge: found.gauge,
      heat,
      limitPsiPerMin: limit.max ?? 0,
    });
  const leak = withHold(
    judged(
      reckoning.figure,
      'psi/min',
      {
        value: ratePsiPerMin,
        standardUncertainty: doubt,
        chanceAtMost: estimate.chanceAtMost,
        ...(Math.abs(estimate.readPsiPerMin - ratePsiPerMin) > 1e-9
          ? { read: estimate.readPsiPerMin }
          : {}),
        ...(estimate.onlyBounded ? { atMost: estimate.upperPsiPerMin } : {}),
      },
      found,
      settle,
    ),
    estimate,
    act,
    found,
  );
  if (!reckoning.loss) return [leak];
  const volumeIn3 = unitsOf(found).reduce((sum, unit) => sum + totalTankVolumeIn3(unit.tanks), 0);
  const lossScfm = freeAirScfm(volumeIn3, Math.max(0, ratePsiPerMin));
  // Where no needle moved there is no hole to speak of, only a bound.
  const moved = !estimate.onlyBounded && ratePsiPerMin > NEEDLE_MOVED_COVERAGE * doubt;
  const hole =
    moved && lossScfm > 0 && estimate.meanPsi > 0
      ? equivalentHoleMm(lossScfm, estimate.meanPsi)
      : 0;
  const why =
    hole > 0
      ? `As much as one hole of ${rounded(hole, 2)} mm would pass.`
      : 'No loss that the needle shows.';
  const lossDoubt = freeAirScfm(volumeIn3, doubt);
  return [leak, forTheRecord(reckoning.loss, 'scfm', lossScfm, lossDoubt, found, why)];
}

const isOther = (mark: LiveMark, { other }: HoldAct) =>
  other !== null && (mark.key === other.start.key || mark.key === other.end.key);

/** The end of a hold that ended by itself: the needle was watched and reached no further line. */
function quietEnd(marks: readonly LiveMark[], found: StepMarks): QuietEnd | null {
  const last = marks.reduce<LiveMark | null>(
    (newest, mark) => (newest === null || mark.atMs >= newest.atMs ? mark : newest),
    null,
  );
  if (!last || found.holdOverAtMs === null) return null;
  const { gauge } = found.unit;
  return {
    untilMs: found.holdOverAtMs,
    belowPsi: lineBelowPsi(last.readingPsi, gauge) ?? 0,
    abovePsi: lineAbovePsi(last.readingPsi, gauge),
  };
}

/** A fall is past what is allowed only where it is so by this many standard uncertainties of its two readings. */
const FALLEN_COVERAGE = 2;

/**
 * A hold shorter than its rule's minute is not done, and says nothing of the rig: unless the needle has fallen by more
 * already than the limit allows over the whole of it.
 */
function cutShort(figure: Figure, estimate: LeakEstimate, act: HoldAct, found: StepMarks): Figure {
  const { spanS, fallenPsi } = estimate;
  const held = `Held ${Math.round(spanS)} s of ${act.seconds}`;
  const most = figure.limit?.max ?? null;
  const wholeMin = Math.min(act.seconds, SHORTEST_HOLD_S) / 60;
  const doubtPsi =
    FALLEN_COVERAGE *
    Math.SQRT2 *
    readingUncertaintyPsi(Math.max(...found.marks.map((mark) => mark.resolutionPsi)));
  if (most !== null && fallenPsi - doubtPsi > most * wholeMin) {
    const fallen = sayValue(fallenPsi, 'psi', found.sayIn);
    const allowed = sayValue(most * wholeMin, 'psi', found.sayIn);
    return {
      ...figure,
      asRead: 'fail',
      verdict: figure.verdict === 'fail' ? 'fail' : 'cant-tell',
      why: `${held}. It fell ${fallen} already; over the whole minute ${allowed} is allowed.`,
    };
  }
  return {
    ...figure,
    asRead: null,
    verdict: figure.verdict === null ? null : 'cant-tell',
    why: `${held}: not done.`,
    settle: `Hold the full ${act.seconds} s.`,
    means: null,
  };
}

/** Heat that did less than this in a hold is not spoken of, psi. */
const HEAT_TO_SPEAK_OF_PSI = 0.3;

/** Adds what the hold itself had to do with it: air that was cooling or warming up, or too short a time. */
function withHold(figure: Figure, estimate: LeakEstimate, act: HoldAct, found: StepMarks): Figure {
  const { heatPsi, spanS } = estimate;
  // Halfway to the next line is where it is put down, not where it was seen: no rig fails by that.
  if (estimate.onlyBounded && figure.asRead === 'fail') {
    return withHold({ ...figure, asRead: null, means: null }, estimate, act, found);
  }
  const leastS = Math.min(act.seconds, SHORTEST_HOLD_S);
  if (spanS < leastS - SHORT_BY_S) return cutShort(figure, estimate, act, found);
  if (spanS < act.seconds - SHORT_BY_S) {
    const held = `Held ${Math.round(spanS)} s of ${act.seconds}.`;
    return {
      ...figure,
      // An inspector's minute is enough to be written down, not to be sure.
      verdict: figure.verdict === 'pass' ? 'cant-tell' : figure.verdict,
      why: `${held} ${figure.why}`,
      settle: figure.verdict === 'fail' ? figure.settle : `Hold the full ${act.seconds} s.`,
    };
  }
  if (Math.abs(heatPsi) < HEAT_TO_SPEAK_OF_PSI) return figure;
  const moved = sayValue(Math.abs(heatPsi), 'psi', found.sayIn);
  const heat =
    heatPsi > 0
      ? `${moved} of the fall is put down to air that was cooling.`
      : `Air warming up again hid ${moved} of the fall.`;
  return { ...figure, why: `${figure.why} ${heat}` };
}
