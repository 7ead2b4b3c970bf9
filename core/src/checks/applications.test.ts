import { truck } from '../test/rigsInAir';
import { applicationsOf, type Applications } from './applications';

const of = (all: readonly Applications[], tank: string, pedalPsi: number) =>
  all.find((each) => each.tank === tank && each.pedalPsi === pedalPsi)!.count;

describe('applications with the engine off', () => {
  const dry = applicationsOf(truck);

  it('are six to ten full ones from cut-out to 60 psi (trade, section 7), by the tank that gives most', () => {
    const full = ['primary tank', 'secondary tank'].map((tank) => of(dry, tank, 120));
    expect(Math.min(...full)).toBeGreaterThan(5.5);
    expect(Math.min(...full)).toBeLessThan(10.5);
  });

  it('are more the lighter the pedal is pressed', () => {
    for (const tank of ['primary tank', 'secondary tank']) {
      expect(of(dry, tank, 20)).toBeGreaterThan(of(dry, tank, 40));
      expect(of(dry, tank, 40)).toBeGreaterThan(of(dry, tank, 120));
    }
  });

  it('are fewer with water in the tank, by about the room it takes', () => {
    // A tenth of 2,100 in³ is 3,441 ml; by Boyle's law n goes with the air's volume.
    const wet = applicationsOf(truck, { 'primary tank': 3_441 });
    const share = of(wet, 'primary tank', 120) / of(dry, 'primary tank', 120);
    expect(share).toBeLessThan(0.97);
    expect(share).toBeGreaterThan(0.85);
  });

  it('are what they are dry where no such tank stands, and where nothing stands in it', () => {
    expect(applicationsOf(truck, { 'no such tank': 3_000, 'primary tank': -3_000 })).toEqual(dry);
  });
});
