import type { RigUnderTest } from '../rig/rigUnderTest';
import { released, semi, until } from '../test/rigsInAir';
import { unitOf } from '../test/walk';
import { Twin } from './twin';

const old: RigUnderTest = {
  unit: unitOf('tractor', '11'),
  towed: [unitOf('trailer', '26', { chambers: [{ type: '30', count: 4, springBrake: false }] })],
};

describe('a trailer', () => {
  it('keeps its spring brakes on with crossed couplers', () => {
    const twin = new Twin(semi, { tanksPsi: 120 });
    for (const way of ['supply coupler', 'service coupler']) twin.open(`#1 ${way}`, 0);
    for (const way of ['supply on service coupler', 'service on supply coupler']) {
      twin.pierce(`#1 ${way}`, 4e-8);
    }
    twin.dash('park valve', true);
    twin.advanceTo(3);
    twin.dash('trailer supply valve', true);
    twin.advanceTo(60);
    expect(twin.psi('#1 spring line')).toBeLessThan(5);
  });

  it('without springs brakes from its own tank when the supply is lost', () => {
    const twin = released(old);
    expect(twin.psi('#1 left')).toBeLessThan(2);
    twin.dash('trailer supply valve', false);
    twin.advanceTo(34);
    expect(twin.psi('#1 left')).toBeGreaterThan(80);
  });

  it('is run alone on shop air', () => {
    const twin = new Twin({ unit: unitOf('trailer', '33'), towed: [] });
    twin.open('shop valve', 1);
    twin.advanceTo(240);
    expect(twin.psi('#0 tank')).toBeGreaterThan(110);
    expect(twin.psi('#0 spring line')).toBeGreaterThan(110);
    // The shop's hand valve asks in place of a pedal, and lets off again.
    twin.ask('hand valve', 60);
    twin.advanceTo(250);
    expect(twin.psi('#0 left')).toBeCloseTo(60, 0);
    twin.ask('hand valve', 0);
    twin.advanceTo(260);
    expect(twin.psi('#0 left')).toBeLessThan(1);
  });
});

describe('the hand valve', () => {
  it('brakes the trailer alone, and lets it off again', () => {
    const twin = released(semi);
    twin.ask('hand valve', 60);
    twin.advanceTo(34);
    expect(twin.psi('#1 left')).toBeCloseTo(60, -1);
    expect(twin.psi('rear left')).toBeLessThan(1);
    expect(twin.psi('front left')).toBeLessThan(1);
    twin.ask('hand valve', 0);
    twin.advanceTo(38);
    expect(twin.psi('#1 left')).toBeLessThan(3);
  });
});

describe('the trailer supply valve', () => {
  it('shuts the service line off when it is out, and sets the trailer’s springs', () => {
    const twin = released(semi);
    twin.dash('trailer supply valve', false);
    twin.advanceTo(36);
    expect(twin.psi('#1 spring line')).toBeLessThan(5);
    twin.ask('pedal', 80);
    twin.advanceTo(40);
    expect(twin.psi('trailer service line')).toBeLessThan(5);
    expect(twin.psi('rear left')).toBeGreaterThan(70);
    // The trailer keeps its own air.
    expect(twin.psi('#1 tank')).toBeGreaterThan(100);
  });
});

describe('a double with its dolly', () => {
  const double: RigUnderTest = {
    unit: unitOf('tractor', '11'),
    towed: [unitOf('trailer', '22'), unitOf('dolly', '23'), unitOf('trailer', '24')],
  };

  it('has air at the last supply coupler and none at the last service coupler, released', () => {
    const twin = released(double);
    twin.advanceTo(90);
    expect(twin.psi('#3 supply line')).toBeGreaterThan(80);
    expect(twin.psi('#3 service line')).toBeLessThan(1);
    // Its cocks at the very end are shut, those before it open.
    expect(twin.psi('#3 rear supply')).toBeLessThan(1);
    expect(twin.psi('#1 rear supply')).toBeGreaterThan(80);
  });

  it('brakes from front to rear, the last a little later than the first', () => {
    const twin = released(double);
    twin.advanceTo(90);
    twin.ask('pedal', 150);
    const first = until(twin, 90, '#1 left', (psi) => psi >= 40);
    const again = released(double);
    again.advanceTo(90);
    again.ask('pedal', 150);
    const last = until(again, 90, '#3 left', (psi) => psi >= 40);
    expect(last).toBeGreaterThan(first);
    expect(last).toBeLessThan(3);
  });
});

