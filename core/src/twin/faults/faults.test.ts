import { newUnitDraft } from '../../rig/newUnit';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import { testUnit } from '../../test/walk';
import { effectsOf } from './fault';
import { faultsOf, partOf } from './faultsOf';
import { partsOf } from '../../rig/partsOf';
import { unitsOf } from '../../rig/rigUnderTest';
import { Twin } from '../twin';

const truck: RigUnderTest = {
  unit: testUnit({ ...newUnitDraft('truck', 2015), number: '10', name: 'truck' }),
  towed: [],
};
const semi: RigUnderTest = {
  unit: testUnit({ ...newUnitDraft('tractor', 2015), number: '11' }),
  towed: [testUnit({ ...newUnitDraft('trailer', 2015), number: '22', name: 'box' })],
};
const numbered: RigUnderTest = {
  unit: testUnit({ ...newUnitDraft('tractor', 2015), number: '12', ports: 'numbers' }),
  towed: [
    testUnit({
      ...newUnitDraft('trailer', 2015),
      number: '23',
      name: 'box',
      ports: 'numbers',
      chambers: [{ type: '30', count: 4, springBrake: true, loadSensing: true }],
    }),
  ],
};
const fault = (id: string) => {
  const found = faultsOf(truck).find((each) => each.id === id);
  if (!found) throw new Error(`no fault ${id}`);
  return found;
};

/** Released, full, engine off; with the fault from the start. */
function withFault(id: string | null, severity = 0.7): Twin {
  const twin = new Twin(truck, { tanksPsi: 120 });
  if (id) twin.apply(effectsOf(fault(id), severity));
  twin.dash('park valve', true);
  twin.advanceTo(30);
  return twin;
}
/** The same with a trailer, both dash controls in. */
function semiWith(id: string | null): Twin {
  const twin = new Twin(semi, { tanksPsi: 120 });
  if (id) {
    const found = faultsOf(semi).find((each) => each.id === id);
    if (!found) throw new Error(`no fault ${id}`);
    twin.apply(effectsOf(found, 1));
  }
  twin.dash('park valve', true);
  twin.dash('trailer supply valve', true);
  return twin;
}
const fall = (twin: Twin, place: string, seconds: number) => {
  const before = twin.psi(place);
  twin.advanceTo(twin.timeS + seconds);
  return before - twin.psi(place);
};

