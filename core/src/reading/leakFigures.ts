import type { Figure } from '@keen-bleed/contract';
import { freeAirScfm } from '../gas/freeAir';
import { equivalentHoleMm } from '../gas/orifice';
import { leakEstimate, type LeakEstimate, type QuietEnd } from '../leak/leakEstimate';
import { holdNeededS } from '../leak/leakRate';
import type { HoldAct, Reckoning } from '../procedure/procedure';
import type { LiveMark } from '../run/runState';
import { unitsOf } from '../rig/rigUnderTest';
import { totalTankVolumeIn3 } from '../rig/tankVolume';
import { rounded } from '../units/say';
import type { StepMarks } from './figureContext';
import { forTheRecord, judged, unreadable } from './figureParts';
import { sayValue } from './figureWords';
import { lineAbovePsi, lineBelowPsi } from '../gauge/graduation';
import { SURE_COVERAGE } from './judge';

/** A hold longer than this is not asked for: temperature and patience both drift. */
const LONGEST_HOLD_ASKED_S = 600;
/** The needle must rise by this many standard uncertainties before it counts as risen. */
const RISE_COVERAGE = 2;
/** A hold that lacks more than this of its length was cut short, s. */
const SHORT_BY_S = 3;

type LeakReckoning = Extract<Reckoning, { kind: 'leak' }>;

/** The leak of one hold on one gauge, and the free air it comes to. */
export function leakFigures(reckoning: LeakReckoning, found: StepMarks): Figure[] {
  const { act } = found.step;
  if (act.kind !== 'hold') return [];
  const marks = found.marks.filter((mark) => isOther(mark, act) === (reckoning.gauge === 'other'));
  const estimate = leakEstimate(marks, reckoning.gauge === 'other' ? null : quietEnd(marks, found));
  if (!estimate) return [];
  const { ratePsiPerMin, standardUncertaintyPsiPerMin: doubt } = estimate;
  if (ratePsiPerMin < -RISE_COVERAGE * doubt) {
    return [
      unreadable(
        reckoning.figure,
        'psi/min',
        found,
        `The needle rose ${sayValue(-ratePsiPerMin, 'psi/min', found.sayIn)} in the hold.`,
        'See that the engine is off and no air is coming in; then hold again.',
      ),
    ];
  }
  const resolutionPsi = Math.min(...marks.map((mark) => mark.resolutionPsi));
  const settle = (gap: number) => sayWhatSettles(estimate, resolutionPsi, gap);
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
  const hole =
    lossScfm > 0 && estimate.meanPsi > 0 ? equivalentHoleMm(lossScfm, estimate.meanPsi) : 0;
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

/** Adds what the hold itself had to do with it: air that was still settling, or too short a time. */
function withHold(figure: Figure, estimate: LeakEstimate, act: HoldAct, found: StepMarks): Figure {
  const { settling, spanS } = estimate;
  if (spanS < act.seconds - SHORT_BY_S) {
    const held = `Held ${Math.round(spanS)} s of ${act.seconds}.`;
    return {
      ...figure,
      verdict: figure.verdict === 'pass' ? 'cant-tell' : figure.verdict,
      why: `${held} ${figure.why}`,
      settle: figure.verdict === 'fail' ? figure.settle : `Hold the full ${act.seconds} s.`,
    };
  }
  if (!settling) return figure;
  const dropped = sayValue(settling.dropPsi, 'psi', found.sayIn);
  return {
    ...figure,
    why: `The first ${dropped} was air settling; the rest is steady. ${figure.why}`,
  };
}

function sayWhatSettles(estimate: LeakEstimate, resolutionPsi: number, gap: number): string {
  const { settling, spanS } = estimate;
  if (settling && settling.settledAfterS > spanS) {
    const waitMin = Math.max(1, Math.ceil((settling.settledAfterS - spanS) / 60));
    return `The air is still settling: wait ${waitMin} min, then hold again.`;
  }
  if (estimate.onlyBounded) {
    return 'Hold a minute longer, or read the needle at the end.';
  }
  const neededS = holdNeededS(resolutionPsi, gap, SURE_COVERAGE);
  if (neededS > LONGEST_HOLD_ASKED_S) {
    return 'This close to the limit a longer hold will not tell: find the leak, or use a gauge with finer lines.';
  }
  const minutes = Math.max(2, Math.ceil(neededS / 60));
  return `Hold ${minutes} minutes in all, or tap each line the needle crosses.`;
}
