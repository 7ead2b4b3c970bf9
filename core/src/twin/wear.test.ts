import { newUnitDraft } from '../rig/newUnit';
import { testUnit } from '../test/walk';
import { Twin } from './twin';
import { wearOf } from './wear';

describe('what a stretch wears', () => {
  it('counts the time under load only while the engine turns and the governor lets it', () => {
    const wear = wearOf(
      [
        { atS: 30, name: 'governor', role: 'governor', high: true },
        { atS: 70, name: 'governor', role: 'governor', high: false },
        { atS: 71, name: 'stop lamp', role: 'stop-lamp switch', high: true },
        { atS: 72, name: 'stop lamp', role: 'stop-lamp switch', high: false },
        { atS: 200, name: 'governor', role: 'governor', high: true },
      ],
      [
        { atS: 10, rpm: 1_200 },
        { atS: 90, rpm: 0 },
      ],
      100,
      0.5,
    );
    // Loaded from 10 to 30 and from 70 to 90, at 600 turns a minute.
    expect(wear).toEqual({
      engineS: 80,
      loadedS: 40,
      loadedTurns: 400,
      purges: 1,
      applications: 1,
    });
  });

  it('is more on a rig that leaks: its compressor works, and its dryer blows, more often', () => {
    const after = (conductance: number) => {
      const twin = new Twin(
        { unit: testUnit(newUnitDraft('truck', 2015)), towed: [] },
        { tanksPsi: 110 },
      );
      twin.leak('supply tank', conductance);
      twin.engine(1_400);
      twin.advanceTo(1_200);
      return twin.wear;
    };
    const sound = after(0);
    const leaking = after(2e-9);
    expect(leaking.purges).toBeGreaterThan(sound.purges);
    expect(leaking.loadedS).toBeGreaterThan(sound.loadedS + 20);
    expect(leaking.loadedS).toBeLessThan(leaking.engineS);
    expect(sound.applications).toBe(0);
  });
});
