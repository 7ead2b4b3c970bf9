import { drawsOf } from '../twin/random';
import type { Trace } from './segments';
import { steadyPoints } from './steadyPoints';

/** A pedal pressed in steps of three seconds, a valve that cracks at 5 and fills with a lag, both recorded with noise. */
function recorded(everyS: number, noise: number): [Trace, Trace] {
  const asked = [0, 10, 20, 40, 60, 30, 0];
  const draws = drawsOf(3);
  const seconds: number[] = [];
  const from: number[] = [];
  const to: number[] = [];
  let line = 0;
  let out = 0;
  for (let s = 0; s < asked.length * 4; s += everyS) {
    const goal = asked[Math.floor(s / 4)]!;
    line += ((goal - line) * everyS) / 0.15;
    out += ((Math.max(0, line - 5) - out) * everyS) / 0.25;
    seconds.push(s);
    from.push(line + noise * draws.normal(2));
    to.push(out + noise * draws.normal(2));
  }
  const of = (psi: number[]): Trace => ({
    seconds: Float64Array.from(seconds),
    psi: Float64Array.from(psi),
  });
  return [of(from), of(to)];
}

describe('a curve out of two recorded lines', () => {
  it.each([
    ['fine', 0.02, 0.1],
    ['coarse', 0.1, 0.1],
  ])('%s: one point for each pressure that was held, where both stand still', (_, every, noise) => {
    const points = steadyPoints(...recorded(every, noise));
    expect(points.map(([psi]) => Math.round(psi / 5) * 5)).toEqual([0, 10, 20, 40, 60, 30, 0]);
    for (const [psi, out] of points) expect(Math.abs(out - Math.max(0, psi - 5))).toBeLessThan(0.5);
  });

  it('a line that never stands still, or is empty, gives none', () => {
    const seconds = Float64Array.from({ length: 200 }, (_, n) => n / 10);
    const moving: Trace = { seconds, psi: seconds.map((s) => 5 * s) };
    expect(steadyPoints(moving, moving)).toEqual([]);
    const none: Trace = { seconds: new Float64Array(0), psi: new Float64Array(0) };
    expect(steadyPoints(none, none)).toEqual([]);
    const gaps: Trace = { seconds, psi: new Float64Array(200).fill(NaN) };
    expect(steadyPoints(gaps, gaps)).toEqual([]);
  });

  it('gives none for a rest too short to have settled', () => {
    const seconds = Float64Array.from({ length: 400 }, (_, n) => n / 20);
    const rests = (s: number): Trace => ({
      seconds,
      psi: seconds.map((at) => 10 * Math.floor(at / s) + (at % s < 0.2 ? 5 : 0)),
    });
    expect(steadyPoints(rests(1), rests(1))).toEqual([]);
    expect(steadyPoints(rests(2), rests(2)).length).toBeGreaterThan(5);
  });

  it('keeps no more than a record takes', () => {
    const seconds = Float64Array.from({ length: 4_000 }, (_, n) => n / 10);
    const steps: Trace = { seconds, psi: seconds.map((s) => 2 * Math.floor(s / 3)) };
    const points = steadyPoints(steps, steps);
    expect(points.length).toBeGreaterThan(40);
    expect(points.length).toBeLessThanOrEqual(60);
  });
});
