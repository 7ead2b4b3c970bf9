import type { RigUnderTest } from '../../rig/rigUnderTest';
import { released, semi, truck, until } from '../../test/rigsInAir';
import { unitOf } from '../../test/walk';
import { scfmOf } from '../senses/freeAir';
import { Twin } from '../twin';
import { effectsOf } from './fault';
import { faultsOf } from './faultsOf';

/** Sets a fault of the rig. */
function set(twin: Twin, id: string, severity = 1): void {
  const fault = faultsOf(twin.rig, -10).find((each) => each.id === id);
  if (!fault) throw new Error(`no fault ${id}`);
  twin.apply(effectsOf(fault, severity));
}
/** A rig with a fault, released and full, engine off. */
function withFault(rig: RigUnderTest, id: string | null, severity = 1): Twin {
  const twin = released(rig);
  if (id) set(twin, id, severity);
  twin.advanceTo(60);
  return twin;
}
const press = (twin: Twin, psi: number, forS: number) => {
  twin.ask('pedal', psi);
  twin.advanceTo(twin.timeS + forS);
};

// What each fault does where it acts: the trade's table and common practice, no source to name.
describe('what a fault shows where it acts', () => {
  it('air at the relay exhaust, applied: its exhaust seat', () => {
    const flow = (id: string | null) => {
      const twin = withFault(semi, id, 0.6);
      press(twin, 60, 10);
      return scfmOf(twin.flowKgPerS('rear relay: exhaust'));
    };
    expect(flow('seat: rear relay: exhaust')).toBeGreaterThan(0.2);
    expect(flow(null)).toBeLessThan(0.01);
  });

  it('with primary drained, the rear does nothing: the modulating valve or its control line', () => {
    const springs = (id: string | null) => {
      const twin = withFault(truck, id);
      twin.open('primary drain', 1);
      twin.advanceTo(150);
      press(twin, 20, 4);
      return twin.psi('rear left spring');
    };
    expect(springs(null)).toBeLessThan(50);
    expect(springs('modulating valve dead')).toBeGreaterThan(85);
  });

  it('a modulating valve that stays on takes hold-off from a sound truck at each application', () => {
    const springs = (id: string | null) => {
      const twin = withFault(truck, id);
      press(twin, 30, 4);
      return twin.psi('rear left spring');
    };
    expect(springs(null)).toBeGreaterThan(90);
    expect(springs('modulating valve on')).toBeLessThan(40);
  });

  it('air at the blue coupler: red out and pedal down, a protection valve that does not shut; released, the trailer control', () => {
    const service = (id: string | null) => {
      const twin = withFault(semi, id);
      twin.dash('trailer supply valve', false);
      twin.advanceTo(70);
      press(twin, 80, 10);
      return twin.psi('#1 service line');
    };
    expect(service(null)).toBeLessThan(1);
    expect(service('seat: tractor protection')).toBeGreaterThan(20);
    const numbered = {
      unit: unitOf('tractor', '12', { ports: 'numbers' as const }),
      towed: [unitOf('trailer', '22', { ports: 'numbers' as const })],
    };
    const released = (id: string | null) => {
      const twin = new Twin(numbered, { tanksPsi: 120 });
      twin.dash('park valve', true);
      twin.engine(1400);
      twin.advanceTo(90);
      if (id) set(twin, id, 0.7);
      twin.advanceTo(120);
      return scfmOf(twin.flowKgPerS('trailer control valve: exhaust'));
    };
    expect(released(null)).toBeLessThan(0.05);
    expect(released('seat: trailer control valve: inlet')).toBeGreaterThan(0.3);
  });

  it('water: spent desiccant takes out less, and water in a tank leaves it less room', () => {
    const twin = withFault(truck, 'desiccant spent', 0.8);
    expect(twin.drying).toBeLessThan(0.3);
    const drop = (id: string | null) => {
      const on = withFault(truck, id, 0.8);
      const before = on.psi('primary tank');
      press(on, 150, 3);
      return before - on.psi('primary tank');
    };
    expect(drop('water: primary tank')).toBeGreaterThan(1.3 * drop(null));
  });

  it('a leak behind the accessories’ protection valve ends at about 60 psi', () => {
    const twin = withFault(truck, 'pierced: accessory take-off');
    twin.advanceTo(3_000);
    expect(twin.psi('secondary tank')).toBeGreaterThan(55);
    expect(twin.psi('secondary tank')).toBeLessThan(66);
  });

  it('a supply check stuck nearly shut lets its tank fill late', () => {
    const after = (id: string | null) => {
      const twin = new Twin(truck, { tanksPsi: 60 });
      if (id) set(twin, id);
      twin.engine(1400);
      twin.advanceTo(60);
      return twin.psi('primary tank');
    };
    expect(after('narrowed: primary check')).toBeLessThan(after(null) - 20);
  });

  it('a kinked hose makes a wheel late, a long stroke takes more air', () => {
    const lateS = (id: string | null) => {
      const twin = withFault(semi, id, 0.85);
      twin.ask('pedal', 100);
      return until(twin, twin.timeS, 'rear left', (psi) => psi >= 60);
    };
    expect(lateS('kinked: rear left hose')).toBeGreaterThan(lateS(null) + 0.3);
    const drop = (id: string | null) => {
      const twin = withFault(truck, id);
      const before = twin.psi('primary tank');
      press(twin, 100, 3);
      return before - twin.psi('primary tank');
    };
    expect(drop('long stroke: rear left')).toBeGreaterThan(drop(null) + 0.5);
  });

  it('a trailer’s tank check that leaks back empties it with its supply line', () => {
    const left = (id: string | null) => {
      const twin = withFault(semi, id);
      twin.dash('trailer supply valve', false);
      twin.advanceTo(240);
      return twin.psi('#1 tank');
    };
    expect(left(null)).toBeGreaterThan(105);
    expect(left('seat: #1 tank fill')).toBeLessThan(90);
  });

  it('a last cock left open blows the supply off, the other one the service line, applied', () => {
    const at = (id: string, place: string, psi: number) => {
      const twin = withFault(semi, id);
      press(twin, psi, 10);
      return twin.psi(place);
    };
    expect(at('#1 supply cock open', '#1 supply line', 0)).toBeLessThan(70);
    expect(at('#1 service cock open', '#1 service line', 80)).toBeLessThan(60);
  });

  it('anti-compounding that sticks, or is missing, lets springs and service add', () => {
    const springs = (id: string | null) => {
      const twin = withFault(truck, id);
      twin.dash('park valve', false);
      twin.advanceTo(70);
      press(twin, 60, 10);
      return twin.psi('rear left spring');
    };
    expect(springs(null)).toBeGreaterThan(50);
    expect(springs('anti-compounding missing')).toBeLessThan(5);
    expect(springs('anti-compounding stuck')).toBeLessThan(15);
  });

  it('one warning switch of two is dead: the other still warns, for its own tank alone', () => {
    const warns = (id: string | null, drained: string) => {
      const twin = withFault(truck, id);
      twin.open(`${drained} drain`, 1);
      twin.advanceTo(120);
      return twin.isWarning;
    };
    expect(warns('primary warning dead', 'primary')).toBe(false);
    expect(warns('primary warning dead', 'secondary')).toBe(true);
    expect(warns('warning dead', 'secondary')).toBe(false);
    expect(warns(null, 'primary')).toBe(true);
  });

  it('stop lamps that are always on, a safety valve set low, unloader pistons that leak', () => {
    expect(withFault(truck, null).isSomeHigh('stop-lamp switch')).toBe(false);
    expect(withFault(truck, 'stop lamp always').isSomeHigh('stop-lamp switch')).toBe(true);
    const built = (id: string | null) => {
      const twin = new Twin(truck, { tanksPsi: 100 });
      if (id) set(twin, id);
      twin.engine(1400);
      twin.advanceTo(180);
      return twin;
    };
    const low = built('safety valve low');
    expect(low.isHigh('governor')).toBe(false);
    expect(scfmOf(low.flowKgPerS('safety valve'))).toBeGreaterThan(1);
    // Unloaded, the signal goes on taking air from the supply tank.
    expect(built('unloader piston').psi('supply tank')).toBeLessThan(
      built(null).psi('supply tank') - 3,
    );
  });

  it('a dryer that purges from a service tank dips it once at cut-out: no leak; one stuck open goes on', () => {
    const rig = {
      unit: unitOf('truck', '14', { air: { dryerPurge: 'service-tank' as const } }),
      towed: [],
    };
    const falls = (id: string | null) => {
      const twin = new Twin(rig, { tanksPsi: 110 });
      if (id) set(twin, id, 0.7);
      twin.engine(1400);
      while (!twin.isHigh('governor')) twin.advanceTo(twin.timeS + 0.1);
      const out = twin.psi('primary tank');
      twin.engine(0);
      twin.advanceTo(twin.timeS + 120);
      const dipped = twin.psi('primary tank');
      twin.advanceTo(twin.timeS + 60);
      return { dip: out - dipped, after: dipped - twin.psi('primary tank') };
    };
    const sound = falls(null);
    expect(sound.dip).toBeGreaterThan(5);
    expect(sound.dip).toBeLessThan(14);
    expect(sound.after).toBeLessThan(0.8);
    expect(falls('seat: regeneration valve').after).toBeGreaterThan(2);
  });
});

describe('shop air on a powered unit', () => {
  it('at the park feed releases the springs of a dead vehicle, at the service port fills its tanks [trade]', () => {
    const dead = () => new Twin(truck, { shopAir: true });
    const springs = dead();
    springs.open('shop air to the park feed', 1);
    springs.advanceTo(60);
    springs.dash('park valve', true);
    springs.advanceTo(90);
    expect(springs.psi('rear left spring')).toBeGreaterThan(85);
    // One circuit fills with it through the double check; the supply side stays empty behind its check.
    expect(springs.psi('supply tank')).toBeLessThan(5);
    const filled = dead();
    filled.open('shop air to the service port', 1);
    filled.advanceTo(240);
    expect(filled.psi('primary tank')).toBeGreaterThan(110);
    expect(filled.psi('secondary tank')).toBeGreaterThan(110);
    filled.dash('park valve', true);
    filled.advanceTo(260);
    expect(filled.psi('rear left spring')).toBeGreaterThan(85);
  });
});
