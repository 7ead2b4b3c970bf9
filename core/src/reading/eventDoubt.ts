import type { FigureId } from '@keen-bleed/contract';
import { LATE_S } from '../gauge/uncertainty';
import { STANDARD_ATMOSPHERE_PSI } from '../units/pressure';

/** How the needle stood beside what happened: by how much the pressure lay over it, and how well that is known, psi. */
export interface EventDoubt {
  addPsi: number;
  sdPsi: number;
  /** What settles it where the event itself, not the dial, leaves it open. */
  settle: string;
}

/** A small stroke near the window: the event lies somewhere in it, the needle is read at its foot. House value, psi. */
const STROKE_PSI = 5;
/** The same where it is taken several times over with care. House value, psi. */
const CAREFUL_STROKE_PSI = 2.5;
/** How far the two tanks stand apart while the pedal is fanned (standard deviation). House value, psi. */
const TANKS_APART_PSI = 2.5;
/** How fast a needle climbs past a warning that goes off, psi/s. House value. */
const CLIMB_PSI_PER_S = 0.8;
/**
 * At the top of a climb the needle lags behind a little, and the air begins to cool while it is read: by so much the
 * governor's set point lies over it, and how well that is known. House values, psi.
 */
const TOP_OVER_PSI = 0.7;
const TOP_PSI = 0.6;

const NEAR = 'Use small strokes near the window.';

const EVEN = Math.sqrt(12);
const MEAN_OF_HALF = 1 / Math.sqrt(2 * Math.PI);
const SD_OF_HALF = Math.sqrt(0.5 - 1 / (2 * Math.PI));
const none: EventDoubt = { addPsi: 0, sdPsi: 0, settle: '' };

/** Somewhere in a stroke. */
const within = (strokePsi: number, settle: string): EventDoubt => ({
  addPsi: strokePsi / 2,
  // Strokes differ by a fifth from one to the next.
  sdPsi: Math.hypot(strokePsi / EVEN, strokePsi / 5),
  settle,
});

/**
 * What happens on a falling needle is read after the stroke in which it happened, and perhaps on the other tank's
 * needle; a cut-in lies at the foot of the last stroke and the governor's set point within it. House reckoning from
 * an even place in the stroke.
 *
 * @param otherOverPsi how far the other tank's needle stood over this one; null where it was not read
 * @param pedalRatio what a full stroke leaves of absolute pressure
 * @param readPsi where the needle was read
 * @param takes how often it was taken with small strokes, on a gauge in the tank that moves it; the reading is their
 *   mean
 */
export function eventDoubt(
  figure: FigureId,
  otherOverPsi: number | null,
  pedalRatio: number,
  readPsi: number,
  takes = 1,
): EventDoubt {
  const smallPsi = takes > 1 ? CAREFUL_STROKE_PSI : STROKE_PSI;
  const mean = (event: EventDoubt): EventDoubt => ({
    ...event,
    sdPsi: event.sdPsi / Math.sqrt(takes),
  });
  // Several takes are made with the gauge in the tank that matters.
  const ofTank = (sign: 1 | -1, event: EventDoubt) =>
    takes > 1 ? event : tanked(sign, otherOverPsi, event);
  switch (figure) {
    case 'cut-out':
      return mean({ ...none, addPsi: TOP_OVER_PSI, sdPsi: TOP_PSI });
    case 'cut-in': {
      const strokePsi = (readPsi + STANDARD_ATMOSPHERE_PSI) * (1 / pedalRatio - 1);
      return mean(
        within(
          takes > 1 ? Math.min(smallPsi, strokePsi) : strokePsi,
          'Fan with smaller strokes near the cut-in.',
        ),
      );
    }
    case 'warning':
      return ofTank(-1, mean(within(smallPsi, NEAR)));
    case 'pop-out-park':
    case 'pop-out-trailer':
      return ofTank(1, mean(within(smallPsi, NEAR)));
    case 'warning-reset':
      return tanked(-1, otherOverPsi, {
        addPsi: -LATE_S * CLIMB_PSI_PER_S,
        sdPsi: LATE_S * CLIMB_PSI_PER_S,
        settle: 'Let it climb slowly past the window.',
      });
    default:
      return none;
  }
}

/** A knob follows the higher tank, a warning the lower: where the other needle was read, it is known by how much. */
function tanked(sign: 1 | -1, otherOverPsi: number | null, event: EventDoubt): EventDoubt {
  if (otherOverPsi !== null) {
    const add = sign > 0 ? Math.max(0, otherOverPsi) : Math.min(0, otherOverPsi);
    return { ...event, addPsi: event.addPsi + add };
  }
  return {
    addPsi: event.addPsi + sign * MEAN_OF_HALF * TANKS_APART_PSI,
    sdPsi: Math.hypot(event.sdPsi, SD_OF_HALF * TANKS_APART_PSI),
    settle: `${event.settle.replace(/\.$/, '')}, and read both needles.`,
  };
}
