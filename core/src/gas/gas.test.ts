import { forceLbf, pistonAreaIn2 } from './force';
import { freeAirScfm } from './freeAir';
import { chokedEmptyingS } from './emptying';
import {
  CRITICAL_RATIO,
  equivalentHoleMm,
  holeFlowScfm,
  holeMassFlowKgPerS,
  R_AIR,
} from './orifice';
import { Solver } from 'odex';

describe('force of air on a piston', () => {
  // Common practice in the trade: a 4 in piston, worked in every air brake course. No source to name.
  it('holds 314 lb at 25 psi and 1,130 lb at 90 psi on a 4 in piston', () => {
    expect(forceLbf(25, pistonAreaIn2(4))).toBeCloseTo(314, 0);
    expect(forceLbf(90, pistonAreaIn2(4))).toBeCloseTo(1131, 0);
  });

  it('gives 1,800 lbf for a type 30 chamber at 60 psi, about the 800 kgf of a parking spring', () => {
    expect(forceLbf(60, 30)).toBe(1800);
    expect(forceLbf(60, 30) / 2.20462).toBeGreaterThan(780);
    expect(forceLbf(60, 30) / 2.20462).toBeLessThan(830);
  });
});

describe('free air from a falling tank', () => {
  it('is 0.53 scfm for 4,500 in³ losing 3 psi a minute', () => {
    // By hand: 4500/1728 = 2.604 ft³; 2.604 × 3 ÷ 14.7 = 0.5315.
    expect(freeAirScfm(4500, 3)).toBeCloseTo(0.5315, 3);
  });

  it('keeps the sign of the rate', () => {
    expect(freeAirScfm(4500, -3)).toBeCloseTo(-0.5315, 3);
  });
});

describe('flow through a hole', () => {
  it('chokes at 0.528, the textbook ratio for air', () => {
    expect(CRITICAL_RATIO).toBeCloseTo(0.5283, 4);
  });

  it('passes about 2.4 scfm through 1 mm at 120 psi', () => {
    expect(holeFlowScfm(1, 120)).toBeGreaterThan(2.3);
    expect(holeFlowScfm(1, 120)).toBeLessThan(2.6);
  });

  it('agrees with the choked-flow factor of 0.0404 kg·√K/(s·N) per unit area', () => {
    // Gas-dynamics tables give ṁ√T/(p·A) = 0.04042 for air [std: NACA Report 1135, value from memory].
    const flow = holeMassFlowKgPerS(1e6, 1e5, 1e-6, 300, 1);
    expect((flow * Math.sqrt(300)) / (1e6 * 1e-6)).toBeCloseTo(0.04042, 4);
  });

  it('follows Bernoulli where the drop is small', () => {
    // Incompressible limit: ṁ = A·√(2ρΔp).
    const upstream = 101_325;
    const drop = 100;
    const density = upstream / (R_AIR * 293.15);
    const expected = 1e-6 * Math.sqrt(2 * density * drop);
    expect(holeMassFlowKgPerS(upstream, upstream - drop, 1e-6, 293.15, 1) / expected).toBeCloseTo(
      1,
      2,
    );
  });

  it('passes nothing uphill', () => {
    expect(holeMassFlowKgPerS(1e5, 2e5, 1e-6)).toBe(0);
    expect(holeFlowScfm(1, 0)).toBe(0);
  });

  it('finds the hole it was given back', () => {
    for (const mm of [0.2, 0.7, 1, 2.5]) {
      expect(equivalentHoleMm(holeFlowScfm(mm, 110), 110)).toBeCloseTo(mm, 9);
    }
  });
});

describe('emptying a tank through a choked hole', () => {
  it('takes 45 L about 3½ min from 120 to 60 psi through 1 mm', () => {
    const seconds = chokedEmptyingS(45, 1, 120, 60) ?? NaN;
    expect(seconds / 60).toBeGreaterThan(3.2);
    expect(seconds / 60).toBeLessThan(3.8);
  });

  it('agrees with a general-purpose ODE solver on the same equation', () => {
    const volumeM3 = 0.045;
    const areaM2 = (Math.PI / 4) * 0.0015 ** 2;
    const psia = (psi: number) => (psi + 14.7) * 6894.757;
    const solver = new Solver(1);
    solver.relativeTolerance = 1e-9;
    const closed = chokedEmptyingS(45, 1.5, 125, 40) ?? NaN;
    const outflow = (p: number) => holeMassFlowKgPerS(p, 14.7 * 6894.757, areaM2);
    const found = solver.solve(
      (_t, [p = 0]) => [(-outflow(p) * R_AIR * 293.15) / volumeM3],
      0,
      [psia(125)],
      closed,
    );
    const [atEnd = 0] = found.y;
    expect(atEnd / psia(40)).toBeCloseTo(1, 6);
  });

  it('declines where the hole would stop being choked', () => {
    expect(chokedEmptyingS(45, 1, 60, 10)).toBeNull();
  });

  it('is nearly the straight-line leak while the fall is small', () => {
    // From 120 to 119 psi the rate is as good as constant, so the simple arithmetic must agree.
    const seconds = chokedEmptyingS(45, 0.5, 120, 119) ?? NaN;
    const scfm = freeAirScfm(45 / 0.016387064, 60 / seconds);
    expect(scfm / holeFlowScfm(0.5, 119.5)).toBeCloseTo(1, 2);
  });
});
