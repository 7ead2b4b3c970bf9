import type { LeakGrade } from '@keen-bleed/contract';
import type { Draws } from '../twin/random';

/** What soap shows where something leaks, from a film up. */
export const leakGrades = [
  'film',
  'froth',
  'stream',
  'blown-off',
] as const satisfies readonly LeakGrade[];
export type { LeakGrade } from '@keen-bleed/contract';

export const isLeakGrade = (grade: string): grade is LeakGrade =>
  (leakGrades as readonly string[]).includes(grade);

/**
 * Free air that a grade stands for, scfm, from and to: what an eye calls so is spread over all of it
 * [common practice, no source].
 */
export const GRADE_SCFM: Readonly<Record<LeakGrade, readonly [from: number, to: number]>> = {
  film: [0.002, 0.05],
  froth: [0.05, 0.25],
  stream: [0.25, 1],
  'blown-off': [1, 4],
};

/** One eye in five calls a leak a grade more or less than another would [common practice, no source]. */
const OFF_BY_ONE = 0.2;

/** What a shop has learnt of a grade: how much more it was than the house takes it for, as a logarithm, and how sure. */
export interface GradeLearnt {
  mean: number;
  deviation: number;
}
export type GradesLearnt = Readonly<Partial<Record<LeakGrade, GradeLearnt>>>;

/** Draws a flow that an eye may have called so, scfm. */
export function drawFlow(grade: LeakGrade, draws: Draws, learnt: GradesLearnt = {}): number {
  const at = leakGrades.indexOf(grade);
  const off = draws.even() < OFF_BY_ONE ? (draws.even() < 0.5 ? -1 : 1) : 0;
  const as = leakGrades[Math.min(leakGrades.length - 1, Math.max(0, at + off))]!;
  const [from, to] = GRADE_SCFM[as];
  const flow = from * (to / from) ** draws.even();
  const known = learnt[grade];
  return known ? flow * Math.exp(known.mean + known.deviation * draws.normal(3)) : flow;
}

/** One leak that was mended alone between two holds: what they say it lost. */
export interface BeforeAfter {
  grade: LeakGrade;
  /** Free air that the holds differ by, scfm, and its standard deviation. */
  scfm: number;
  deviation: number;
}

/** What a house takes a grade for differs from shop to shop by about this factor, as a logarithm. */
const SHOPS_DIFFER = 0.5;

/**
 * What a shop's own holds before and after a mend say of its grades: the house's middle moved towards what was measured,
 * by how much was measured and how well (a normal law on the logarithm).
 */
export function gradesLearnt(mends: readonly BeforeAfter[]): GradesLearnt {
  const learnt: Partial<Record<LeakGrade, GradeLearnt>> = {};
  for (const grade of leakGrades) {
    const [from, to] = GRADE_SCFM[grade];
    const middle = Math.log(Math.sqrt(from * to));
    // Each single leak lies anywhere in its grade: that is most of the doubt of one mend.
    const within = Math.log(to / from) / Math.sqrt(12);
    let weight = 1 / SHOPS_DIFFER ** 2;
    let sum = 0;
    for (const each of mends) {
      if (each.grade !== grade || each.scfm <= 2 * each.deviation || each.scfm <= 0) continue;
      const by = 1 / (within ** 2 + (each.deviation / each.scfm) ** 2);
      weight += by;
      sum += by * (Math.log(each.scfm) - middle);
    }
    if (sum !== 0) learnt[grade] = { mean: sum / weight, deviation: 1 / Math.sqrt(weight) };
  }
  return learnt;
}
