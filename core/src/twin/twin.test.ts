import fc from 'fast-check';
import { semi, truck } from '../test/rigsInAir';
import { OUTSIDE } from './network/network';
import { driveByTheBook } from './routine/referenceRun';
import { Twin } from './twin';

describe('a whole run by the book', () => {
  const twin = new Twin(semi, { tanksPsi: 60 });
  driveByTheBook(twin, 720);
  const first = (name: string, high: boolean) =>
    twin.events.find((event) => event.name === name && event.high === high && event.atS > 605);

  it('warns, then pops the trailer supply out, then the parking brakes', () => {
    const at = (name: string) => first(name, false)?.atS ?? NaN;
    expect(at('primary warning')).toBeLessThan(at('trailer supply valve'));
    expect(at('trailer supply valve')).toBeLessThanOrEqual(at('park valve'));
  });

  it.each([
    ['primary warning', 55, 75, 'primary tank'],
    ['secondary warning', 55, 75, 'secondary tank'],
    ['trailer supply valve', 20, 45, 'primary tank'],
    ['park valve', 20, 45, 'primary tank'],
  ])(
    '%s comes between %d and %d psi [trade; std: 49 CFR 393.51 for the warning, value from memory]',
    (name, least, most, tank) => {
      const again = new Twin(semi, { tanksPsi: 60 });
      driveByTheBook(again, first(name, false)?.atS ?? NaN);
      // A knob feels the higher tank, a lamp its own.
      const felt = name.endsWith('valve')
        ? Math.max(again.psi(tank), again.psi('secondary tank'))
        : again.psi(tank);
      expect(felt).toBeGreaterThan(least);
      expect(felt).toBeLessThan(most);
    },
  );

  it('comes out the same every time', () => {
    const again = new Twin(semi, { tanksPsi: 60 });
    driveByTheBook(again, 720);
    expect(again.events).toEqual(twin.events);
    expect(again.run.state).toEqual(twin.run.state);
  });
});

/** What a driver may do, in any order of sizes. */
const moves = fc.record({
  psi: fc.integer({ min: 20, max: 130 }),
  pedal: fc.integer({ min: 0, max: 130 }),
  park: fc.boolean(),
  supply: fc.boolean(),
  atS: fc.double({ min: 0.01, max: 12, noNaN: true }),
});

describe('whatever is done', () => {
  it('nothing flows uphill', () => {
    fc.assert(
      fc.property(moves, ({ psi, pedal, park, supply, atS }) => {
        const twin = new Twin(semi, { tanksPsi: psi });
        twin.engine(1400);
        twin.dash('park valve', park);
        twin.advanceTo(2);
        twin.dash('trailer supply valve', supply);
        twin.advanceTo(5);
        twin.ask('pedal', pedal);
        twin.advanceTo(5 + atS);
        const { nodes, elements } = twin.system.network;
        const gauge = (node: number) => (node === OUTSIDE ? 0 : twin.psi(nodes[node]!.id));
        for (const { id, from, to } of elements) {
          const flow = twin.flowKgPerS(id);
          if (flow !== 0) {
            expect([id, Math.sign(flow)]).toEqual([id, Math.sign(gauge(from) - gauge(to))]);
          }
        }
      }),
      { numRuns: 40 },
    );
  });

  it('air that is shut in stays: filled from one tank to another, none is lost', () => {
    fc.assert(
      fc.property(fc.integer({ min: 60, max: 130 }), (psi) => {
        const twin = new Twin(semi, { tanksPsi: psi });
        // Shut in: nothing lets air out but what is asked for, and nothing is.
        for (const { id, to } of twin.system.network.elements) {
          if (to === OUTSIDE) twin.block(id, 0);
        }
        const before = twin.system.massKg(twin.run.state);
        twin.dash('park valve', true);
        twin.dash('trailer supply valve', true);
        twin.advanceTo(60);
        expect(twin.psi('#1 left spring')).toBeGreaterThan(30);
        expect(Math.abs(twin.system.massKg(twin.run.state) / before - 1)).toBeLessThan(5e-4);
      }),
      { numRuns: 10 },
    );
  });

  /** Where a leak's air comes from, which a leak can only lower. */
  const tankBehind: Readonly<Record<string, string>> = {
    'primary tank': 'primary tank',
    'rear left': 'primary tank',
    'front left': 'secondary tank',
    'governor line': 'supply tank',
    'spring line': 'supply tank',
  };
  it('no air is made, no pressure is under nothing, and a leak lowers the tank behind it', () => {
    fc.assert(
      fc.property(
        fc.record({
          psi: fc.integer({ min: 30, max: 130 }),
          pedal: fc.integer({ min: 0, max: 130 }),
          park: fc.boolean(),
          leak: fc.constantFrom(...Object.keys(tankBehind)),
          size: fc.double({ min: 1e-11, max: 3e-9, noNaN: true }),
        }),
        ({ psi, pedal, park, leak, size }) => {
          const go = (leaking: boolean) => {
            const twin = new Twin(truck, { tanksPsi: psi });
            if (leaking) twin.leak(leak, size);
            const masses = [twin.system.massKg(twin.run.state)];
            const note = (toS: number) => {
              twin.advanceTo(toS);
              masses.push(twin.system.massKg(twin.run.state));
              for (const { id } of twin.system.network.nodes) {
                expect(twin.psi(id)).toBeGreaterThan(-0.5);
              }
            };
            twin.dash('park valve', park);
            note(4);
            twin.ask('pedal', pedal);
            note(6);
            twin.ask('pedal', 0);
            note(10);
            note(40);
            return { twin, masses };
          };
          const sound = go(false);
          const leaking = go(true);
          sound.masses.forEach((mass, i) => {
            // The engine stands: air only goes. A part in two thousand is the solver's.
            if (i > 0) expect(mass).toBeLessThan(sound.masses[i - 1]! * 1.0005);
          });
          // The other tanks may stand higher with it: where less air reaches the springs, they give less.
          const tank = tankBehind[leak]!;
          expect(leaking.twin.psi(tank)).toBeLessThan(sound.twin.psi(tank) + 0.05);
        },
      ),
      {
        numRuns: 25,
        // Once taken for a fault: the secondary tank stood 0.4 to 1.2 psi higher with a leak in the other circuit.
        examples: [
          [{ psi: 54, pedal: 71, park: false, leak: 'primary tank', size: 2.9999999999999983e-9 }],
          [{ psi: 51, pedal: 126, park: false, leak: 'rear left', size: 2.999999999999999e-9 }],
          [{ psi: 130, pedal: 107, park: true, leak: 'rear left', size: 2.9999999999999934e-9 }],
        ],
      },
    );
  });
});
