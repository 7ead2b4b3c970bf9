import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line, type GradedEffect, type Range } from '../graded';
import { asShare, LOSS, PASSES } from './scales';

/** A set point moved by this is passed at once, or never: no air is there. */
export const OUT_OF_REACH_PSI = 1_000;

/** What most faults are told by. */
export interface Told {
  part: string;
  title: string;
  hard: Fault['hard'];
  prior?: number;
  oneSide?: true;
}

/** A fault with an id of its own. */
export const fault = (
  id: string,
  at: string,
  { prior = 1, ...told }: Told,
  does: readonly GradedEffect[],
): Fault => ({ id, at, ...told, prior, does });

/** A hole to outside air in a place. */
export const leak = (place: string, told: Told, id = `leak: ${place}`): Fault =>
  fault(id, place, told, [{ does: 'leak', place, conductance: LOSS }]);

/** What passes a seat of a way that does not close, as a share of the way's bore. */
export const seatShare = (twin: Twin, way: string): Range =>
  // Of a way the rig does not have there is no fault either: it is sorted out with the others of such parts.
  twin.hasWay(way) ? asShare(LOSS, twin.conductanceOf(way)) : LOSS;

/** A seat that does not close. */
export const seat = (twin: Twin, way: string, told: Told, id = `seat: ${way}`): Fault =>
  fault(id, way, told, [{ does: 'hold open', way, share: seatShare(twin, way) }]);

/** A way that only this fault makes, to outside air or past a seal. */
export const pierced = (way: string, told: Told, id = `pierced: ${way}`): Fault =>
  fault(id, way, told, [{ does: 'pierce', way, conductance: LOSS }]);

/** A passage that lets too little through. */
export const narrowed = (
  way: string,
  told: Told,
  id = `narrowed: ${way}`,
  share: Range = PASSES,
): Fault => fault(id, way, told, [{ does: 'narrow', way, share }]);

/** A way that is shut for good. */
export const shut = (id: string, way: string, told: Told): Fault =>
  fault(id, way, told, [{ does: 'narrow', way, share: 0 }]);

/** A switch or control whose set points have moved together, psi. */
export const setBy = (id: string, latch: string, told: Told, by: Range | number): Fault =>
  fault(id, latch, told, [{ does: 'set', latch, lowBy: by, highBy: by }]);

/** A tank part full of water. */
export const watery = (place: string, part: string): Fault =>
  fault(`water: ${place}`, place, { part, title: 'part full of water', hard: 3, prior: 2 }, [
    { does: 'volume', place, times: line(0.97, 0.4) },
  ]);