describe('the faults of a rig', () => {
  it('are those of what is towed too, whatever it is called', () => {
    const towed = testUnit({ ...newUnitDraft('trailer', 2015), number: '5', name: 'supply tank' });
    const parts = faultsOf({ unit: semi.unit, towed: [towed] }).map(({ part }) => part);
    expect(parts).toContain('supply tank 5 tank');
    expect(parts).toContain('supply tank 5 relay');
    expect(parts).not.toContain('supply relay');
  });

  it.each([
    ['a truck', truck],
    ['a tractor and trailer', semi],
    ['numbered ports', numbered],
    ['a trailer on shop air', { unit: semi.towed[0]!, towed: [] }],
  ])('of %s are each of a part its unit has, as everything in its air is', (_, rig) => {
    const twin = new Twin(rig);
    const partsAt = unitsOf(rig).map((unit) => partsOf(unit).map(({ id }) => id));
    for (const fault of faultsOf(rig, -10)) {
      const { unit, part } = partOf(fault, twin);
      expect([fault.id, partsAt[unit]?.includes(part)]).toEqual([fault.id, true]);
    }
    const { nodes, elements, latches } = twin.system.network;
    for (const { id, unit, part } of [...nodes, ...elements, ...latches]) {
      if (unit >= 0) expect([id, partsAt[unit]?.includes(part ?? '')]).toEqual([id, true]);
    }
    // Ids are found again, whatever people call their units.
    const ids = nodes.map(({ id }) => id);
    const renamed = {
      unit: { ...rig.unit, name: 'primary tank' },
      towed: rig.towed.map((each) => ({ ...each, name: 'supply' })),
    };
    expect(new Twin(renamed).system.network.nodes.map(({ id }) => id)).toEqual(ids);
  });

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
    for (const { id } of twin.system.network.nodes) {
      expect(twin.psi(id)).toBeGreaterThan(-0.5);
      expect(twin.psi(id)).toBeLessThan(300);
    }
  });

  it.each([
    ['with dash controls', semi],
    ['with numbered ports, in the cold', numbered],
    ['that is a trailer on shop air', { unit: semi.towed[0]!, towed: [] }],
  ])('of a rig %s can come up in the middle of its run, all of them', (_, rig) => {
    for (const each of faultsOf(rig, -15)) {
      const twin = new Twin(rig, { tanksPsi: 110, outsideC: -15 });
      twin.dash('park valve', true);
      twin.dash('trailer supply valve', true);
      twin.ask('pedal', 60);
      twin.advanceTo(5);
      twin.apply(effectsOf(each, 1));
      twin.ask('pedal', 0);
      twin.advanceTo(15);
      for (const { id } of twin.system.network.nodes) {
        expect(twin.psi(id)).toBeGreaterThan(-0.5);
        expect(twin.psi(id)).toBeLessThan(200);
      }
    }
  });

  it('are of valves with numbers where the ports have numbers, and ice only in the cold', () => {
    const parts = (rig: RigUnderTest, outsideC?: number) =>
      faultsOf(rig, outsideC).map(({ part }) => part);
    expect(parts(numbered)).toContain('trailer control valve');
    expect(parts(numbered)).toContain('hand brake valve');
    expect(parts(numbered)).not.toContain('trailer supply valve');
    expect(parts(semi)).not.toContain('trailer control valve');
    const iced = (outsideC: number) =>
      faultsOf(semi, outsideC).filter(({ title }) => title.includes('iced')).length;
    expect(iced(-10)).toBeGreaterThan(1);
    expect(iced(15)).toBe(0);
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
    const twin = withFault('centre seal: rear left');
    twin.advanceTo(60);
    expect(twin.flowKgPerS('rear relay: exhaust')).toBeGreaterThan(1e-5);
    twin.dash('park valve', false);
    twin.advanceTo(120);
    expect(Math.abs(twin.flowKgPerS('rear relay: exhaust'))).toBeLessThan(1e-5);
    // And the relay's own inlet goes on.
    const relay = withFault('seat: rear relay: inlet');
    relay.dash('park valve', false);
    relay.advanceTo(120);
    expect(relay.flowKgPerS('rear relay: exhaust')).toBeGreaterThan(1e-5);
  });

  it('it climbs past cut-out and the safety valve blows: the unloader or its signal', () => {
    const twin = new Twin(truck, { tanksPsi: 100 });
    twin.apply(effectsOf(fault('unloader stuck'), 1));
    twin.engine(2100);
    twin.advanceTo(240);
    expect(twin.psi('supply tank')).toBeGreaterThan(145);
    expect(twin.flowKgPerS('safety valve')).toBeGreaterThan(1e-4);
  });

  it('the brakes drag after release: the foot valve does not come back', () => {
    const after = (id: string | null) => {
      const twin = withFault(id);
      twin.ask('pedal', 80);
      twin.advanceTo(twin.timeS + 4);
      twin.ask('pedal', 0);
      twin.advanceTo(twin.timeS + 4);
      return twin.psi('rear left');
    };
    expect(after('foot valve stays')).toBeGreaterThan(3);
    expect(after(null)).toBeLessThan(0.5);
  });

  it('one axle late: a restricted control line, or another crack pressure', () => {
    const lateness = (id: string | null) => {
      const twin = withFault(id, 1);
      const fromS = twin.timeS;
      twin.ask('pedal', 100);
      while (twin.psi('rear left') < 40 && twin.timeS < fromS + 20) {
        twin.advanceTo(twin.timeS + 0.02);
      }
      return twin.timeS - fromS;
    };
    const sound = lateness(null);
    expect(lateness('narrowed: rear control line')).toBeGreaterThan(sound + 0.2);
    const light = (id: string | null) => {
      const twin = withFault(id);
      twin.ask('pedal', 9);
      twin.advanceTo(twin.timeS + 5);
      return twin.psi('rear left');
    };
    expect(light(null)).toBeGreaterThan(6);
    expect(light('rear relay crack')).toBeLessThan(1);
  });

  it('the trailer will not release: crossed couplers, or a cock shut in front', () => {
    const springs = (id: string | null) => {
      const twin = semiWith(id);
      twin.engine(1400);
      twin.advanceTo(60);
      return twin.psi('#1 left spring');
    };
    expect(springs(null)).toBeGreaterThan(80);
    expect(springs('#1 crossed')).toBeLessThan(30);
    expect(springs('#1 cock')).toBeLessThan(30);
  });

  it.each([
    'compressor worn',
    'intake blocked',
    'unloader partly open',
    'narrowed: discharge',
    'narrowed: dryer outlet check',
  ])('slow build-up, nothing heard: %s', (id) => {
    const takes = (given: string | null) => {
      const twin = new Twin(truck, { tanksPsi: 85 });
      if (given) twin.apply(effectsOf(fault(given), 1));
      twin.engine(1_400);
      while (twin.psi('primary tank') < 100 && twin.timeS < 400) twin.advanceTo(twin.timeS + 0.5);
      return twin.timeS;
    };
    expect(takes(id)).toBeGreaterThan(1.25 * takes(null));
  });

  it('cycles often, dash steady, brakes untouched: a leak on the supply side', () => {
    const over = (id: string | null) => {
      const twin = new Twin(truck, { tanksPsi: 120 });
      if (id) twin.apply(effectsOf(fault(id), 0.5));
      twin.engine(1_400);
      twin.advanceTo(900);
      const cutOuts = twin.events.filter(({ name, high }) => name === 'governor' && high).length;
      return { cutOuts, dash: twin.psi('secondary tank') };
    };
    const sound = over(null);
    const leaking = over('leak: supply tank');
    expect(leaking.cutOuts).toBeGreaterThan(sound.cutOuts + 2);
    expect(leaking.dash).toBeGreaterThan(sound.dash - 3);
  });

  it('purge blows on past 30 s after cut-out: the dryer’s outlet check', () => {
    const blows = (id: string | null) => {
      const twin = new Twin(truck, { tanksPsi: 115 });
      if (id) twin.apply(effectsOf(fault(id), 0.5));
      twin.engine(2_100);
      while (!twin.isHigh('governor') && twin.timeS < 300) twin.advanceTo(twin.timeS + 0.5);
      twin.engine(0);
      twin.advanceTo(twin.timeS + 40);
      return twin.flowKgPerS('purge valve');
    };
    expect(blows('outlet check')).toBeGreaterThan(20 * Math.max(1e-7, blows(null)));
  });

  it.each([
    ['primary warning low', (atPsi: number) => atPsi < 55],
    ['warning dead', (atPsi: number) => Number.isNaN(atPsi)],
    [null, (atPsi: number) => atPsi > 58 && atPsi < 66],
  ])('warning late or never: with “%s”', (id, fits) => {
    const twin = withFault(id, 1);
    let atPsi = NaN;
    for (let n = 0; n < 40 && Number.isNaN(atPsi); n += 1) {
      for (let k = 0; k < 60; k += 1) {
        twin.ask('pedal', k < 30 ? 150 : 0);
        twin.advanceTo(twin.timeS + 0.05);
        if (!twin.isHigh('primary warning') && Number.isNaN(atPsi))
          atPsi = twin.psi('primary tank');
      }
    }
    expect(fits(atPsi)).toBe(true);
  });

  it.each([
    ['park valve low', false],
    ['park valve high', true],
  ])('pop-out late or early: %s', (id, isEarly) => {
    const popsAt = (given: string | null) => {
      const twin = withFault(given, 1);
      twin.open('primary drain', 0.3);
      twin.open('secondary drain', 0.3);
      while (twin.isHigh('park valve') && twin.timeS < 400) twin.advanceTo(twin.timeS + 0.25);
      return twin.psi('dash feed');
    };
    const sound = popsAt(null);
    expect(sound).toBeGreaterThan(20);
    expect(sound).toBeLessThan(45);
    if (isEarly) expect(popsAt(id)).toBeGreaterThan(45);
    else expect(popsAt(id)).toBeLessThan(20);
  });

  it('with primary drained, secondary falls too: its supply check, or the double check', () => {
    const left = (id: string | null) => {
      const twin = withFault(id, 1);
      twin.open('primary drain', 1);
      twin.advanceTo(twin.timeS + 120);
      return twin.psi('secondary tank');
    };
    const sound = left(null);
    expect(sound).toBeGreaterThan(100);
    expect(left('secondary check')).toBeLessThan(sound - 30);
    expect(left('dash double check')).toBeLessThan(sound - 30);
  });

  it('air at the service coupler, brakes released: the hand valve not fully off', () => {
    const service = (id: string | null) => {
      const twin = semiWith(id);
      twin.advanceTo(40);
      return twin.psi('#1 service line');
    };
    expect(service(null)).toBeLessThan(0.5);
    expect(service('hand valve on')).toBeGreaterThan(1.5);
  });

  it('brakes drag after release: an exhaust that is blocked', () => {
    const after = (id: string | null) => {
      const twin = withFault(id, 1);
      twin.ask('pedal', 80);
      twin.advanceTo(twin.timeS + 4);
      twin.ask('pedal', 0);
      twin.advanceTo(twin.timeS + 1.5);
      return twin.psi('front left');
    };
    expect(after(null)).toBeLessThan(1);
    expect(after('quick-release blocked')).toBeGreaterThan(10);
  });

  it('two at once are both there: one circuit falls by its leak while the compressor is slow', () => {
    const twin = new Twin(truck, { tanksPsi: 100 });
    twin.apply(effectsOf(fault('compressor worn'), 1));
    twin.apply(effectsOf(fault('intake blocked'), 1));
    twin.apply(effectsOf(fault('leak: secondary tank'), 1));
    expect(twin.system.compressor.rings).toBeGreaterThan(0);
    expect(twin.system.compressor.intake).toBeCloseTo(0.7, 9);
    twin.advanceTo(60);
    expect(twin.psi('secondary tank')).toBeLessThan(twin.psi('primary tank') - 3);
  });

  it('the worse the fault, the faster the fall', () => {
    const falls = [0, 0.5, 1].map((severity) =>
      fall(withFault('leak: primary tank', severity), 'primary tank', 30),
    );
    expect(falls[0]).toBeLessThan(falls[1]!);
    expect(falls[1]).toBeLessThan(falls[2]!);
  });
});
