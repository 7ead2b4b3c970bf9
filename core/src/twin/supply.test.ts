import type { RigUnderTest } from '../rig/rigUnderTest';
import { released, truck } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { Twin } from './twin';

describe('the supply side', () => {
  it('leaks unseen by the dash: the checks keep the service tanks', () => {
    const twin = released(truck);
    const before = twin.psi('primary tank');
    twin.leak('supply tank', 3e-10);
    twin.advanceTo(150);
    expect(twin.psi('supply tank')).toBeLessThan(before - 15);
    const sound = released(truck);
    sound.advanceTo(150);
    expect(twin.psi('primary tank')).toBeCloseTo(sound.psi('primary tank'), 1);
  });

  it('builds 85 to 100 psi within the volume rule, cuts out and in where it is set, and purges some 25 s', () => {
    const twin = new Twin(truck, { tanksPsi: 80 });
    twin.engine(2100);
    const times: number[] = [];
    for (let n = 0; times.length < 2 && n < 4000; n += 1) {
      twin.advanceTo(n / 20);
      if (twin.psi('primary tank') >= (times.length === 0 ? 85 : 100)) times.push(n / 20);
    }
    const [at85 = NaN, at100 = NaN] = times;
    // 5,600 in³ of tanks against 12 × 464 in³ of chambers [std: 49 CFR 571.121 S5.1.1, value from memory].
    expect(at100 - at85).toBeLessThan((5600 / (12 * 464)) * 25);
    twin.advanceTo(150);
    const at = (name: string, high: boolean) =>
      twin.events.find((event) => event.name === name && event.high === high)?.atS ?? NaN;
    expect(at('governor', true)).toBeGreaterThan(20);
    expect(at('purge', false) - at('governor', true)).toBeGreaterThan(15);
    expect(at('purge', false) - at('governor', true)).toBeLessThan(35);
    twin.engine(0);
    expect(twin.psi('supply tank')).toBeLessThan(126);
  });

  it('falls without a leak after a fresh build-up, because the air cools', () => {
    const twin = new Twin(truck, { tanksPsi: 60 });
    twin.engine(2100);
    twin.advanceTo(40);
    twin.engine(0);
    const warm = twin.celsius('primary tank');
    const before = twin.psi('primary tank');
    twin.advanceTo(100);
    const first = before - twin.psi('primary tank');
    twin.advanceTo(900);
    const settled = twin.psi('primary tank');
    twin.advanceTo(960);
    expect(warm).toBeGreaterThan(25);
    expect(first).toBeGreaterThan(1);
    expect(settled - twin.psi('primary tank')).toBeLessThan(0.05);
  });
});

describe('a four-circuit protection valve', () => {
  const numbered: RigUnderTest = { unit: unitOf('truck', '21', { ports: 'numbers' }), towed: [] };

  it('lets the sound circuit be filled while the other is open to the air', () => {
    const twin = new Twin(numbered, { tanksPsi: 110 });
    twin.open('primary drain', 1);
    twin.advanceTo(60);
    twin.engine(2100);
    twin.advanceTo(160);
    expect(twin.psi('primary tank')).toBeLessThan(30);
    // It holds what lies between its opening and its closing pressure, some 4.5 to 7 bar.
    expect(twin.psi('secondary tank')).toBeGreaterThan(60);
    expect(twin.psi('supply tank')).toBeGreaterThan(50);
  });
});

describe('colder air', () => {
  it('that comes while a rig stands takes pressure from its tanks: p ∝ T', () => {
    const twin = new Twin(truck, { tanksPsi: 120, outsideC: 20 });
    twin.advanceTo(60);
    const warm = twin.psi('secondary tank') + 14.7;
    twin.weather(-20);
    twin.advanceTo(7_200);
    expect((twin.psi('secondary tank') + 14.7) / warm).toBeCloseTo(253.15 / 293.15, 2);
  });
});

describe('height', () => {
  it('slows the build-up: there is less air to take in', () => {
    const after = (heightM: number) => {
      const twin = new Twin(truck, { tanksPsi: 60, heightM });
      twin.engine(2100);
      twin.advanceTo(30);
      return twin.psi('primary tank');
    };
    expect(after(2000)).toBeLessThan(after(0) - 3);
  });
});
