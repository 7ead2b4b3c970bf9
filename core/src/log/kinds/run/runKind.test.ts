import { roadTest } from '../../../standards/roadTest';
import { testUnit, unitOf, Walk } from '../../../test/walk';
import { runKind } from './runKind';

/** Closes a run as it stands. */
function closed(walk: Walk, how: 'complete' | 'incomplete' = 'complete'): Walk {
  walk.add({ kind: 'close', how, ...(how === 'incomplete' ? { reason: 'Called away' } : {}) });
  return walk;
}
const summaryOf = (walk: Walk) => runKind.summary(walk.log.header, walk.state);

describe('what a run comes to in the yard', () => {
  it('has the static leak as its trend, and no other of its figures', () => {
    const summary = summaryOf(closed(new Walk().untilHoldOver(1.5)));
    // Heat moves a needle a little in the first minutes.
    expect(Math.abs((summary.trend ?? 0) - 1.5)).toBeLessThan(0.15);
    expect(summary.figures.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['build-up-time', 'cut-out', 'cut-in', 'static-leak']),
    );
  });

  it('has no trend behind which a trailer stands: a rig’s leak is no unit’s own', () => {
    const rig = new Walk(unitOf('tractor', '11'), { towed: [unitOf('trailer', '12')] });
    const alone = new Walk(unitOf('tractor', '11'));
    for (const walk of [rig, alone]) closed(walk.untilHoldOver(1));
    expect(summaryOf(rig).figures.map(({ id }) => id)).toContain('static-leak');
    expect(summaryOf(rig).trend).toBeNull();
    expect(summaryOf(alone).trend).not.toBeNull();
  });

  it('counts as drained where the tanks were drained in it, and owes what it failed or left out', () => {
    const made = (leftOut: string[]) =>
      closed(new Walk(testUnit(), { ruleSet: roadTest, leftOut }).ready('primary'), 'incomplete');
    expect(summaryOf(made([])).drained).toBe(true);
    expect(summaryOf(made(['drain'])).drained).toBe(false);
    expect(summaryOf(closed(new Walk().untilHoldOver(1))).owes).toEqual([]);
    expect(summaryOf(closed(new Walk().untilHoldOver(6))).owes).toEqual(['retest']);
    expect(summaryOf(closed(new Walk().ready('primary'), 'incomplete')).owes).toEqual(['test']);
  });
});
