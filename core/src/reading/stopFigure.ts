import type { Figure, FigureId } from '@keen-bleed/contract';
import { stopLimit } from '../standards/stopLimit';
import { brakingOf, SHORTEST_PART_S, type NoBraking } from '../stop/stopMeasured';
import type { StepMarks } from './figureContext';
import { judged, unreadable } from './figureParts';

const FROM_20 = 'Measure it from 20 mph where the yard allows, or on a roller tester.';

const WHY: Readonly<Record<NoBraking['why'], readonly [why: string, settle: string]>> = {
  'too-short': [
    `Under ${SHORTEST_PART_S} s was left once the brakes were fully on: too short to measure.`,
    FROM_20,
  ],
  'not-still': [
    'The phone was not still before the vehicle moved.',
    'Lay it flat on the floor, stand still for two seconds, then drive.',
  ],
  'no-stop': ['The phone felt no stop.', 'Lay it flat on the floor and stop again.'],
  'cut-off': [
    'The recording ended before the vehicle stood.',
    'Stop again, and wait until it stands.',
  ],
  uneven: [
    'The phone felt braking beside what counts, or a jolt: it slid, was kicked, or the brakes went on twice.',
    'Lay it on a mat against a wall of the cab, and brake once until it stands.',
  ],
  'too-much': [
    'More than its whole weight: no tyres hold that.',
    'Read force and weight again: all wheels together, and the weight your rule names.',
  ],
  'speed-unlike': [
    'What the phone felt does not fit the speed that was entered: it slid, or the speed was another.',
    'Lay it on a mat against a wall of the cab, read the speedometer, and stop again.',
  ],
};

/**
 * A service stop that was measured, as a share of the weight. It passes only where the lower 95 % bound is over the
 * limit, whatever heads its rule set: what was measured is judged by its doubt.
 *
 * @returns null where the stop was only watched
 */
export function stopFigure(figure: FigureId, found: StepMarks): Figure | null {
  if (!found.stop) return null;
  const braking = brakingOf(found.stop.measured);
  if (braking.outcome === 'none') {
    const [why, settle] = WHY[braking.why];
    return unreadable(figure, '%', found, why, settle);
  }
  const { measured } = found.stop;
  const isSimulated = measured.by === 'phone' && measured.simulated === true;
  const made = judged(
    figure,
    '%',
    { value: braking.pct, standardUncertainty: braking.sdPct },
    found,
    () => ({ say: FROM_20 }),
    stopLimit(found, found.ruleSet),
  );
  return { ...made, heads: 'how-sure', why: `${made.why} ${sourceOf(braking.part, isSimulated)}` };
}

const sourceOf = (
  part: { of: 'after-ramp' | 'whole'; seconds: number } | null,
  isSimulated: boolean,
): string => {
  if (part === null) return 'By roller tester.';
  const by = isSimulated ? 'Simulated, not this vehicle' : 'By phone';
  return part.of === 'whole'
    ? `${by}, whole stop of ${part.seconds.toFixed(1)} s.`
    : `${by}, ${part.seconds.toFixed(1)} s with the brakes fully on.`;
};
