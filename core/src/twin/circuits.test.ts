import type { RigUnderTest } from '../rig/rigUnderTest';
import { released, semi, truck } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { holeConductance } from './equations/flow';
import { exhaustsOf } from './senses/soapAndEar';
import { Twin } from './twin';

const ATMOSPHERE_PSI = 14.696;
const IN3_PER_L = 61.0237;

/** What both needles lose in a minute, psi. */
function minute(twin: Twin) {
  const at = () => [twin.psi('primary tank'), twin.psi('secondary tank')] as const;
  const [primary, secondary] = at();
  twin.advanceTo(twin.timeS + 60);
  return { primary: primary - at()[0], secondary: secondary - at()[1] };
}

describe('one needle falls, the other holds [trade]', () => {
  it.each([
    ['primary tank', 'primary', 'secondary'],
    ['secondary tank', 'secondary', 'primary'],
  ] as const)(
    'a 1 mm hole in the %s, between the closed forms of a tank that empties',
    (at, falls, holds) => {
      const twin = released(truck, { tanksPsi: 125 });
      twin.advanceTo(120);
      const fromPsi = twin.psi(at);
      twin.leak(at, holeConductance(1));
      const lost = minute(twin);
      // Its supply check lets the supply tank follow. Choked and as warm as outside: p = p₁·exp(−kt).
      const litres = (1400 + 2100) / IN3_PER_L;
      // ṁ/p of a 1 mm hole: 0.8 of its area times 0.0404/√T [textbook].
      const perPa = (0.8 * (Math.PI / 4) * 1e-6 * 0.04042) / Math.sqrt(293);
      const perS = (perPa * 287.05 * 293) / (litres / 1000);
      const fromPsia = fromPsi + ATMOSPHERE_PSI;
      const isothermal = fromPsia * (1 - Math.exp(-60 * perS));
      // And as cold as it gets with no wall: p = p₁·(1 + (γ−1)/2·kt)^(−2γ/(γ−1)). Metal lies between.
      const insulated = fromPsia * (1 - (1 + 0.2 * 60 * perS) ** -7);
      expect(lost[falls]).toBeGreaterThan(isothermal);
      expect(lost[falls]).toBeLessThan(insulated);
      expect(Math.abs(lost[holds])).toBeLessThan(0.4);
    },
  );

  it.each([0.05, 0.3, 1, 3, 4])('and so with %d scfm, down to what soap just shows', (scfm) => {
    const sound = released(truck, { tanksPsi: 120 });
    const twin = released(truck, { tanksPsi: 120 });
    for (const each of [sound, twin]) each.advanceTo(120);
    twin.leak('primary tank', scfm * 5.577e-10);
    const [with_, without] = [minute(twin), minute(sound)];
    expect(with_.primary - without.primary).toBeGreaterThan(4 * scfm);
    expect(Math.abs(with_.secondary - without.secondary)).toBeLessThan(0.3);
  });

  it.each([
    ['rear left', 'primary', 'secondary'],
    ['front left', 'secondary', 'primary'],
  ] as const)(
    'applied on a tractor, with a hole at %s, although a trailer is fed by both',
    (at, falls, holds) => {
      const twin = released(semi, { tanksPsi: 125 });
      twin.advanceTo(90);
      twin.ask('pedal', 70);
      twin.advanceTo(150);
      twin.leak(at, holeConductance(0.8));
      const lost = minute(twin);
      expect(lost[falls]).toBeGreaterThan(4);
      expect(Math.abs(lost[holds])).toBeLessThan(0.5);
    },
  );
});

describe('a sound rig at a still pedal', () => {
  const numbered: RigUnderTest = {
    unit: unitOf('tractor', '12', { ports: 'numbers' }),
    towed: [unitOf('trailer', '22', { ports: 'numbers' })],
  };
  it.each([
    ['a truck', truck],
    ['a tractor and trailer', semi],
    ['numbered ports', numbered],
  ])('of %s lets nothing off, at any pedal pressure', (_, rig) => {
    for (const psi of [5, 10, 20, 40, 60, 80, 90, 95, 100, 110, 150]) {
      const twin = released(rig, { tanksPsi: 118 });
      twin.engine(1400);
      twin.advanceTo(120);
      twin.engine(0);
      twin.advanceTo(180);
      twin.ask('pedal', psi);
      twin.advanceTo(200);
      for (const way of exhaustsOf(twin)) {
        // A hundredth of the least that a soap bubble shows.
        expect([psi, way, Math.abs(twin.flowKgPerS(way)) < 1e-7]).toEqual([psi, way, true]);
      }
    }
  });
});