describe('couplers that come apart', () => {
  // Breakaway [std: 49 CFR 393.43, value from memory]: the trailer brakes by itself, the truck keeps its air.
  it('brake the trailer with its springs, pop the supply out, and leave the truck its air', () => {
    const twin = released(semi);
    twin.advanceTo(90);
    expect(twin.psi('#1 left spring')).toBeGreaterThan(60);
    twin.engine(0);
    twin.couple(1, 'apart');
    twin.advanceTo(150);
    expect(twin.psi('#1 left spring')).toBeLessThan(5);
    expect(twin.isHigh('trailer supply valve')).toBe(false);
    expect(twin.psi('primary tank')).toBeGreaterThan(30);
    expect(twin.psi('secondary tank')).toBeGreaterThan(30);
    twin.couple(1, 'right');
    twin.engine(2100);
    twin.advanceTo(200);
    twin.dash('trailer supply valve', true);
    twin.advanceTo(300);
    expect(twin.psi('#1 left spring')).toBeGreaterThan(60);
  });
});

describe('a trailer control valve and a hand brake valve with numbered ports', () => {
  const rig: RigUnderTest = {
    unit: unitOf('tractor', '21', { ports: 'numbers' }),
    towed: [unitOf('trailer', '22', { ports: 'numbers' })],
  };
  const driving = () => {
    const twin = new Twin(rig, { tanksPsi: 120 });
    twin.dash('park valve', true);
    twin.engine(1400);
    twin.advanceTo(60);
    return twin;
  };

  // [std: ISO 6786 for the numbers; what they do is common practice, no source to name]
  it('brakes the trailer by a rise at 41 and 42', () => {
    const twin = driving();
    expect(twin.psi('#1 left')).toBeLessThan(1);
    twin.ask('pedal', 40);
    twin.advanceTo(64);
    expect(twin.psi('#1 left')).toBeGreaterThan(37);
    expect(twin.psi('#1 left')).toBeLessThan(42);
  });

  it.each(['primary', 'secondary'])('brakes it by one of the two while the %s is lost', (lost) => {
    const twin = driving();
    twin.engine(0);
    twin.open(`${lost} drain`, 1);
    twin.advanceTo(160);
    expect(twin.psi(`${lost} tank`)).toBeLessThan(10);
    twin.ask('pedal', 30);
    twin.advanceTo(164);
    expect(twin.psi('#1 left')).toBeGreaterThan(24);
  });

  it('brakes it by a fall at 43, as far as the hand brake is drawn', () => {
    const twin = driving();
    twin.ask('hand brake', 60);
    twin.advanceTo(66);
    const part = twin.psi('#1 left');
    expect(part).toBeGreaterThan(15);
    expect(part).toBeLessThan(45);
    twin.dash('park valve', false);
    twin.advanceTo(72);
    expect(twin.psi('#1 left')).toBeGreaterThan(75);
    expect(twin.psi('rear left spring')).toBeLessThan(5);
  });

  it('lets the trailer go in the test position, with the truck’s springs on', () => {
    const twin = driving();
    twin.dash('park valve', false);
    twin.advanceTo(72);
    twin.testPosition(true);
    twin.advanceTo(80);
    expect(twin.psi('#1 left')).toBeLessThan(2);
    expect(twin.psi('#1 left spring')).toBeGreaterThan(60);
    expect(twin.psi('rear left spring')).toBeLessThan(5);
    twin.testPosition(false);
    twin.advanceTo(88);
    expect(twin.psi('#1 left')).toBeGreaterThan(75);
  });

  it('does not pop out, and its own circuit keeps the springs off when both others are lost', () => {
    const twin = driving();
    twin.engine(0);
    for (const drain of ['supply drain', 'primary drain', 'secondary drain']) twin.open(drain, 1);
    twin.advanceTo(400);
    expect(twin.psi('primary tank')).toBeLessThan(1);
    expect(twin.psi('secondary tank')).toBeLessThan(1);
    expect(twin.isHigh('park valve')).toBe(true);
    expect(twin.psi('rear left spring')).toBeGreaterThan(60);
  });
});
