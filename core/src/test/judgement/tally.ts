import type { Figure } from '@keen-bleed/contract';

/** How verdicts came out against the truth. */
export interface Tally {
  cases: number;
  /** Share of 95 % intervals that hold the truth. */
  covered: number;
  passes: number;
  wrongPasses: number;
  fails: number;
  wrongFails: number;
  open: number;
  /** The same as read: passes, fails, and what an inspector would write over the truth, summed. */
  asRead: { passes: number; wrongPasses: number; fails: number; wrongFails: number; over: number };
  /** Cases clear of the limit, and how many of them could not be told. */
  clear: number;
  clearOpen: number;
  /** Cases that could not be told, whose way to settle them was tried, and how many it settled. */
  tried: number;
  settled: number;
  /** By tenths of the stated chance: cases, mean stated, and how often it was so. */
  tenths: { cases: number; stated: number; came: number }[];
}

export const newTally = (): Tally => ({
  cases: 0,
  covered: 0,
  passes: 0,
  wrongPasses: 0,
  fails: 0,
  wrongFails: 0,
  open: 0,
  asRead: { passes: 0, wrongPasses: 0, fails: 0, wrongFails: 0, over: 0 },
  clear: 0,
  clearOpen: 0,
  tried: 0,
  settled: 0,
  tenths: Array.from({ length: 10 }, () => ({ cases: 0, stated: 0, came: 0 })),
});

/** Counts one figure.  */
export function count(tally: Tally, figure: Figure, truth: number): void {
  const { low, high, limit, verdict, within } = figure;
  if (low === undefined || high === undefined || !limit) {
    tally.cases += 1;
    tally.open += 1;
    return;
  }
  tally.cases += 1;
  if (truth >= low && truth <= high) tally.covered += 1;
  const isWithin =
    (limit.min === null || truth >= limit.min) && (limit.max === null || truth <= limit.max);
  tally.asRead.over += (figure.read ?? figure.value ?? truth) - truth;
  if (figure.asRead === 'pass') {
    tally.asRead.passes += 1;
    if (!isWithin) tally.asRead.wrongPasses += 1;
  } else if (figure.asRead === 'fail') {
    tally.asRead.fails += 1;
    if (isWithin) tally.asRead.wrongFails += 1;
  }
  if (verdict === 'pass') {
    tally.passes += 1;
    if (!isWithin) tally.wrongPasses += 1;
  } else if (verdict === 'fail') {
    tally.fails += 1;
    if (isWithin) tally.wrongFails += 1;
  } else {
    tally.open += 1;
  }
  if (limit.min === null && limit.max !== null) {
    if (truth < limit.max / 2 || truth > 1.5 * limit.max) {
      tally.clear += 1;
      if (verdict === 'cant-tell') tally.clearOpen += 1;
    }
  }
  if (within !== null) {
    const tenth = tally.tenths[Math.min(9, Math.floor(within * 10))]!;
    tenth.cases += 1;
    tenth.stated += within;
    if (isWithin) tenth.came += 1;
  }
}

const percent = (part: number, whole: number) =>
  whole === 0 ? '   –' : `${((100 * part) / whole).toFixed(1)} %`.padStart(7);

/** One line of a table. */
export const sayTally = (title: string, t: Tally): string =>
  `  ${title.padEnd(24)} ${String(t.cases).padStart(6)}  ${percent(t.covered, t.cases)}  ${percent(t.wrongPasses, t.passes)}  ${percent(t.wrongFails, t.fails)}  ${percent(t.open, t.cases)}  ${percent(t.clearOpen, t.clear)}  ${percent(t.settled, t.tried)}  ${percent(t.asRead.wrongPasses, t.asRead.passes)}  ${percent(t.asRead.wrongFails, t.asRead.fails)}  ${(t.asRead.over / t.cases).toFixed(2).padStart(6)}`;

/** Tenths that are off by more than five points beyond their 95 % binomial interval. */
export function offTenths(t: Tally): string[] {
  return t.tenths.flatMap(({ cases, stated, came }, n) => {
    if (cases === 0) return [];
    const p = stated / cases;
    const share = came / cases;
    const chance = 1.96 * Math.sqrt(Math.max(p * (1 - p), 0.25 / cases) / cases);
    return Math.abs(share - p) > 0.05 + chance
      ? [`${n * 10}–${n * 10 + 10}: said ${p.toFixed(2)}, came ${share.toFixed(2)} of ${cases}`]
      : [];
  });
}
