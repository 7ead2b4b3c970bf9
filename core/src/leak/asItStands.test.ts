import { seededNumbers } from '../test/seededNumbers';
import { sixDigits } from '../test/sixDigits';
import { heatAfter, heatLater, settled, type Heat } from './heat';
import { holdLengthS, waitNeededS } from './holdPlan';
import { leakEstimate, type QuietEnd } from './leakEstimate';
import { holdNeededS, leakRate, type HoldMark } from './leakRate';

/*
 * Holds of every sort, drawn by a seed, and what is made of them. No proof that a rate is right, which jStat, closed forms
 * and the simulated worlds give beside, but no term of it changes unseen.
 */
const HEATS: readonly (readonly [string, Heat])[] = [
  ['settled', settled],
  ['unknown', heatAfter([], [])],
  ['after a climb', heatAfter([{ risePsi: 30, ratePsiPerS: 0.8, sinceS: [20, 20] }], [])],
  ['after one at some time', heatAfter([{ risePsi: 12, ratePsiPerS: 0.5, sinceS: [5, 60] }], [])],
  [
    'after strokes',
    heatAfter(
      [],
      [
        { dropPsi: 14, sinceS: 25 },
        { dropPsi: 6, sinceS: 4 },
      ],
    ),
  ],
  [
    'after both, and later',
    heatLater(
      heatAfter(
        [{ risePsi: 40, ratePsiPerS: 1.1, sinceS: [40, 50] }],
        [{ dropPsi: 9, sinceS: 12 }],
      ),
      35,
    ),
  ],
];

interface Drawn {
  marks: HoldMark[];
  quiet: QuietEnd | null;
  slopeShare: number;
}

/** A hold: reads and lines crossed at some rate, here and there a slip, and at times a quiet end. */
function holdOf(seed: number): Drawn {
  const { between, normal } = seededNumbers(seed);
  const resolutionPsi = [0.25, 1, 2.5][seed % 3]!;
  const ratePsiPerMin = [0, 0.6, 2, 4.5, -1][seed % 5]!;
  const count = [1, 2, 3, 5, 14][Math.floor(between(0, 5))]!;
  const gapS = between(15, 70);
  const marks = Array.from({ length: count }, (_, n): HoldMark => {
    const s = n * gapS * between(0.9, 1.1);
    const psi = 100 - (ratePsiPerMin * s) / 60 + 0.4 * resolutionPsi * normal();
    const slip = between(0, 9) < 1 ? 5 * resolutionPsi : 0;
    return {
      atMs: 1_000 + s * 1000,
      readingPsi: Math.round((psi + slip) / resolutionPsi) * resolutionPsi,
      resolutionPsi,
      method: between(0, 2) < 1 ? 'read' : 'crossing',
    };
  });
  const last = marks.at(-1)!;
  const quiet =
    count === 1 || between(0, 3) < 1
      ? {
          untilMs: last.atMs + between(-5_000, 200_000),
          belowPsi: last.readingPsi - 2 * resolutionPsi,
          abovePsi: last.readingPsi + 2 * resolutionPsi,
        }
      : null;
  return { marks, quiet, slopeShare: seed % 2 === 0 ? 0.06 : 0 };
}

it.each(HEATS)('holds, heat %s', (_, heat) => {
  const lines = Array.from({ length: 24 }, (__, seed) => {
    const { marks, quiet, slopeShare } = holdOf(seed);
    const found = leakEstimate([...marks].reverse(), quiet, { heat, slopeShare });
    if (!found) return `${seed}: nothing`;
    const chances = [-0.5, 0, 0.5, 1, 2, 3, 4].map(found.chanceAtMost);
    return `${seed}: ${sixDigits(found)} ${sixDigits(chances)}`;
  });
  expect(lines.join('\n')).toMatchSnapshot();
});

it('plain rates, waits, lengths and heat', () => {
  const rates = Array.from({ length: 15 }, (_, seed) => sixDigits(leakRate(holdOf(seed).marks)));
  const waits = HEATS.flatMap(([name, heat]) =>
    [0.5, 2, 3, 8].map((limit) => `${name} ${limit}: ${waitNeededS(heat, limit)}`),
  );
  const lengths = [0.1, 0.5, 1, 2, 2.5].flatMap((resolution) =>
    [1, 2, 3, 6].map((limit) => `${resolution} ${limit}: ${holdLengthS(resolution, limit)}`),
  );
  const needed = [-1, 0, 0.5, 2].map((gap) => `${gap}: ${holdNeededS(1, gap, 1.645).toFixed(3)}`);
  const still = HEATS.map(([name, heat]) => `${name}: ${sixDigits([15, 32, 70].map(heat))}`);
  expect([...rates, ...waits, ...lengths, ...needed, ...still].join('\n')).toMatchSnapshot();
});
