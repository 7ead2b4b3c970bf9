import fc from 'fast-check';
import type { LuPattern } from './algebra/sparseLu';
import { released, semi, truck } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { airTables } from './equations/airTables';
import { knownPatterns, learnPatterns } from './equations/knownPatterns';
import { effectsOf } from './faults/fault';
import { faultsOf } from './faults/faultsOf';
import { airOf } from './network/airOf';
import { Twin } from './twin';

describe('faults and repairs', () => {
  it('add to what is there: two holes lose what both lose', () => {
    const lost = (holes: readonly number[]) => {
      const twin = released(truck);
      for (const each of holes) twin.leak('primary tank', each);
      twin.advanceTo(31);
      return twin.system.leak.reduce((sum, each) => sum + each, 0);
    };
    expect(lost([1e-9, 2e-9])).toBeCloseTo(3e-9, 18);
    const twin = released(truck);
    twin.holdOpen('primary drain', 0.1);
    twin.holdOpen('primary drain', 0.2);
    twin.advanceTo(31);
    expect(twin.openOf('primary drain')).toBeCloseTo(0.3, 12);
    twin.block('discharge', 0.5);
    twin.block('discharge', 0.5);
    expect(twin.openOf('discharge')).toBeCloseTo(0.25, 12);
  });

  it('are data: what goes through a message to another thread does the same', () => {
    for (const fault of faultsOf(semi, -10)) {
      const sent = JSON.parse(JSON.stringify(fault)) as typeof fault;
      expect(sent).toEqual(fault);
      expect(effectsOf(sent, 0.4)).toEqual(effectsOf(fault, 0.4));
      expect(fault.prior).toBeGreaterThan(0);
      expect(fault.does.length).toBeGreaterThan(0);
    }
  });

  it('say which part there is not', () => {
    expect(() => new Twin(truck).leak('third tank', 1e-9)).toThrow('This rig has no third tank');
    expect(() => new Twin(truck).setPoints('trailer supply valve', {})).toThrow('This rig has no');
  });
});

describe('time', () => {
  it('does not run backwards', () => {
    const twin = released(truck);
    expect(() => twin.advanceTo(29)).toThrow(RangeError);
    expect(() => twin.advanceTo(NaN)).toThrow(RangeError);
    twin.advanceTo(30);
    expect(twin.timeS).toBe(30);
  });

  it('can be gone back in by a saved moment, and runs on from there as if nothing had been', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.01, max: 8, noNaN: true }),
        fc.constantFrom(0, 5, 40, 150),
        fc.constantFrom(...faultsOf(semi)),
        fc.boolean(),
        (afterS, psi, fault, other) => {
          const twin = released(semi);
          twin.ask('pedal', psi);
          twin.engine(1400);
          twin.advanceTo(30 + afterS);
          const moment = twin.save();
          const on = (each: Twin) => {
            each.ask('pedal', 0);
            each.advanceTo(45);
            return [Array.from(each.run.state), each.events.slice(), each.wear];
          };
          // What goes on differently leaves no trace.
          twin.apply(effectsOf(fault, 0.7));
          twin.engine(0);
          twin.advanceTo(50);
          twin.restore(moment);
          expect(twin.timeS).toBe(30 + afterS);
          const again = other ? new Twin(semi) : twin;
          again.restore(moment);
          const straight = released(semi);
          straight.ask('pedal', psi);
          straight.engine(1400);
          straight.advanceTo(30 + afterS);
          expect(on(again)).toEqual(on(straight));
        },
      ),
      { numRuns: 25 },
    );
  });

  it('takes what foot and hand ask for back with it, though nothing else was changed since', () => {
    const twin = released(semi);
    const moment = twin.save();
    twin.ask('pedal', 60);
    twin.ask('hand valve', 40);
    twin.advanceTo(35);
    expect(twin.psi('rear left')).toBeGreaterThan(50);
    twin.restore(moment);
    twin.advanceTo(40);
    expect(twin.psi('rear left')).toBeLessThan(1);
    expect(twin.psi('#1 left')).toBeLessThan(1);
  });

  it('is not gone back in to another rig’s moment', () => {
    const moment = released(truck).save();
    expect(() => new Twin(semi).restore(moment)).toThrow('plumbed otherwise');
  });

  it('asks for flows once: the same moment is not solved again for each valve', () => {
    const twin = released(semi);
    void twin.flowKgPerS('discharge');
    const before = twin.system.evaluations;
    for (const { id } of twin.system.network.elements) {
      void twin.flowKgPerS(id);
      void twin.openOf(id);
    }
    expect(twin.system.evaluations).toBe(before);
    twin.advanceTo(31);
    void twin.openOf('discharge');
    expect(twin.system.evaluations).toBeGreaterThan(before);
  });
});

/** A copy of what is in a pattern, as a message to another thread makes one. */
const copied = (pattern: LuPattern): LuPattern =>
  Object.fromEntries(
    Object.entries(pattern).map(([key, value]) => [
      key,
      typeof value === 'number' ? value : Int32Array.from(value as Int32Array),
    ]),
  ) as unknown as LuPattern;

describe('patterns', () => {
  it('are those of a structure: rigs of other sizes share them, and another thread can be told them', () => {
    const rig = { unit: unitOf('bus', '61'), towed: [] };
    const larger = {
      unit: unitOf('bus', '62', {
        tanks: [
          { role: 'supply', volumeIn3: 2000 },
          { role: 'primary', volumeIn3: 3000 },
          { role: 'secondary', volumeIn3: 3000 },
        ],
      }),
      towed: [],
    };
    void airTables(airOf(rig), 'sound');
    const known = knownPatterns();
    void airTables(airOf(larger), 'sound');
    expect(knownPatterns().length).toBe(known.length);
    learnPatterns(known.map(([structure, pattern]) => [structure, copied(pattern)]));
    expect(knownPatterns().length).toBe(known.length);
    const twin = new Twin({ unit: { ...larger.unit }, towed: [] }, { tanksPsi: 100 });
    twin.ask('pedal', 60);
    twin.advanceTo(5);
    expect(twin.psi('rear left')).toBeCloseTo(60, 0);
  });
});
