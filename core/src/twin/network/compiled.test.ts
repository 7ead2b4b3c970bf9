import type { LineRecord, PartRecord } from '@keen-bleed/contract';
import { unitOf } from '../../test/walk';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import { faultsOf } from '../faults/faultsOf';
import { spreadOf } from '../spread/spreadOf';
import { Twin } from '../twin';
import usualLayouts from './golden/usualLayouts.json';

interface Golden {
  rigs: Readonly<Record<string, RigUnderTest>>;
  readings: Readonly<Record<string, readonly Readonly<Record<string, number>>[]>>;
}

/** Readings of the twins of 0.4.0, whose networks were made by kind: our own code, so it proves the compiling alone. */
const golden = usualLayouts as unknown as Golden;

/** The same hands on every rig: build up, apply, park, drain, and part the couplers. */
function handled(rig: RigUnderTest): Record<string, number>[] {
  const twin = new Twin(rig, { tanksPsi: 95, load: 0.5 });
  const seen: Record<string, number>[] = [];
  const to = (atS: number) => {
    twin.advanceTo(atS);
    seen.push(Object.fromEntries(twin.system.network.nodes.map(({ id }) => [id, twin.psi(id)])));
  };
  if (twin.hasWay('shop valve')) twin.open('shop valve', 1);
  twin.engine(1400);
  twin.dash('park valve', true);
  to(4);
  twin.dash('trailer supply valve', true);
  to(60);
  to(150);
  twin.engine(0);
  twin.ask('pedal', 30);
  twin.ask('hand valve', 30);
  to(150.4);
  to(155);
  twin.ask('pedal', 90);
  to(160);
  twin.ask('pedal', 0);
  twin.ask('hand valve', 0);
  to(160.5);
  to(166);
  twin.dash('park valve', false);
  to(168);
  twin.dash('park valve', true);
  to(174);
  twin.open(twin.hasWay('primary drain') ? 'primary drain' : '#0 drain', 1);
  twin.ask('pedal', 40);
  to(190);
  twin.ask('pedal', 0);
  to(195);
  const [towed] = twin.towedUnits;
  if (towed !== undefined) {
    twin.couple(towed, 'apart');
    to(205);
  }
  return seen;
}

const truck = unitOf('truck', '10');
const rigWith = (change: { parts?: PartRecord[]; lines?: LineRecord[] }): RigUnderTest => ({
  unit: { ...truck, ...change },
  towed: [],
});
const part = (partId: string, change: Partial<PartRecord> = {}): PartRecord => ({
  partId,
  standing: 'fitted',
  foundAtMs: 1,
  ...change,
});

