import { testUnit, Walk } from '../test/walk';
import { figuresOf } from './figuresOf';

const idsOf = (walk: Walk) => figuresOf(walk.state, walk.context).map(({ id }) => id);

describe('the figures of a run', () => {
  const compared = testUnit({
    gaugeChecks: [{ gauge: 'primary', dashPsi: 100, masterPsi: 103, atMs: 0 }],
  });

  it('have the dial once, at the step it is chosen in, where it was ever compared', () => {
    const walk = new Walk(compared).ready('primary').mark().wait(28).mark().mark(126);
    const dials = figuresOf(walk.state, walk.context).filter(({ id }) => id === 'gauge-error');
    expect(dials).toMatchObject([{ stepId: 'prepare', value: 3 }]);
    expect(idsOf(new Walk().ready('primary').mark())).not.toContain('gauge-error');
    expect(idsOf(new Walk(compared).ready('secondary').mark())).not.toContain('gauge-error');
  });

  it('have nothing of a step that is passed over', () => {
    const walk = new Walk(compared).ready('primary').mark().wait(28).mark();
    expect(idsOf(walk)).toContain('build-up-time');
    const passed = new Walk(compared).ready('primary').mark();
    passed.add({ kind: 'skip', stepId: 'build-up', reason: 'engine off' });
    expect(idsOf(passed)).not.toContain('build-up-time');
  });
});
