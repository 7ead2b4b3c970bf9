import fc from 'fast-check';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import { unitOf } from '../../test/walk';
import { Twin } from '../twin';
import { effectsOf, type Fault } from './fault';
import { faultsOf } from './faultsOf';
import { twinWith } from './twinWith';

const rigs: Readonly<Record<string, RigUnderTest>> = {
  'a tractor and trailer': {
    unit: unitOf('tractor', '11'),
    towed: [unitOf('trailer', '22')],
  },
  'numbered ports': {
    unit: unitOf('tractor', '11', { ports: 'numbers' }),
    towed: [unitOf('trailer', '22', { ports: 'numbers' })],
  },
};

/** Small enough that what is left between two ways to solve the same rig is none of the solver's. */
const site = { tanksPsi: 100, tolerance: 0.1 };

/** Built up, released, and applied with the engine off. */
function live(twin: Twin): number[] {
  const seen: number[] = [];
  const read = (atS: number) => {
    twin.advanceTo(atS);
    for (const place of PLACES) seen.push(twin.psi(place));
  };
  twin.engine(1400);
  twin.dash('park valve', true);
  twin.dash('trailer supply valve', true);
  read(30);
  twin.engine(0);
  read(60);
  twin.ask('pedal', 90);
  read(65);
  twin.ask('pedal', 0);
  read(70);
  return seen;
}

const PLACES = [
  'supply tank',
  'primary tank',
  'secondary tank',
  '#1 tank',
  'spring line',
  'front left',
  'rear left',
  '#1 left',
];

const furthest = (some: readonly number[], others: readonly number[]) =>
  Math.max(...some.map((psi, i) => Math.abs(psi - others[i]!)));

describe('the faults of whatever a shop may have', () => {
  const kinds = ['truck', 'tractor', 'bus', 'trailer', 'dolly'] as const;
  const group = fc.record({
    type: fc.constantFrom('12' as const, '20' as const, '30' as const),
    count: fc.integer({ min: 1, max: 6 }),
    springBrake: fc.boolean(),
    loadSensing: fc.boolean(),
  });
  const made = fc.record({
    kind: fc.constantFrom(...kinds),
    chambers: fc.array(group, { minLength: 1, maxLength: 4 }),
    circuits: fc.constantFrom('dual' as const, 'single' as const),
    ports: fc.constantFrom('words' as const, 'numbers' as const),
    tows: fc.boolean(),
  });

  it('can each be set on it: none asks for a part that it does not have', () => {
    fc.assert(
      fc.property(made, ({ kind, tows, ...change }) => {
        const unit = unitOf(kind, '11', change);
        const rig = { unit, towed: tows ? [unitOf('trailer', '22', change)] : [] };
        const all = faultsOf(rig, -10);
        expect(all.length).toBeGreaterThan(5);
        for (const fault of all) {
          const twin = twinWith(rig, [[fault, 0.7]], { tanksPsi: 100 });
          twin.advanceTo(0.2);
          expect(twin.timeS).toBe(0.2);
        }
      }),
      { numRuns: 25 },
    );
  });
});

describe.each(Object.entries(rigs))('a twin with faults: %s', (_, rig) => {
  const apart = (fault: Fault) => {
    const twin = new Twin(rig, site);
    twin.apply(effectsOf(fault, 0.6));
    return twin;
  };

  it('reads the same whether or not both sides are told apart, as long as they are alike', () => {
    let merged = 0;
    for (const fault of faultsOf(rig, -10)) {
      const twin = twinWith(rig, [[fault, 0.6]], site);
      const isMerged = !twin.hasPlace('rear right');
      expect([fault.id, isMerged]).toEqual([fault.id, fault.oneSide !== true]);
      if (!isMerged) continue;
      merged += 1;
      expect([fault.id, furthest(live(twin), live(apart(fault))) < 0.02]).toEqual([fault.id, true]);
    }
    expect(merged).toBeGreaterThan(50);
  });

  it('tells sides apart where a fault is on one of them', () => {
    const seal = faultsOf(rig).find(({ id }) => id === 'centre seal: rear left')!;
    const other = faultsOf(rig).find(({ id }) => id === 'leak: primary tank')!;
    const twin = twinWith(rig, [
      [other, 0.2],
      [seal, 1],
    ]);
    expect(twin.hasPlace('rear right')).toBe(true);
    const plain = twinWith(rig, [[other, 0.2]]);
    expect(plain.hasPlace('rear right')).toBe(false);
    // The same seal on both sides passes more than on one: that is why it may not be merged.
    const both = new Twin(rig, { ...site, sides: 'alike' });
    both.apply(effectsOf(seal, 1));
    expect(furthest(live(both), live(apart(seal)))).toBeGreaterThan(3);
  });
});
