import truck from '../../golden/records/run-0.2.0-truck.json';
import type { RunHeader } from '@keen-bleed/contract';
import { upToDate } from '../../upToDate';
import { runKind } from './runKind';

/** A run of 0.2.0 with facts of a step that this version cannot make. */
const raised = (...facts: object[]) => {
  const old = { header: truck.header, facts: [...truck.facts, ...facts] };
  const { header } = upToDate(runKind, old as never);
  const { made } = header as unknown as RunHeader;
  return (id: string) => made.steps.find((step) => step.id === id);
};

describe('a step of an old run that nobody can make any more', () => {
  it('stands as its answers, each with what was said', () => {
    const step = raised({ id: 'x1', stepId: 'old-look', answers: { hose: 'chafed', seat: 'dry' } });
    expect(step('old-look')).toMatchObject({ title: 'old-look', required: false, maySkip: true });
    expect(step('old-look')?.act).toEqual({
      kind: 'look',
      items: [
        {
          key: 'hose',
          ask: 'hose',
          options: [{ value: 'chafed', title: 'chafed', standing: 'noted' }],
        },
        { key: 'seat', ask: 'seat', options: [{ value: 'dry', title: 'dry', standing: 'noted' }] },
      ],
    });
  });

  it('stands as its marks, each key once, and without any where it was only passed over', () => {
    const step = raised(
      { id: 'x1', stepId: 'old-marks', key: 'from', readingPsi: 80 },
      { id: 'x2', stepId: 'old-marks', key: 'to', readingPsi: 95 },
      { id: 'x3', stepId: 'old-marks', key: 'to', readingPsi: 96, supersedes: 'x2' },
      { id: 'x4', stepId: 'old-skip', reason: 'no air' },
    );
    const { act } = step('old-marks')!;
    expect(act.kind === 'marks' && act.marks.map(({ key, pad }) => [key, pad])).toEqual([
      ['from', 'from'],
      ['to', 'to'],
    ]);
    expect(step('old-skip')?.act).toEqual({ kind: 'marks', marks: [] });
    expect(step('old-skip')).toMatchObject({
      say: [],
      cautions: [],
      reckon: [],
      windowFigures: [],
    });
  });
});
