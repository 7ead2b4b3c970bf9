import { linearRegression } from 'simple-statistics';
import { testUnit } from '../test/walk';
import { seededNumbers } from '../test/seededNumbers';
import { drift } from './drift';
import { levelOf, levelUncertaintyPsi, withGaugeCheck } from '../gauge/gaugeCheck';

const DAY = 86_400_000;
const nowMs = 1_000 * DAY;

describe('the drift of a figure', () => {
  it('agrees with a general-purpose regression, and finds the day its limit is reached', () => {
    const points = [700, 600, 500, 400, 300, 200, 100, 0].map((ago, index) => ({
      atMs: nowMs - ago * DAY,
      value: 1 + index * 0.1 + (index % 2) * 0.01,
    }));
    const other = linearRegression(
      points.map(({ atMs, value }) => [(atMs - nowMs) / DAY, value] as [number, number]),
    );
    const found = drift(points, { min: null, max: 2 }, nowMs, 0.01);
    expect(found?.perDay).toBeCloseTo(other.m, 9);
    expect(found?.today).toBeCloseTo(other.b, 6);
    expect(found?.real).toBe(true);
    const straightDays = (2 - other.b) / other.m;
    const days = (atMs: number | null | undefined) => ((atMs ?? 0) - nowMs) / DAY;
    expect(days(found?.crosses?.fromMs)).toBeLessThan(straightDays);
    expect(days(found?.crosses?.toMs)).toBeGreaterThan(straightDays);
    // What one figure is good to counts even where the few at hand happen to lie on a line.
    const doubted = drift(points, { min: null, max: 2 }, nowMs, 0.3);
    expect(doubted?.real).toBe(false);
    expect(doubted?.crosses).toBeNull();
  });

  it('heads for the limit it moves towards, and for none where it only scatters', () => {
    const falling = [500, 400, 300, 200, 100, 0].map((ago, index) => ({
      atMs: nowMs - ago * DAY,
      value: 110 - 2 * index + (index === 1 ? 0.1 : 0),
    }));
    expect(drift(falling, { min: 100, max: 140 }, nowMs, 0.5)).toMatchObject({ towards: 100 });
    const random = seededNumbers(5);
    let forecast = 0;
    for (let run = 0; run < 200; run += 1) {
      const points = Array.from({ length: 8 }, (_, index) => ({
        atMs: nowMs - index * 45 * DAY,
        value: 1 + 0.2 * random.normal(),
      }));
      if (drift(points, { min: null, max: 2 }, nowMs, 0.1)?.crosses) forecast += 1;
    }
    expect(forecast / 200).toBeLessThan(0.15);
  });

  it('says nothing of fewer than six runs', () => {
    const five = [0, 1, 2, 3, 4].map((n) => ({ atMs: n * DAY, value: n }));
    expect(drift(five, { min: null, max: 2 }, nowMs, 0.1)).toBeNull();
  });
});

describe('a level and its gauge', () => {
  const checked = testUnit({
    gaugeChecks: [{ gauge: 'primary', dashPsi: 100, masterPsi: 103, atMs: 0 }],
  });

  const DAYS_90 = 90 * DAY;
  const level = (psi: number, unit = checked, atMs = DAYS_90) =>
    levelOf(psi, 1, 'primary', unit, 125, atMs);

  it('is put right by a comparison with a master gauge, and surer for it', () => {
    const plain = level(102, testUnit());
    expect(plain).toMatchObject({ psi: 102, checked: false });
    expect(level(102)).toMatchObject({ psi: 105, checked: true, halfWidthPsi: 0 });
    expect(levelUncertaintyPsi(level(102))).toBeLessThan(levelUncertaintyPsi(plain) / 2);
  });

  it('is less sure further from the compared pressure, and later', () => {
    expect(level(40).eyePsi).toBeGreaterThan(2 * level(100).eyePsi);
    expect(level(100, checked, 1_000 * DAY).eyePsi).toBeGreaterThan(level(100).eyePsi);
  });

  it('between two compared pressures is put right by what lies between them', () => {
    const twice = testUnit({
      gaugeChecks: withGaugeCheck(checked.gaugeChecks, {
        gauge: 'primary',
        dashPsi: 60,
        masterPsi: 59,
        atMs: 0,
      }),
    });
    expect(twice.gaugeChecks).toHaveLength(2);
    // Half way from −1 to +3.
    expect(level(80, twice).psi).toBeCloseTo(81, 9);
    expect(level(80, twice).eyePsi).toBeLessThan(level(80).eyePsi);
    const again = { gauge: 'primary' as const, dashPsi: 104, masterPsi: 105, atMs: DAY };
    expect(withGaugeCheck(twice.gaugeChecks, again).map(({ dashPsi }) => dashPsi)).toEqual([
      60, 104,
    ]);
  });

  it('of the other gauge is not touched', () => {
    expect(levelOf(102, 1, 'secondary', checked, 125, 0)).toMatchObject({
      psi: 102,
      checked: false,
    });
  });
});
