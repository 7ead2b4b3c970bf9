import { median } from 'simple-statistics';
import type { Figure, Finding } from '@keen-bleed/contract';
import { evidenceOfRun, usualOf, type ListedRun } from './evidenceOf';

const run = (
  ...figures: [ListedRun['figures'][number]['id'], number | null, string?][]
): ListedRun => ({
  figures: figures.map(([id, value, unit = 'psi/min']) => ({ id, value, unit }) as never),
});

describe('what a rig usually shows', () => {
  it('is the median of its newest six runs, by the needle each hold was read from', () => {
    const leaks = [1, 5, 2, 4, 3, 9, 100, 100];
    const runs = leaks.map((value) =>
      run(['static-leak', value], ['static-leak-other', value / 2]),
    );
    const six = leaks.slice(0, 6);
    // The median of a general-purpose library.
    expect(usualOf(runs, 'primary')).toEqual({
      runs: 6,
      figures: {
        'static primary': median(six),
        'static secondary': median(six.map((value) => value / 2)),
      },
    });
    const five = { runs: 5, figures: { 'static primary': 3, 'static secondary': 1.5 } };
    expect(usualOf(runs.slice(0, 5), 'primary')).toEqual(five);
  });

  it.each([
    ['primary', { 'applied primary': 2, 'applied secondary': 1 }],
    ['secondary', { 'applied secondary': 2, 'applied primary': 1 }],
    // A run read from one needle only is read from the first circuit.
    ['master', { 'applied primary': 2, 'applied secondary': 1 }],
    [null, { 'applied primary': 2, 'applied secondary': 1 }],
  ])('takes the other needle for the other circuit: %s', (gauge, figures) => {
    const one = run(['applied-leak', 2], ['applied-leak-other', 1]);
    expect(usualOf([one], gauge)).toEqual({ runs: 1, figures });
  });

  it('leaves out what was not read, a build-up that is no time, and what no suspect is weighed by', () => {
    expect(usualOf([run(['static-leak', null])], null)).toBeNull();
    expect(usualOf([run(['build-up-time', 3, 'psi/s'])], null)).toBeNull();
    expect(usualOf([run(['static-loss', 3, 'scfm'])], null)).toBeNull();
    expect(usualOf([run(['build-up-time', 30, 's'])], null)?.runs).toBe(1);
    expect(usualOf([], null)).toBeNull();
  });
});

describe('what a closed run says of suspects', () => {
  const figure = (change: Partial<Figure>): Figure =>
    ({
      ...{ id: 'cut-out', unit: 'psi', value: 120, standardUncertainty: 1, verdict: 'pass' },
      ...{ asRead: 'pass', heads: 'by-chance', limit: null },
      ...change,
    }) as unknown as Figure;
  const finding = (standing: Finding['standing']) =>
    ({ standing, stepId: 'couplers', key: 'seals', title: 'Seals', said: 'x' }) as Finding;
  const told = (
    figures: readonly Figure[],
    { gauge = null as string | null, findings = [] as readonly Finding[] } = {},
  ) => evidenceOfRun({ outcome: { figures, findings }, gauge, atMs: 7 } as never);

  it('is its figures, by the needle of the gauge, a master gauge’s among them without a dial’s doubt', () => {
    const leak = figure({ id: 'static-leak', unit: 'psi/min', value: 3 });
    expect(told([leak], { gauge: 'secondary' })).toEqual([
      {
        ...{ kind: 'run', atMs: 7, turnsUnknown: true, figures: { 'static secondary': 3 } },
        doubt: { 'static secondary': 1 },
      },
    ]);
    expect(told([leak], { gauge: 'master' })).toMatchObject([
      { figures: { 'static primary': 3 }, gaugeChecked: true },
    ]);
    // A level's doubt is the model's own affair; no hold is known better than 0.2 psi/min.
    const [run] = told([
      figure({ value: 131 }),
      figure({ id: 'applied-leak', unit: 'psi/min', value: 2, standardUncertainty: 0.05 }),
    ]);
    expect(run).toMatchObject({ doubt: { 'applied primary': 0.2 } });
  });

  it('is whether the lamps came by 9 psi, and nothing of what was not read', () => {
    const lamps = (value: number | null) => told([figure({ id: 'stop-lamp', value })]);
    expect(lamps(9)).toMatchObject([{ figures: { 'lamp light': 1 } }]);
    expect(lamps(9.1)).toMatchObject([{ figures: { 'lamp light': 0 } }]);
    expect(lamps(null)).toEqual([]);
    expect(told([figure({ id: 'build-up-time', unit: 'psi', value: 3 })])).toEqual([]);
  });

  it('is that something failed, once, and each look that was not right', () => {
    const failed = figure({ verdict: 'fail', asRead: 'fail', value: 150 });
    const kinds = told([failed, failed], {
      findings: [finding('bad'), finding('noted'), finding('good')],
    }).map((each) => ('key' in each ? `${each.kind} ${each.key}` : each.kind));
    expect(kinds).toEqual(['run', 'failed', 'look look:couplers/seals']);
  });
});
