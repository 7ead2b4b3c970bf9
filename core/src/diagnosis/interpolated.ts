import type { Check, Senses } from '../checks/check';
import type { Fault } from '../twin/faults/fault';
import { chancesOf, type WouldAnswer } from './likelihood';
import { RUN_AT, type RigModel, type ShownByRun } from './rigModel';
import { lampFigures } from './runFigures';

/* A fault is worked out at some severities: what it shows between them, and beside another. */

/** Where a severity lies on a grid: its neighbours, and the share of the upper. */
export function between(
  grid: readonly number[],
  severity: number,
): readonly [below: number, above: number, share: number] {
  const last = grid.length - 1;
  for (let n = 0; n < last; n += 1) {
    const [below, above] = [grid[n]!, grid[n + 1]!];
    if (severity <= above || n === last - 1) {
      return [below, above, Math.min(1, Math.max(0, (severity - below) / (above - below)))];
    }
  }
  return [grid[0]!, grid[0]!, 0];
}

/** Between two severities a figure may run by so much of their difference off the straight line, in the middle. */
export const BENT = 0.3;
export const bend = (share: number) => 4 * share * (1 - share);

/** What a run would show at a severity between those it was made at; those made so far are enough. */
export function shownBetween(model: RigModel, fault: Fault, severity: number): ShownByRun {
  const known = model.runsOf(fault.id);
  const [below, above, share] =
    known.length > 1 ? between(known, severity) : [known[0] ?? RUN_AT[2], 0, 0];
  const low = model.run(fault.id, below);
  if (share === 0) return low;
  const high = model.run(fault.id, above);
  return {
    numbers: low.numbers.map((value, n) => {
      const other = high.numbers[n] ?? null;
      return value === null || other === null
        ? (value ?? other)
        : (1 - share) * value + share * other;
    }),
    unsure: low.numbers.map(
      (value, n) => BENT * Math.abs((high.numbers[n] ?? value ?? 0) - (value ?? 0)) * bend(share),
    ),
    lamps: Object.fromEntries(
      lampFigures.flatMap((lamp) => {
        const [a, b] = [low.lamps[lamp], high.lamps[lamp]];
        return a === undefined || b === undefined ? [] : [[lamp, (1 - share) * a + share * b]];
      }),
    ),
  };
}

export function mixed(
  check: Check,
  shares: Readonly<Record<string, number>>,
  senses: Senses,
): Readonly<Record<string, number>> {
  const sum: Record<string, number> = {};
  for (const [shown, share] of Object.entries(shares)) {
    for (const [said, chance] of Object.entries(chancesOf(check, shown, senses))) {
      sum[said] = (sum[said] ?? 0) + share * chance;
    }
  }
  return sum;
}

export function blend(
  one: Readonly<Record<string, number>>,
  other: Readonly<Record<string, number>>,
  share: number,
): Readonly<Record<string, number>> {
  return Object.fromEntries(
    [...new Set([...Object.keys(one), ...Object.keys(other)])].map((said) => [
      said,
      (1 - share) * (one[said] ?? 0) + share * (other[said] ?? 0),
    ]),
  );
}

/** What two faults at once would answer: their shifts add, and the one that shows is seen. */
export function together(a: WouldAnswer, b: WouldAnswer, sound: WouldAnswer): WouldAnswer {
  const shift = a.shift + b.shift;
  const showsMore = (would: WouldAnswer) =>
    Object.entries(would.chances).reduce(
      (sum, [said, chance]) => sum + Math.abs(chance - (sound.chances[said] ?? 0)),
      0,
    );
  return {
    mean: sound.mean + shift,
    shift: Math.hypot(a.shift, b.shift),
    unsure: Math.hypot(a.unsure, b.unsure),
    chances: showsMore(a) >= showsMore(b) ? a.chances : b.chances,
  };
}
