import type { FigureId, GaugeRole } from '@keen-bleed/contract';
import { heatAfter, settled, type Heat } from '../leak/heat';
import { leakEstimate } from '../leak/leakEstimate';
import { seededNumbers } from '../test/seededNumbers';
import { sixDigits } from '../test/sixDigits';
import { buildUp } from './buildUp';
import { drift } from './drift';
import { eventDoubt } from './eventDoubt';
import { settlesHold } from './settlesHold';

/*
 * The parts a reading is judged by, each over all that goes into it. No proof, which closed forms, libraries and the
 * simulated worlds give beside, but no term changes unseen.
 */
const WARM = heatAfter([{ risePsi: 40, ratePsiPerS: 0.9, sinceS: [10, 10] }], []);

it.each<[GaugeRole, number, string, Heat]>([
  ['primary', 1, 'settled', settled],
  ['primary', 1, 'warm', WARM],
  ['primary', 2.5, 'settled', settled],
  ['master', 0.25, 'settled', settled],
  ['master', 1, 'warm', WARM],
])('what would settle a hold: %s, to %d psi, %s', (gauge, resolutionPsi, _, heat) => {
  const lines = [60, 120, 240].flatMap((spanS) =>
    [1, 1.6, 1.9, 2.1, 2.6, 4].map((rate) => {
      const estimate = leakEstimate(
        [0, 0.5, 1].map((share) => ({
          atMs: share * spanS * 1000,
          readingPsi: 100 - (rate * share * spanS) / 60,
          resolutionPsi,
          method: 'read' as const,
        })),
        null,
        { heat, slopeShare: gauge === 'master' ? 0.01 : 0.06 },
      )!;
      const held = { resolutionPsi, gauge, heat, limitPsiPerMin: 2 };
      return `${spanS} s at ${rate}: ${settlesHold(estimate, held).say}`;
    }),
  );
  const bounded = leakEstimate(
    [{ atMs: 0, readingPsi: 100, resolutionPsi, method: 'read' }],
    { untilMs: 120_000, belowPsi: 100 - 2 * resolutionPsi, abovePsi: 100 + 2 * resolutionPsi },
    { heat, slopeShare: 0.06 },
  )!;
  const held = { resolutionPsi, gauge, heat, limitPsiPerMin: 2 };
  expect([...lines, `bounded: ${settlesHold(bounded, held).say}`].join('\n')).toMatchSnapshot();
});

it('what happens beside the needle', () => {
  const figures: FigureId[] = [
    ...(['cut-out', 'cut-in', 'warning', 'warning-reset'] as const),
    ...(['pop-out-park', 'pop-out-trailer', 'build-up'] as FigureId[]),
  ];
  const lines = figures.flatMap((figure) =>
    [null, -4, 0, 6].flatMap((other) =>
      [1, 3].map(
        (takes) =>
          `${figure} ${other} ${takes}: ${sixDigits(eventDoubt(figure, other, 0.93, 62, takes))}`,
      ),
    ),
  );
  expect(lines.join('\n')).toMatchSnapshot();
});

it('a climb between two levels', () => {
  const at = (atMs: number, readingPsi: number, resolutionPsi = 1) => ({
    ...{ atMs, readingPsi, resolutionPsi },
  });
  expect(
    [
      buildUp(at(0, 85), at(24_000, 100), 15, 'primary'),
      buildUp(at(0, 84, 2.5), at(24_000, 102, 2.5), 15, 'primary'),
      buildUp(at(1_000, 85), at(7_000, 100), 15, 'master'),
      buildUp(at(0, 85), at(0, 100), 15, 'primary'),
      buildUp(at(0, 85), at(9_000, 85), 15, 'primary'),
    ]
      .map(sixDigits)
      .join('\n'),
  ).toMatchSnapshot();
});

it('figures that drift', () => {
  const DAY = 86_400_000;
  const nowMs = 20_000 * DAY;
  const { normal } = seededNumbers(9);
  const lines = [0.02, 0.002, -0.01, 0].flatMap((perDay) =>
    [5, 6, 9, 16].map((count) => {
      const points = Array.from({ length: count }, (_, n) => ({
        atMs: nowMs - n * 30 * DAY,
        value: 5 - perDay * n * 30 + 0.1 * normal(),
      }));
      const found = drift(points, { min: 2, max: 8 }, nowMs, 0.05);
      const open = drift(points, { min: null, max: 8 }, nowMs, 0.3);
      return `${perDay} ${count}: ${sixDigits(found)} ${sixDigits(open)}`;
    }),
  );
  const sameDay = Array.from({ length: 7 }, () => ({ atMs: nowMs, value: 1 }));
  expect(drift(sameDay, null, nowMs, 0.1)).toBeNull();
  expect(lines.join('\n')).toMatchSnapshot();
});
