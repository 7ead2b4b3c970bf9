import fc from 'fast-check';
import { Solver } from 'odex';
import { chokedEmptyingS } from '../../gas/emptying';
import { R_AIR } from '../../gas/orifice';
import { PA_PER_PSI } from '../network/pascal';
import { unitOf } from '../../test/walk';
import { AirRun } from './airRun';
import { AirSystem } from '../equations/airSystem';
import { flowAt, holeConductance, massFlowKgPerS, RHO_REFERENCE } from '../equations/flow';
import { NetworkBuilder, OUTSIDE, type TankWall } from '../network/network';
import { outsidePaAt } from '../equations/outside';
import { Rodas } from './rodas';
import { driveByTheBook } from '../routine/referenceRun';
import { luPattern, SparseLu } from '../algebra/sparseLu';
import type { CouplerState } from '../couplerState';
import { tankWall } from '../network/supplySide';
import { Twin } from '../twin';

const GAMMA = 1.4;
const pa = (psi: number) => psi * PA_PER_PSI;

/** Walls that keep air as warm as outside, and walls that take nothing from it. */
const BATH: TankWall = { film: 1e3, jPerK: 1e9, outsideWPerK: 0 };
const INSULATED: TankWall = { film: 0, jPerK: 1, outsideWPerK: 0 };

/** One tank with a hole of so many mm. */
function tankWithHole(litres: number, mm: number, psi: number, wall: TankWall) {
  const net = new NetworkBuilder();
  const tank = net.node('tank', litres, { wall });
  net.elements.push({
    id: 'hole',
    name: 'hole',
    does: 'line',
    valve: null,
    part: null,
    unit: 0,
    from: tank,
    to: OUTSIDE,
    conductance: holeConductance(mm),
    criticalRatio: 0.5,
    openings: [],
  });
  const system = new AirSystem(net.build());
  const run = new AirRun(
    system,
    system.atRest(() => pa(psi)),
    () => undefined,
  );
  return { system, run, psi: () => (run.state[0]! - system.outsidePa) / PA_PER_PSI };
}

describe('flow through a restriction', () => {
  it('is choked under the critical ratio, an ellipse over it, and nothing without a difference [std: ISO 6358-1, value from memory]', () => {
    const c = 5e-8;
    expect(massFlowKgPerS(9e5, 1e5, c, 0.3)).toBeCloseTo(c * RHO_REFERENCE * 9e5, 12);
    const ellipse = Math.sqrt(1 - ((0.8 - 0.3) / 0.7) ** 2);
    expect(massFlowKgPerS(9e5, 7.2e5, c, 0.3) / (c * RHO_REFERENCE * 9e5)).toBeCloseTo(ellipse, 2);
    expect(massFlowKgPerS(9e5, 9e5, c, 0.3)).toBe(0);
    expect(massFlowKgPerS(1e5, 9e5, c, 0.3)).toBeCloseTo(-massFlowKgPerS(9e5, 1e5, c, 0.3), 15);
  });

  it('has the slopes it says it has', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1.1e5, max: 1.2e6, noNaN: true }),
        fc.double({ min: 0.02, max: 0.98, noNaN: true }),
        (up, share) => {
          const down = up * share;
          fc.pre(Math.abs(share - 0.35) > 1e-3);
          const at = { value: 0, byUpstream: 0, byDownstream: 0 };
          const value = (a: number, b: number) => {
            flowAt(a, b, 0.35, 1 / 0.65, at);
            return at.value;
          };
          const d = 1;
          const byUp = (value(up + d, down) - value(up - d, down)) / (2 * d);
          const byDown = (value(up, down + d) - value(up, down - d)) / (2 * d);
          flowAt(up, down, 0.35, 1 / 0.65, at);
          expect(at.byUpstream).toBeCloseTo(byUp, 4);
          expect(at.byDownstream).toBeCloseTo(byDown, 4);
        },
      ),
    );
  });
});

describe('a tank that empties', () => {
  it('follows the closed form while its walls keep it as warm as outside', () => {
    const { run, psi } = tankWithHole(45, 1.5, 120, BATH);
    const closed = chokedEmptyingS(45, 1.5, 120, 60) ?? NaN;
    run.advanceTo(closed);
    // The reference temperatures and the atmosphere of the two are a little apart.
    expect(psi()).toBeGreaterThan(59.3);
    expect(psi()).toBeLessThan(60.7);
  });

  it('cools as an insulated one must: T₂ = T₁·(p₂/p₁)^((γ−1)/γ)', () => {
    const { run, system } = tankWithHole(45, 3, 120, INSULATED);
    const p1 = run.state[0]!;
    run.advanceTo(30);
    const p2 = run.state[0]!;
    expect(p2).toBeLessThan(0.7 * p1);
    const expected = system.outsideK * (p2 / p1) ** ((GAMMA - 1) / GAMMA);
    expect(system.temperatureAt(0, run.state)).toBeCloseTo(expected, 0);
  });
});

