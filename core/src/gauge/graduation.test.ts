import type { Gauge } from '@keen-bleed/contract';
import fc from 'fast-check';
import { toPsi } from '../units/pressure';
import {
  halfDivisionPsi,
  lineAbovePsi,
  lineBelowPsi,
  nearestLinePsi,
  nearestReadingPsi,
  nudgedPsi,
} from './graduation';

const dial: Gauge = { unit: 'psi', top: 150, division: 2 };
const metric: Gauge = { unit: 'bar', top: 10, division: 0.2 };
const bar = (value: number) => toPsi(value, 'bar');

it('is read to half a division', () => {
  expect(halfDivisionPsi(dial)).toBe(1);
  expect(halfDivisionPsi(metric)).toBeCloseTo(bar(0.1), 9);
  expect([98.4, 98.5, 99.2, -3, 151].map((psi) => nearestReadingPsi(psi, dial))).toEqual([
    98, 99, 99, 0, 150,
  ]);
  expect(nearestReadingPsi(bar(7.27), metric)).toBeCloseTo(bar(7.3), 9);
});

it('has lines a division apart', () => {
  expect([98.9, 99.1, -3, 151].map((psi) => nearestLinePsi(psi, dial))).toEqual([98, 100, 0, 150]);
  expect(nearestLinePsi(bar(7.27), metric)).toBeCloseTo(bar(7.2), 9);
});

it('has the next line down and up, of which one that the needle stands on is neither', () => {
  expect([100, 99.99, 98.01, 2, 0.5].map((psi) => lineBelowPsi(psi, dial))).toEqual([
    98, 98, 98, 0, 0,
  ]);
  expect(lineBelowPsi(0, dial)).toBeNull();
  expect([100, 100.01, 101.99, 148, 149, 150].map((psi) => lineAbovePsi(psi, dial))).toEqual([
    102, 102, 102, 150, 150, 150,
  ]);
  // The rounding of a conversion does not make a line its own neighbour.
  expect(lineBelowPsi(bar(7.2), metric)).toBeCloseTo(bar(7), 9);
  expect(lineAbovePsi(bar(7.2), metric)).toBeCloseTo(bar(7.4), 9);
});

it('is nudged by half divisions and stays on the scale', () => {
  expect(nudgedPsi(99, 3, dial)).toBe(102);
  expect(nudgedPsi(99, -1, dial)).toBe(98);
  expect(nudgedPsi(0, -1, dial)).toBe(0);
  expect(nudgedPsi(150, 1, dial)).toBe(150);
});

it('has every needle between its two lines, which are a division apart', () => {
  const dials = fc.constantFrom(dial, metric, { unit: 'kPa', top: 1_000, division: 20 } as Gauge);
  fc.assert(
    fc.property(dials, fc.double({ min: 0.01, max: 0.97, noNaN: true }), (gauge, share) => {
      const psi = share * toPsi(gauge.top, gauge.unit);
      const [low, high] = [lineBelowPsi(psi, gauge)!, lineAbovePsi(psi, gauge)];
      expect(low).toBeLessThan(psi);
      expect(high).toBeGreaterThan(psi);
      const lines = (high - low) / (2 * halfDivisionPsi(gauge));
      expect(Math.abs(lines - Math.round(lines))).toBeLessThan(1e-6);
      expect(Math.round(lines)).toBeLessThanOrEqual(2);
      expect(Math.abs(nearestReadingPsi(psi, gauge) - psi)).toBeLessThanOrEqual(
        halfDivisionPsi(gauge) / 2 + 1e-9,
      );
    }),
  );
});
