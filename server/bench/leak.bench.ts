/* How often a hold's verdict is wrong, ours beside the plain two-reading method on the same made-up holds. The
   needle falls by a law the estimator is not told; the eye scatters and rounds, the thumb is late and scatters. */
import { judgeBy, leakEstimate, type HoldMark } from '@keen-bleed/core';
import { seededRandom, type SeededRandom } from '../src/random/seededRandom';

const HOLDS = 6_000;
const LIMIT_PSI_PER_MIN = 3;
const DIVISION_PSI = 2;
const EYE_PSI = 0.25;
const LINE_PSI = 0.2;
const THUMB_S = 0.2;

interface Needle {
  leak: number;
  at: (seconds: number) => number;
}

function steady(random: SeededRandom): Needle {
  const leak = random.between(0, 2 * LIMIT_PSI_PER_MIN);
  const start = random.between(112, 126);
  return { leak, at: (s) => start - (leak * s) / 60 };
}

/** Air that cools after the build-up, or the rest of the pedal's first drop. */
function settling(random: SeededRandom): Needle {
  const { leak, at } = steady(random);
  const drop = random.between(0.5, 3);
  const time = random.between(8, 25);
  return { leak, at: (s) => at(s) - drop * (1 - Math.exp(-s / time)) };
}

const read = (needle: Needle, s: number, random: SeededRandom): HoldMark => ({
  atMs: s * 1000,
  readingPsi: Math.round(needle.at(s) + EYE_PSI * random.normal()),
  resolutionPsi: DIVISION_PSI / 2,
  method: 'read',
});

/** What a technician taps: each line as it is crossed, and nothing where none is. */
function tapped(needle: Needle, lengthS: number, random: SeededRandom) {
  const marks = [read(needle, 0, random)];
  let line = (Math.ceil((marks[0]?.readingPsi ?? 0) / DIVISION_PSI - 1e-9) - 1) * DIVISION_PSI;
  let seenAt = line + LINE_PSI * random.normal();
  for (let s = 0; s < lengthS; s += 0.1) {
    if (needle.at(s) > seenAt) continue;
    marks.push({
      atMs: Math.max(1, (s + THUMB_S * random.normal()) * 1000),
      readingPsi: line,
      resolutionPsi: DIVISION_PSI / 2,
      method: 'crossing',
    });
    line -= DIVISION_PSI;
    seenAt = line + LINE_PSI * random.normal();
  }
  const last = marks.at(-1)?.readingPsi ?? 0;
  const above = (Math.floor(last / DIVISION_PSI + 1e-9) + 1) * DIVISION_PSI;
  return { marks, quiet: { untilMs: lengthS * 1000, belowPsi: line, abovePsi: above } };
}

type Verdict = 'pass' | 'fail' | 'cant-tell';

/** What an inspector does: the second reading taken from the first, held against the limit. */
function twoReadings(needle: Needle, lengthS: number, random: SeededRandom): Verdict {
  const fall = read(needle, 0, random).readingPsi - read(needle, lengthS, random).readingPsi;
  return (fall * 60) / lengthS > LIMIT_PSI_PER_MIN ? 'fail' : 'pass';
}

function ours(needle: Needle, lengthS: number, random: SeededRandom): Verdict {
  const { marks, quiet } = tapped(needle, lengthS, random);
  const found = leakEstimate(marks, quiet);
  if (!found) return 'cant-tell';
  const limit = { min: null, max: LIMIT_PSI_PER_MIN };
  return judgeBy(found.readPsiPerMin, found.chanceAtMost(LIMIT_PSI_PER_MIN), limit).verdict;
}

function rates(
  needleOf: (random: SeededRandom) => Needle,
  method: typeof ours,
  lengthS: number,
): { falsePass: number; falseFail: number; undecided: number } {
  const random = seededRandom(2_026);
  const count = { over: 0, within: 0, falsePass: 0, falseFail: 0, undecided: 0 };
  for (let hold = 0; hold < HOLDS; hold += 1) {
    const needle = needleOf(random);
    const verdict = method(needle, lengthS, random);
    const isOver = needle.leak > LIMIT_PSI_PER_MIN;
    if (isOver) count.over += 1;
    else count.within += 1;
    if (verdict === 'cant-tell') count.undecided += 1;
    if (isOver && verdict === 'pass') count.falsePass += 1;
    if (!isOver && verdict === 'fail') count.falseFail += 1;
  }
  return {
    falsePass: count.falsePass / count.over,
    falseFail: count.falseFail / count.within,
    undecided: count.undecided / HOLDS,
  };
}

const share = (value: number) => `${(100 * value).toFixed(1)} %`.padStart(8);
console.log(
  `Verdicts of a hold, limit ${LIMIT_PSI_PER_MIN} psi/min, 2 psi divisions, true leaks evenly from 0 to ${2 * LIMIT_PSI_PER_MIN}, ${HOLDS} holds each`,
);
console.log('  needle                    method         false pass  false fail  can’t tell yet');
for (const [name, needleOf] of [
  ['steady', steady],
  ['still settling', settling],
] as const) {
  for (const lengthS of [60, 120]) {
    for (const [title, method] of [
      ['two readings', twoReadings],
      ['ours', ours],
    ] as const) {
      const { falsePass, falseFail, undecided } = rates(needleOf, method, lengthS);
      console.log(
        `  ${`${name}, ${lengthS} s`.padEnd(25)} ${title.padEnd(14)} ${share(falsePass)}    ${share(falseFail)}    ${share(undecided)}`,
      );
    }
  }
}
