import { newUnitDraft, usualGauge } from '../rig/newUnit';
import type { RigUnderTest } from '../rig/rigUnderTest';
import { testUnit } from '../test/walk';
import { faultsOf } from './faults';
import { needlePsi, readOff, usualSeenGauge } from './seenGauge';
import { Twin } from './twin';

const truck: RigUnderTest = {
  unit: testUnit({ ...newUnitDraft('truck', 2015), number: '10', name: 'truck' }),
  towed: [],
};
const fault = (id: string) => {
  const found = faultsOf(truck).find((each) => each.id === id);
  if (!found) throw new Error(`no fault ${id}`);
  return found;
};

/** Released, full, engine off; with the fault from the start. */
function withFault(id: string | null, severity = 0.7): Twin {
  const twin = new Twin(truck, { tanksPsi: 120 });
  if (id) fault(id).apply(twin, severity);
  twin.dash('park valve', true);
  twin.advanceTo(30);
  return twin;
}
const fall = (twin: Twin, place: string, seconds: number) => {
  const before = twin.psi(place);
  twin.advanceTo(twin.timeS + seconds);
  return before - twin.psi(place);
};

describe('the faults of a rig', () => {
  it('are those of parts it has, each named once', () => {
    const ids = faultsOf(truck).map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(ids).not.toContain('trailer supply stuck');
    expect(ids.length).toBeGreaterThan(25);
  });

  it.each(faultsOf(truck).map(({ id }) => [id]))('“%s” can be lived through', (id) => {
    const twin = withFault(id, 1);
    twin.engine(1400);
    twin.advanceTo(90);
    twin.ask('pedal', 100);
    twin.advanceTo(100);
    twin.ask('pedal', 0);
    twin.advanceTo(110);
    for (const { name } of twin.system.network.nodes) {
      expect(twin.psi(name)).toBeGreaterThan(-0.5);
      expect(twin.psi(name)).toBeLessThan(260);
    }
  });

  // The rows of the trade's own table of what readings point at; common practice, no source to name.
  it('one dash gauge falls and the other holds: that circuit', () => {
    const twin = withFault('leak: secondary tank');
    expect(fall(twin, 'secondary tank', 60)).toBeGreaterThan(3);
    const sound = withFault(null);
    expect(fall(sound, 'secondary tank', 60)).toBeLessThan(0.3);
  });

  it('both fall, only with the park brake released: the spring side', () => {
    const out = withFault('leak: spring line');
    out.advanceTo(60);
    expect(fall(out, 'primary tank', 60)).toBeGreaterThan(2);
    const parked = withFault('leak: spring line');
    parked.dash('park valve', false);
    parked.advanceTo(60);
    expect(fall(parked, 'primary tank', 60)).toBeLessThan(0.3);
  });

  it('falls only with the pedal down: the service side', () => {
    const twin = withFault('leak: rear left');
    twin.advanceTo(60);
    expect(fall(twin, 'primary tank', 30)).toBeLessThan(0.2);
    twin.ask('pedal', 90);
    twin.advanceTo(100);
    expect(fall(twin, 'primary tank', 30)).toBeGreaterThan(1);
  });

  it('air at the relay exhaust, released, that stops when parked: the chamber’s centre seal', () => {
    const twin = withFault('centre seal');
    twin.advanceTo(60);
    expect(twin.flowKgPerS('rear relay: exhaust')).toBeGreaterThan(1e-5);
    twin.dash('park valve', false);
    twin.advanceTo(120);
    expect(Math.abs(twin.flowKgPerS('rear relay: exhaust'))).toBeLessThan(1e-6);
    // And the relay's own inlet goes on.
    const relay = withFault('seat: rear relay: inlet');
    relay.dash('park valve', false);
    relay.advanceTo(120);
    expect(relay.flowKgPerS('rear relay: exhaust')).toBeGreaterThan(1e-5);
  });

  it('the worse the fault, the faster the fall', () => {
    const falls = [0, 0.5, 1].map((severity) =>
      fall(withFault('leak: primary tank', severity), 'primary tank', 30),
    );
    expect(falls[0]).toBeLessThan(falls[1]!);
    expect(falls[1]).toBeLessThan(falls[2]!);
  });
});

describe('a dial as it is seen', () => {
  it('lags, shows its error, and is read to the half division', () => {
    const soon = needlePsi({ ...usualSeenGauge, errorPsi: 2 }, 100, 110, 0.25);
    expect(soon).toBeCloseTo(100 + 12 * (1 - Math.exp(-1)), 6);
    expect(needlePsi({ ...usualSeenGauge, errorPsi: 2 }, 100, 110, 60)).toBeCloseTo(112, 6);
    expect(readOff(usualGauge.psi, 111.6)).toBe(112);
    expect(readOff(usualGauge.psi, 400)).toBe(150);
    expect(readOff(usualGauge.bar, 112)).toBeCloseTo(7.7, 6);
  });
});
