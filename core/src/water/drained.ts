import type { DrainedThing } from '@keen-bleed/contract';

/** How much came out of a drain, as a hand and a cup tell it. */
export const drainAmounts = ['dry', 'mist', 'spoonful', 'cup', 'more'] as const;
export type DrainAmount = (typeof drainAmounts)[number];

/** What an amount stands for, ml, from and to [common practice, no source]. */
export const AMOUNT_ML: Readonly<Record<DrainAmount, readonly [from: number, to: number]>> = {
  dry: [0, 0.5],
  mist: [0.5, 5],
  spoonful: [5, 30],
  cup: [30, 250],
  more: [250, 2_000],
};

/** A drain that was opened. */
export interface Drained {
  /** The tank's place. */
  place: string;
  amount: DrainAmount;
  /** Where it was measured. */
  ml: number | null;
  what: readonly DrainedThing[];
  stuck: boolean;
  /** Tanks, by part, that the same cord drained with it: their water is in this amount. */
  with?: readonly string[];
  atMs: number;
}

/** What came out of a drain, ml, from and to: a measured amount is right within a fifth. */
export const mlOf = ({ amount, ml }: Drained): readonly [from: number, to: number] =>
  ml === null ? AMOUNT_ML[amount] : [Math.max(0, 0.8 * ml - 1), 1.2 * ml + 1];

/** What came out of all of them together, ml. */
export const totalMl = (drains: readonly Drained[]): readonly [from: number, to: number] =>
  drains.reduce<readonly [number, number]>(
    ([from, to], each) => [from + mlOf(each)[0], to + mlOf(each)[1]],
    [0, 0],
  );

/** The grade of the catalogue that an amount is, and the amount that stands for a grade. */
export const gradeOfAmount = (amount: DrainAmount): string =>
  amount === 'dry' || amount === 'mist' ? 'none' : amount;
export const amountOfGrade = (grade: string, mist: boolean): DrainAmount | null =>
  grade === 'none'
    ? mist
      ? 'mist'
      : 'dry'
    : grade === 'spoonful' || grade === 'cup' || grade === 'more'
      ? grade
      : null;
