import { drawsOf } from '../twin/random';
import { brakeMoves, judgeMove, TIMING_MOST_S, type BrakeMove } from './brakeMoves';
import type { Trace } from './segments';

const TOP = 110;

/** A chamber by closed form: 110·(1 − e^(−t/τ)) from one second, and e^(−t/τ') from four; 0 before. */
function recorded(stepS: number, onTau: number, offTau: number, startS = 0): Trace {
  const seconds: number[] = [];
  const psi: number[] = [];
  for (let s = startS; s < 8; s += stepS) {
    const full = TOP * (1 - Math.exp(-3 / onTau));
    seconds.push(s);
    psi.push(
      s < 1
        ? 0
        : s < 4
          ? TOP * (1 - Math.exp(-(s - 1) / onTau))
          : full * Math.exp(-(s - 4) / offTau),
    );
  }
  return { seconds: Float64Array.from(seconds), psi: Float64Array.from(psi) };
}

const onS = (tau: number) => tau * Math.log((TOP - 1.5) / (TOP - 60));
const offS = (tau: number) => tau * Math.log(95 / 5);

describe('timing of a stamp on the pedal, against the closed form', () => {
  it('is the form’s own at a reading every 5 ms', () => {
    const [on, off] = brakeMoves(recorded(0.005, 0.3, 0.15));
    expect(on!.way).toBe('apply');
    expect(Math.abs(on!.seconds - onS(0.3))).toBeLessThan(0.005);
    expect(off!.way).toBe('release');
    expect(Math.abs(off!.seconds - offS(0.15))).toBeLessThan(0.005);
  });

  it('covers it in 95 of 100 whatever the readings are apart', () => {
    const { even } = drawsOf(3);
    for (const stepS of [0.005, 0.02, 0.05, 0.1]) {
      let covered = 0;
      const draws = 200;
      for (let n = 0; n < draws; n += 1) {
        const [onTau, offTau] = [0.15 + 0.4 * even(), 0.1 + 0.2 * even()];
        const [on, off] = brakeMoves(recorded(stepS, onTau, offTau, stepS * even()));
        const isIn = (move: BrakeMove | undefined, truth: number) =>
          move !== undefined && Math.abs(move.seconds - truth) <= 1.96 * move.deviation;
        covered += Number(isIn(on, onS(onTau)) && isIn(off, offS(offTau)));
      }
      expect(covered / draws).toBeGreaterThan(0.95);
    }
  });

  it('passes and fails where it is plain, and can’t tell where readings are too far apart', () => {
    const move = (seconds: number, deviation: number): BrakeMove => ({
      way: 'release',
      atS: 0,
      seconds,
      deviation,
      sampleS: 0.01,
    });
    const most = TIMING_MOST_S.truck.release;
    expect(judgeMove(move(0.4, 0.006), 'truck')).toBe('pass');
    expect(judgeMove(move(most + 0.1, 0.006), 'truck')).toBe('fail');
    expect(judgeMove(move(most - 0.02, 0.04), 'truck')).toBe('cant-tell');
    // The pedal's own move is not in the line: just within the limit is not enough.
    expect(judgeMove({ ...move(0.4, 0.006), way: 'apply' }, 'truck')).toBe('cant-tell');
    expect(judgeMove({ ...move(0.25, 0.006), way: 'apply' }, 'truck')).toBe('pass');
  });

  it('finds nothing in a slow press, in a tank, or between readings a second apart', () => {
    const slow: Trace = {
      seconds: Float64Array.from({ length: 400 }, (_, n) => n * 0.05),
      psi: Float64Array.from({ length: 400 }, (_, n) => Math.min(100, n * 0.25)),
    };
    expect(brakeMoves(slow)).toEqual([]);
    expect(brakeMoves(recorded(1, 0.3, 0.15))).toEqual([]);
    const tank = { ...slow, psi: slow.psi.map(() => 118) };
    expect(brakeMoves(tank)).toEqual([]);
  });
});

describe('how far apart readings are', () => {
  it('is by the wider gap at the two marks a stamp is timed between', () => {
    const fine = recorded(0.01, 0.3, 0.15);
    // Every other reading is lost from two seconds before the stamp is let go.
    const left = [...fine.seconds.keys()].filter((n) => fine.seconds[n]! < 4 || n % 4 === 0);
    const thinned = {
      seconds: Float64Array.from(left, (n) => fine.seconds[n]!),
      psi: Float64Array.from(left, (n) => fine.psi[n]!),
    };
    const [on, off] = brakeMoves(thinned);
    expect(on?.sampleS).toBeCloseTo(0.01, 6);
    expect(off?.sampleS).toBeCloseTo(0.04, 6);
  });
});