describe('a network compiled from parts and lines', () => {
  it.each(Object.keys(golden.rigs))('reads as the twin of its kind did: %s', (name) => {
    const readings = handled(golden.rigs[name]!);
    const before = golden.readings[name]!;
    expect(readings).toHaveLength(before.length);
    readings.forEach((seen, n) => {
      expect(Object.keys(seen).sort()).toEqual(Object.keys(before[n]!).sort());
      for (const [place, psi] of Object.entries(seen)) {
        expect(Math.abs(psi - before[n]![place]!)).toBeLessThanOrEqual(0.05);
      }
    });
  });

  it('has no air, no way and no fault of what is not fitted', () => {
    const rig = rigWith({
      parts: [
        part('safety-valve', { standing: 'not-fitted' }),
        part('dryer', { standing: 'not-fitted' }),
      ],
    });
    const twin = new Twin(rig);
    expect(
      twin.hasWay('safety valve') || twin.hasPlace('dryer') || twin.hasWay('purge valve'),
    ).toBe(false);
    const titles = faultsOf(rig).map(({ part: of }) => of);
    expect(titles.filter((of) => /safety|dryer/.test(of))).toEqual([]);
    expect(titles).toContain('foot valve');
    twin.engine(1400);
    twin.advanceTo(200);
    expect(twin.psi('primary tank')).toBeGreaterThan(100);
  });

  it('is slower at the rear without its relay, as a long line from the pedal is', () => {
    const lag = (rig: RigUnderTest) => {
      const twin = new Twin(rig, { tanksPsi: 120 });
      twin.dash('park valve', true);
      twin.advanceTo(10);
      twin.ask('pedal', 90);
      for (let n = 1; n < 400; n += 1) {
        twin.advanceTo(10 + n / 100);
        if (twin.psi('rear left') > 60) return n / 100;
      }
      return Infinity;
    };
    const relay = lag(rigWith({}));
    const none = lag(rigWith({ parts: [part('rear-relay', { standing: 'not-fitted' })] }));
    expect(none).toBeGreaterThan(1.3 * relay);
  });

  it('opens a relay at the crack pressure that was read off it', () => {
    const delivered = (setPsi: number) => {
      const twin = new Twin(rigWith({ parts: [part('rear-relay', { setPsi })] }), {
        tanksPsi: 120,
      });
      twin.ask('pedal', 8);
      twin.advanceTo(5);
      return twin.psi('rear delivery');
    };
    expect(delivered(4)).toBeGreaterThan(5);
    expect(delivered(10)).toBeLessThan(0.5);
  });

  it('behaves wrongly with its lines on wrong ports: supply and control of the relay swapped, the rear brakes all the time', () => {
    const swapped = rigWith({
      lines: [
        {
          lineId: 'rear-relay.supply',
          standing: 'fitted',
          to: { partId: 'rear-relay', port: 'control' },
          foundAtMs: 1,
        },
        {
          lineId: 'rear-relay.control',
          standing: 'fitted',
          to: { partId: 'rear-relay', port: 'supply' },
          foundAtMs: 1,
        },
      ],
    });
    const twin = new Twin(swapped, { tanksPsi: 100 });
    twin.advanceTo(20);
    // The tank's pressure asks, and only what the pedal gives can answer: nothing, until it is pressed.
    expect(twin.psi('rear delivery')).toBeLessThan(2);
    twin.ask('pedal', 3);
    twin.advanceTo(40);
    // A sound relay passes nothing under its crack pressure.
    expect(twin.psi('rear delivery')).toBeGreaterThan(2);
    // Springs fed from the service side of the foot valve are on while nobody brakes.
    const springs = rigWith({
      lines: [
        {
          lineId: 'park-control.supply',
          standing: 'fitted',
          from: { partId: 'foot-valve', port: 'delivery-1.4' },
          foundAtMs: 1,
        },
      ],
    });
    const parked = new Twin(springs, { tanksPsi: 110 });
    parked.dash('park valve', true);
    parked.advanceTo(20);
    expect(parked.psi('spring line')).toBeLessThan(5);
  });

  it('joins what a wrong line joins, under the names of both', () => {
    const joined = new Twin(
      rigWith({
        lines: [
          {
            lineId: 'line-one',
            standing: 'fitted',
            from: { partId: 'foot-valve', port: 'delivery-1.4' },
            to: { partId: 'foot-valve', port: 'delivery-2.5' },
            foundAtMs: 1,
          },
        ],
      }),
      { tanksPsi: 100 },
    );
    joined.ask('pedal', 40);
    joined.advanceTo(10);
    expect(joined.psi('rear signal')).toBe(joined.psi('front signal'));
    expect(joined.psi('rear signal')).toBeGreaterThan(30);
  });

  it('is worth less to whoever reads it where a part is not known', () => {
    const width = (rig: RigUnderTest, id: string) => {
      const nuisance = spreadOf(rig).find((each) => each.id === id);
      const [does] = nuisance?.does ?? [];
      return does?.does === 'set' && typeof does.lowBy === 'object'
        ? does.lowBy.to - does.lowBy.from
        : NaN;
    };
    const id = 'pop-out: park valve';
    const usual = width(rigWith({}), id);
    const unknown = width(
      rigWith({ parts: [part('park-control', { standing: 'not-known' })] }),
      id,
    );
    const readOff = width(rigWith({ parts: [part('park-control', { setPsi: 36 })] }), id);
    expect(unknown).toBeGreaterThan(2 * usual);
    expect(readOff).toBeLessThan(usual);
  });

  it('gives accessories air behind their take-off, and keeps the brakes theirs', () => {
    const rig = rigWith({ parts: [part('suspension'), part('tyre-inflation')] });
    const twin = new Twin(rig, { tanksPsi: 110 });
    twin.advanceTo(120);
    expect(twin.psi('suspension')).toBeGreaterThan(40);
    twin.leak('suspension', 3e-8);
    twin.advanceTo(600);
    expect(twin.psi('secondary tank')).toBeGreaterThan(50);
    expect(twin.psi('suspension')).toBeLessThan(15);
  });
});
