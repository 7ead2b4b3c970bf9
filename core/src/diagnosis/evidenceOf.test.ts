import { median } from 'simple-statistics';
import { usualOf, type ListedRun } from './evidenceOf';

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