describe('the modulating valve', () => {
  const holdOff = (primaryPsi: number, air: { modulatingValve?: boolean } = {}) => {
    const twin = released({ unit: unitOf('truck', '10', { air }), towed: [] }, { tanksPsi: 120 });
    twin.open('primary drain', 0.2);
    while (twin.psi('primary tank') > primaryPsi) twin.advanceTo(twin.timeS + 0.1);
    twin.open('primary drain', 0);
    twin.advanceTo(twin.timeS + 5);
    const before = twin.psi('spring line');
    twin.ask('pedal', 20);
    twin.advanceTo(twin.timeS + 5);
    return { before, after: twin.psi('spring line') };
  };

  it('rests on a sound truck: a full pedal takes nothing from its hold-off of 95 psi or less [trade]', () => {
    const twin = released(truck, { tanksPsi: 110 });
    twin.advanceTo(60);
    expect(twin.psi('spring line')).toBeLessThan(95.5);
    expect(twin.psi('spring line')).toBeGreaterThan(90);
    twin.ask('pedal', 150);
    twin.advanceTo(70);
    expect(twin.psi('spring line')).toBeGreaterThan(90);
  });

  it('rests over 65 psi of primary, and is at work under 50 [trade]', () => {
    const over = holdOff(66);
    expect(over.before - over.after).toBeLessThan(1);
    const under = holdOff(48);
    expect(under.before - under.after).toBeGreaterThan(35);
  });

  it('is a part that a unit has or has not', () => {
    const without = holdOff(20, { modulatingValve: false });
    // Nothing keeps the hold-off down, and with the primary lost the pedal does nothing at the rear.
    expect(without.before).toBeGreaterThan(100);
    expect(without.before - without.after).toBeLessThan(5);
  });
});

describe('lamps', () => {
  const lampAt = (lost: 'primary' | 'secondary', stopLampSwitches: 'one' | 'two') => {
    const twin = released({
      unit: unitOf('truck', '10', { air: { stopLampSwitches } }),
      towed: [],
    });
    twin.open(`${lost} drain`, 1);
    twin.advanceTo(120);
    twin.ask('pedal', 20);
    twin.advanceTo(123);
    const lit = twin.isSomeHigh('stop-lamp switch');
    twin.ask('pedal', 0);
    twin.advanceTo(126);
    return { lit, out: !twin.isSomeHigh('stop-lamp switch') };
  };

  it.each([
    ['primary', 'one'],
    ['secondary', 'one'],
    ['primary', 'two'],
    ['secondary', 'two'],
  ] as const)(
    'light with the %s lost: %s switch, or a switch a circuit [trade]',
    (lost, switches) => {
      expect(lampAt(lost, switches)).toEqual({ lit: true, out: true });
    },
  );

  it('warn by one switch a tank, or by a single one on the supply tank [trade]', () => {
    const warns = (lowAirSwitches: 'each-tank' | 'supply-tank', drained: string) => {
      const unit = unitOf('truck', '10', { air: { lowAirSwitches } });
      const twin = new Twin({ unit, towed: [] }, { tanksPsi: 120 });
      twin.engine(0);
      twin.advanceTo(5);
      expect(twin.isWarning).toBe(false);
      twin.open(`${drained} drain`, 1);
      twin.advanceTo(90);
      return twin.isWarning;
    };
    expect(warns('each-tank', 'secondary')).toBe(true);
    expect(warns('each-tank', 'primary')).toBe(true);
    expect(warns('supply-tank', 'supply')).toBe(true);
  });
});

describe('what anti-compounding is, or is not, fitted', () => {
  it('shows only parked with the pedal down', () => {
    const springs = (antiCompounding: boolean) => {
      const unit = unitOf('truck', '10', { air: { antiCompounding } });
      const twin = new Twin({ unit, towed: [] }, { tanksPsi: 120 });
      twin.advanceTo(5);
      twin.ask('pedal', 80);
      twin.advanceTo(10);
      return twin.psi('spring line');
    };
    expect(springs(true)).toBeGreaterThan(70);
    expect(springs(false)).toBeLessThan(2);
  });
});