describe('a tank that is filled', () => {
  it('warms as an insulated one must: T₂ = γT₀ ÷ (1 + (p₁/p₂)(γ − 1))', () => {
    const net = new NetworkBuilder();
    const tank = net.node('tank', 40, { wall: INSULATED });
    const shop = net.node('shop', 1e6);
    net.way('hose', shop, tank, 3);
    const system = new AirSystem(net.build());
    const start = system.atRest(({ id }) => (id === 'shop' ? pa(120) : pa(20)));
    const p1 = start[0]!;
    const run = new AirRun(system, start, () => undefined);
    run.advanceTo(60);
    const p2 = run.state[0]!;
    const expected = (GAMMA * system.outsideK) / (1 + (p1 / p2) * (GAMMA - 1));
    expect(system.temperatureAt(0, run.state)).toBeCloseTo(expected, 0);
  });

  it('comes level with another at what both hold together', () => {
    const net = new NetworkBuilder();
    const one = net.node('one', 30);
    const other = net.node('other', 60);
    net.way('line', one, other, 4);
    const system = new AirSystem(net.build());
    const run = new AirRun(
      system,
      system.atRest(({ id }) => (id === 'one' ? pa(120) : pa(0))),
      () => undefined,
    );
    const before = system.massKg(run.state);
    run.advanceTo(120);
    for (const i of [0, 1]) {
      expect((run.state[i]! - system.outsidePa) / PA_PER_PSI).toBeCloseTo(40, 1);
    }
    expect(system.massKg(run.state)).toBeCloseTo(before, 6);
  });
});

