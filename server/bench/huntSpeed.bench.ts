/*
 * How long a leak budget and a valve's curve take, beside a fixed piece of arithmetic of the same run: a mark on a walk
 * is weighed in a thread, and should be back in 50 ms on a machine that does two million roots in about 10.
 */
import { curveOf, pairFigures, type CurvePoint } from '@keen-bleed/core/bench';
import { budgetOf } from '@keen-bleed/core/hunt';
import { demoRigsUnderTest } from './demoRigsUnderTest';
import { huntRig, inSections } from './huntWorld';

const ROUNDS = 9;

function median(does: () => void): number {
  const times = Array.from({ length: ROUNDS }, () => {
    const fromMs = performance.now();
    does();
    return performance.now() - fromMs;
  });
  return times.sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!;
}

const yardstick = median(() => {
  let sum = 0;
  for (let n = 1; n < 2_000_000; n += 1) sum += Math.sqrt(n);
  if (sum < 0) throw new Error('no sum');
});
const rigs = demoRigsUnderTest().map(huntRig);
const big = [...rigs].sort((a, b) => b.joints.length - a.joints.length)[0]!;
const joints = inSections(big.joints);
const holds = big.table.rows.map(({ state, needle }) => ({
  state,
  needle,
  psiPerMin: 1.5,
  deviation: 0.3,
  atMs: 1,
}));
const wetted = big.joints.slice(0, 30).map(({ place }, n) => ({
  place,
  grade: n % 7 === 0 ? ('froth' as const) : ('dry' as const),
  atMs: 2 + n,
  mendedAtMs: null,
}));
const budget = median(() => void budgetOf(big.table, joints, wetted, holds));
const points: CurvePoint[] = [
  ...[4, 6, 8, 10, 12, 15, 20, 30, 40, 60],
  ...[50, 40, 30, 20, 15, 12, 10, 8, 6, 0],
].map((at, n): CurvePoint => [at, Math.max(0, at - 5 + (n > 9 ? 1 : 0))]);
const reading = { divisionPsi: 2, compared: true };
const curve = median(() => void curveOf(points, reading));
const pair = median(() => void pairFigures('balance', points, reading));
console.log(
  [
    `Hunt and bench, yardstick (2,000,000 roots) ${yardstick.toFixed(1)} ms`,
    `  budget of ${big.joints.length} joints and ${holds.length} holds: ${budget.toFixed(1)} ms, ${(budget / yardstick).toFixed(1)} yardsticks (50 ms asked)`,
    `  curve of ${points.length} points: ${curve.toFixed(1)} ms; balance of the same: ${pair.toFixed(2)} ms`,
  ].join('\n'),
);
