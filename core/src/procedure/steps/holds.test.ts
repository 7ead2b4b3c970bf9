import { roadTest } from '../../standards/roadTest';
import { unitOf } from '../../test/walk';
import { procedureFor } from '../procedureFor';

const rig = { unit: unitOf('truck', '10'), towed: [] };
const holdsBy = (limits: typeof roadTest.limits) =>
  procedureFor(rig, { ...roadTest, limits }, ['drain']).steps.flatMap(({ id, act }) =>
    act.kind === 'hold' ? [{ id, act }] : [],
  );

describe('a hold', () => {
  it('is as long as the dial asks for its limit, and says why where that is longer than a minute', () => {
    const [released] = holdsBy(roadTest.limits);
    expect(released!.act.limitPsiPerMin).toBe(2);
    expect(released!.act.seconds).toBeGreaterThan(60);
    expect(released!.act.because).toContain('2 psi/min');
  });

  it('is a minute where its rule set limits nothing, and then explains nothing', () => {
    const holds = holdsBy([]);
    expect(holds.length).toBe(holdsBy(roadTest.limits).length);
    for (const { act } of holds) {
      expect(act.seconds).toBe(60);
      expect(act.limitPsiPerMin).toBeUndefined();
      expect(act.because).toBeUndefined();
    }
  });
});