describe('the solver', () => {
  /** Two tanks, a check, a chamber and a leak: nothing stiff, so that any solver can follow. */
  function lab() {
    const net = new NetworkBuilder();
    const a = net.node('a', 20, { wall: tankWall(20) });
    const b = net.node('b', 15, { wall: tankWall(15) });
    const chamber = net.node('chamber', 0.6, {
      strokeM3: 1.2e-3,
      strokeFromPa: pa(3),
      strokeToPa: pa(16),
    });
    net.check('check', a, b, 0.5);
    net.way('hose', b, chamber, 0.4);
    const system = new AirSystem(net.build());
    system.leak[b] = 2e-9;
    return {
      system,
      start: system.atRest(({ id }) => (id === 'a' ? pa(120) : id === 'b' ? pa(40) : 0)),
    };
  }

  it('agrees with a general-purpose solver on the same equations', () => {
    const { system, start } = lab();
    const solver = new Solver(system.size);
    solver.absoluteTolerance = 1e-3;
    solver.relativeTolerance = 1e-9;
    const rates = new Float64Array(system.size);
    const reference = solver.solve(
      (_t: number, y: number[]) => {
        system.rates(Float64Array.from(y), rates);
        return [...rates];
      },
      0,
      Array.from(start),
      20,
    ).y;
    const run = new AirRun(system, start, () => undefined);
    run.advanceTo(20);
    for (let i = 0; i < 3; i += 1) {
      expect(Math.abs(run.state[i]! - reference[i]!) / PA_PER_PSI).toBeLessThan(0.02);
    }
  });

  it('is of order 3: half the step leaves an eighth of the error', () => {
    const { system, start } = lab();
    const settle = new AirRun(system, start, () => undefined, { tolerance: 1e-3 });
    settle.advanceTo(3);
    const from = Float64Array.from(settle.state);
    const after = (steps: number) => {
      const rodas = new Rodas(system, new Float64Array(system.size).fill(1));
      let state = Float64Array.from(from);
      const rates = new Float64Array(system.size);
      for (let n = 0; n < steps; n += 1) {
        rodas.start(state, rates);
        rodas.attempt(state, rates, 4 / steps);
        state = Float64Array.from(rodas.next);
      }
      return state[1]!;
    };
    const exact = after(1024);
    const ratio = Math.abs(after(8) - exact) / Math.abs(after(16) - exact);
    expect(ratio).toBeGreaterThan(5);
    expect(ratio).toBeLessThan(13);
  });

  it('solves what it factorised, whatever the pattern', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 12 }).chain((n) =>
          fc.tuple(
            fc.constant(n),
            fc.array(fc.double({ min: -1, max: 1, noNaN: true }), {
              minLength: n * n,
              maxLength: n * n,
            }),
            fc.array(fc.boolean(), { minLength: n * n, maxLength: n * n }),
            fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: n, maxLength: n }),
          ),
        ),
        ([n, values, there, x]) => {
          const pattern = there.map((is, k) => is || k % (n + 1) === 0);
          const matrix = Float64Array.from(values, (value, k) =>
            k % (n + 1) === 0 ? n + 1 + value : pattern[k] ? value : 0,
          );
          const lu = new SparseLu(luPattern(n, pattern));
          const packed = new Float64Array(lu.slots + 1);
          matrix.forEach((value, k) => {
            if (pattern[k]) packed[lu.slotOf(Math.floor(k / n), k % n)] = value;
          });
          const b = Float64Array.from({ length: n }, (_, i) =>
            x.reduce((sum, each, j) => sum + matrix[i * n + j]! * each, 0),
          );
          const factors = lu.newFactors();
          lu.factorise(packed, factors);
          lu.solve(factors, b);
          x.forEach((each, i) => expect(b[i]).toBeCloseTo(each, 8));
        },
      ),
    );
  });

  it.each([
    ['in a laboratory', () => lab(), 0.4],
    ['on a rig that is built up', () => onARig(140), 0],
    ['on a rig as its brakes are applied', () => onARig(606.12), 0],
    ['on a rig as its brakes are let go', () => onARig(608.12), 0],
    ['on a rig with crossed couplers', () => onARig(606.12, 'crossed'), 0],
  ])('knows its own derivatives %s', (_, made, afterS) => {
    const { system, start } = made();
    const run = new AirRun(system, start, () => undefined);
    run.advanceTo(afterS);
    // Off any rest: where two places are level, what flows turns round, and a slope has two values.
    const state = run.state.map((value, i) => value * (1 + 1e-4 * Math.sin(7 * i)));
    const { size, lu, nodeCount } = system;
    const jacobian = new Float64Array(lu.slots + 1);
    const rates = new Float64Array(size);
    const plain = new Float64Array(size);
    system.rates(state, plain);
    system.linearise(state, rates, jacobian);
    const at = (i: number, j: number) => {
      const slot = lu.slotOf(i, j);
      return slot === lu.slots ? 0 : jacobian[slot]!;
    };
    const isHeat = (i: number) => i >= nodeCount + system.asked.length;
    const walls = (size - nodeCount - system.asked.length) / 2;
    const isWall = (i: number) => i >= size - walls;
    const up = new Float64Array(size);
    const down = new Float64Array(size);
    for (let j = 0; j < size; j += 1) {
      const d = isHeat(j) ? 1e-3 : 1;
      const moved = (by: number) => state.map((value, i) => (i === j ? value + by : value));
      system.rates(moved(d), up);
      system.rates(moved(-d), down);
      for (let i = 0; i < size; i += 1) {
        expect(rates[i]).toBeCloseTo(plain[i]!, 6);
        // What warms a wall is left out of the derivatives on purpose, all but its own.
        if (isWall(i) && i !== j) continue;
        const numeric = (up[i]! - down[i]!) / (2 * d);
        const turned = isHeat(i) === isHeat(j) ? 1 : 1e3;
        const scale = Math.max(Math.abs(at(i, i)), Math.abs(numeric)) * turned;
        expect(Math.abs(numeric - at(i, j))).toBeLessThan(2e-3 * scale + 1e-6);
      }
    }
  });
});

/** A tractor and trailer at a moment of a run by the book, with one tank leaking. */
function onARig(atS: number, how: CouplerState = 'right') {
  const rig = {
    unit: unitOf('tractor', '11'),
    towed: [unitOf('trailer', '22')],
  };
  const twin = new Twin(rig, { tanksPsi: 60 });
  twin.leak('secondary tank', 1e-10);
  twin.leak('trailer supply line', 1e-10);
  driveByTheBook(twin, atS);
  if (how !== 'right') twin.couple(1, how);
  return { system: twin.system, start: Float64Array.from(twin.run.state) };
}

describe('outside air', () => {
  it('is 101.3 kPa at the sea and 79.5 kPa at 2,000 m [std: ISO 2533, value from memory]', () => {
    expect(outsidePaAt(0)).toBe(101_325);
    expect(outsidePaAt(2000) / 1000).toBeCloseTo(79.5, 1);
  });

  it('is what a kilogram of air at rest weighs in: p·V = m·R·T', () => {
    const net = new NetworkBuilder();
    net.node('box', 1000);
    const system = new AirSystem(net.build());
    expect(system.massKg(system.atRest(() => 0))).toBeCloseTo(101_325 / (R_AIR * 293.15), 9);
  });
});
