import type { RigUnderTest } from '../rig/rigUnderTest';
import { released, semi, truck, until } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { deviceStates } from './senses/deviceStates';
import { faultsOf } from './faults/faultsOf';
import { Twin } from './twin';

describe('the pedal', () => {
  it('gets 30 for 30 through the relay, and nothing under its crack pressure [trade]', () => {
    const twin = released(truck);
    twin.ask('pedal', 3.4);
    twin.advanceTo(35);
    expect(twin.psi('rear left')).toBeLessThan(0.5);
    expect(twin.psi('front left')).toBeGreaterThan(2.5);
    twin.ask('pedal', 30);
    twin.advanceTo(40);
    expect(twin.psi('rear left')).toBeCloseTo(30, 0);
    expect(twin.psi('front left')).toBeCloseTo(30, 0);
  });

  it.each(['front left', 'rear left'])(
    'fills %s to 60 psi in 0.45 s and lets it off to 5 psi in 0.55 s [std: 49 CFR 571.121 S5.3.3, S5.3.4, value from memory]',
    (chamber) => {
      const twin = released(truck, { tanksPsi: 100 });
      twin.ask('pedal', 150);
      expect(until(twin, 30, chamber, (psi) => psi >= 60)).toBeLessThan(0.45);
      const full = released(truck, { tanksPsi: 115 });
      full.ask('pedal', 95);
      full.advanceTo(40);
      full.ask('pedal', 0);
      expect(until(full, 40, chamber, (psi) => psi <= 5)).toBeLessThan(0.55);
    },
  );

  it('fills a trailer to 60 psi in half a second [std: 49 CFR 571.121 S5.3.3, value from memory]', () => {
    const twin = released(semi);
    twin.ask('pedal', 150);
    expect(until(twin, 30, '#1 left', (psi) => psi >= 60)).toBeLessThan(0.5);
  });
});

describe('with the primary tank lost', () => {
  it('the supply goes with it, the secondary and the hold-off stay', () => {
    const twin = released(truck);
    twin.open('primary drain', 1);
    twin.advanceTo(120);
    expect(twin.psi('primary tank')).toBeLessThan(1);
    expect(twin.psi('supply tank')).toBeLessThan(1);
    expect(twin.psi('secondary tank')).toBeGreaterThan(105);
    expect(twin.psi('spring line')).toBeGreaterThan(90);
    expect(twin.isHigh('park valve')).toBe(true);
  });

  it('20 psi of front pedal lets out 55 of the hold-off: the effect of 20 at the rear, four or five times [trade]', () => {
    const twin = released(truck);
    twin.open('primary drain', 1);
    twin.advanceTo(120);
    let count = 0;
    for (let n = 0; n < 8; n += 1) {
      twin.ask('pedal', 20);
      twin.advanceTo(123 + 6 * n);
      // A spring acts like 60 psi of service; what holds it off is taken from that.
      const effect = 60 - twin.psi('rear left spring');
      twin.ask('pedal', 0);
      twin.advanceTo(126 + 6 * n);
      if (n === 0) expect(Math.abs(effect - 20)).toBeLessThan(1.5);
      if (twin.psi('rear left spring') > 55) count += 1;
    }
    expect(count).toBeGreaterThanOrEqual(4);
    expect(count).toBeLessThanOrEqual(5);
  });
});

describe('parked, with the pedal down', () => {
  /** What the springs push beside the service side, in psi of service pressure: some 60 where nothing holds them. */
  function beside(damage: (twin: Twin) => void): number {
    const twin = released(truck, { tanksPsi: 130 });
    damage(twin);
    twin.dash('park valve', false);
    twin.advanceTo(40);
    expect(twin.psi('rear left spring')).toBeLessThan(3);
    twin.ask('pedal', 120);
    twin.advanceTo(45);
    // What the tanks still give.
    expect(twin.psi('rear left')).toBeGreaterThan(100);
    return Math.max(0, 60 - twin.psi('rear left spring'));
  }

  it('spring and service do not add: 120 psi act like 150 at most [trade]', () => {
    expect(beside(() => undefined)).toBeLessThan(30);
  });

  it('without the anti-compounding check they do: 120 psi act like 180 [trade]', () => {
    const spring = beside((twin) => twin.block('anti-compounding check: second', 0));
    expect(Math.abs(spring - 60)).toBeLessThan(3);
  });
});

describe('a relay’s states', () => {
  it('are off at rest, on while it applies, hold once it has, and off as it lets go', () => {
    const twin = new Twin(truck, { tanksPsi: 120 });
    const state = () => deviceStates(twin).find(({ id }) => id === 'rear relay')?.state;
    twin.dash('park valve', true);
    twin.advanceTo(30);
    expect(state()).toBe('off');
    twin.ask('pedal', 50);
    twin.advanceTo(30.3);
    expect(state()).toBe('on');
    twin.advanceTo(40);
    expect(state()).toBe('hold');
    twin.ask('pedal', 0);
    twin.advanceTo(40.15);
    expect(state()).toBe('off');
  });
});

describe('a load-sensing valve', () => {
  const sensing = (front: boolean): RigUnderTest => ({
    unit: unitOf('truck', '31', {
      chambers: [
        { type: '20', count: 2, springBrake: false, loadSensing: front },
        { type: '30', count: 4, springBrake: true, loadSensing: !front },
      ],
    }),
    towed: [],
  });
  const applied = (rig: RigUnderTest, load: number) => {
    const twin = new Twin(rig, { tanksPsi: 120, load });
    twin.dash('park valve', true);
    twin.advanceTo(30);
    twin.ask('pedal', 60);
    twin.advanceTo(36);
    return { rear: twin.psi('rear left'), front: twin.psi('front left') };
  };

  it.each([
    ['rear', 'front'],
    ['front', 'rear'],
  ] as const)(
    'at the %s axle gives it less empty than laden, and the %s axle all either way [common practice]',
    (sensed, other) => {
      const rig = sensing(sensed === 'front');
      const [empty, half, laden] = [0, 0.5, 1].map((load) => applied(rig, load));
      expect(laden![sensed]).toBeGreaterThan(57);
      expect(empty![sensed]).toBeLessThan(30);
      expect(empty![sensed]).toBeGreaterThan(18);
      expect(half![sensed]).toBeGreaterThan(empty![sensed] + 8);
      expect(empty![other]).toBeCloseTo(laden![other], 0);
    },
  );

  it('at the front can be out of adjustment too', () => {
    const ids = faultsOf(sensing(true)).map(({ id }) => id);
    expect(ids).toContain('front load-sensing valve low');
    expect(ids).not.toContain('load-sensing valve low');
  });
});
