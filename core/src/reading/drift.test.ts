import { linearRegression } from 'simple-statistics';
import { testUnit } from '../test/walk';
import { seededNumbers } from '../test/seededNumbers';
import { drift } from './drift';
import { levelOf } from '../gauge/gaugeCheck';

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
    const found = drift(points, { min: null, max: 2 }, nowMs);
    expect(found?.perDay).toBeCloseTo(other.m, 9);
    expect(found?.today).toBeCloseTo(other.b, 6);
    expect(found?.real).toBe(true);
    expect(((found?.crossesAtMs ?? 0) - nowMs) / DAY).toBeCloseTo((2 - other.b) / other.m, 3);
  });

  it('heads for the limit it moves towards, and for none where it only scatters', () => {
    const falling = [300, 200, 100, 0].map((ago, index) => ({
      atMs: nowMs - ago * DAY,
      value: 110 - 2 * index + (index === 1 ? 0.1 : 0),
    }));
    expect(drift(falling, { min: 100, max: 140 }, nowMs)).toMatchObject({ towards: 100 });
    const random = seededNumbers(5);
    let forecast = 0;
    for (let run = 0; run < 200; run += 1) {
      const points = Array.from({ length: 8 }, (_, index) => ({
        atMs: nowMs - index * 45 * DAY,
        value: 1 + 0.2 * random.normal(),
      }));
      if (drift(points, { min: null, max: 2 }, nowMs)?.crossesAtMs) forecast += 1;
    }
    expect(forecast / 200).toBeLessThan(0.15);
  });

  it('says nothing of fewer than four runs', () => {
    expect(drift([{ atMs: 0, value: 1 }], { min: null, max: 2 }, nowMs)).toBeNull();
  });
});

describe('a level and its gauge', () => {
  const checked = testUnit({
    gaugeChecks: [{ gauge: 'primary', dashPsi: 100, masterPsi: 103, atMs: 0 }],
  });

  it('is put right by a comparison with a master gauge, and surer for it', () => {
    const plain = levelOf(102, 1, 'primary', testUnit(), 125);
    const better = levelOf(102, 1, 'primary', checked, 125);
    expect(plain).toMatchObject({ psi: 102, checked: false });
    expect(better).toMatchObject({ psi: 105, checked: true });
    expect(better.standardUncertaintyPsi).toBeLessThan(plain.standardUncertaintyPsi / 2);
  });

  it('of the other gauge is not touched', () => {
    expect(levelOf(102, 1, 'secondary', checked, 125)).toMatchObject({ psi: 102, checked: false });
  });
});
