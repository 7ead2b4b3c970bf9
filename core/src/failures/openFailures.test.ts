import type { Figure, Finding } from '@keen-bleed/contract';
import fc from 'fast-check';
import { openFailures, type JudgedRun } from './openFailures';

const A = 'a';
const B = 'b';
let runs = 0;

const figure = (verdict: 'pass' | 'fail' | 'cant-tell', change: Partial<Figure> = {}): Figure => ({
  id: 'static-leak',
  stepId: 'static-hold',
  value: 3,
  read: null,
  atMost: null,
  unit: 'psi/min',
  standardUncertainty: 0.2,
  limit: { id: 'x', min: null, max: 2, source: 's', tag: 'std' },
  asRead: verdict === 'fail' ? 'fail' : 'pass',
  verdict,
  within: null,
  why: '',
  settle: null,
  means: null,
  ...change,
});
const look = (standing: Finding['standing'], stepId = 'holding'): Finding => ({
  stepId,
  key: 'park',
  title: 'Parking brakes hold',
  said: standing === 'bad' ? 'creeps' : 'holds',
  standing,
  means: null,
});
const run = (change: Partial<JudgedRun>): JudgedRun => ({
  runId: `r${(runs += 1)}`,
  atMs: runs,
  unitIds: [A],
  isWhole: true,
  figures: [],
  findings: [],
  ...change,
});
const open = (...list: JudgedRun[]) =>
  openFailures(list, []).map(({ key, unitIds }) => `${key} on ${unitIds.join('+')}`);
const failed = () => run({ figures: [figure('fail')] });

describe('an open failure', () => {
  it('stays until the same figure passes, and is proven by nothing less', () => {
    const leak = ['figure:static-leak on a'];
    expect(open(failed())).toEqual(leak);
    expect(open(failed(), run({ figures: [figure('pass')] }))).toEqual([]);
    // Every step skipped, a hold that cannot be told, a run cut short after the figure passed.
    expect(open(failed(), run({}))).toEqual(leak);
    expect(open(failed(), run({ figures: [figure('cant-tell')] }))).toEqual(leak);
    expect(open(failed(), run({ figures: [figure('pass')], isWhole: false }))).toEqual(leak);
  });

  it('is found in a run that was cut short as in any other', () => {
    expect(open(run({ figures: [figure('fail')], isWhole: false }))).toHaveLength(1);
  });

  it('passes under no looser a limit and no looser a heading', () => {
    const loose = { id: 'y', min: null, max: 3, source: 's', tag: 'std' as const };
    const strict = { ...loose, max: 1 };
    expect(open(failed(), run({ figures: [figure('pass', { limit: loose })] }))).toHaveLength(1);
    expect(open(failed(), run({ figures: [figure('pass', { limit: null })] }))).toHaveLength(1);
    expect(open(failed(), run({ figures: [figure('pass', { limit: strict })] }))).toEqual([]);
    // Reads within the limit, and is not sure: that clears an as-read failure alone.
    const asRead = { heads: 'as-read' as const, asRead: 'pass' as const };
    expect(open(failed(), run({ figures: [figure('cant-tell', asRead)] }))).toHaveLength(1);
    const read = run({ figures: [figure('fail', { heads: 'as-read' })] });
    expect(open(read, run({ figures: [figure('cant-tell', asRead)] }))).toEqual([]);
  });

  it('of a rig stands on each of its units, coupled or not, until the rig passes or it is traced', () => {
    const rig = run({ unitIds: [A, B], figures: [figure('fail')] });
    expect(open(rig)).toEqual(['figure:static-leak on a+b']);
    expect(open(rig, run({ figures: [figure('pass')] }))).toHaveLength(1);
    expect(open(rig, run({ unitIds: [A, B], figures: [figure('pass')] }))).toEqual([]);
    const traced = run({ unitIds: [B], figures: [figure('fail')] });
    expect(open(rig, traced)).toEqual(['figure:static-leak on b']);
    expect(open(rig, traced, run({ unitIds: [B], figures: [figure('pass')] }))).toEqual([]);
    // What else fails on the rig stays with it.
    const lamps = run({ unitIds: [A, B], findings: [look('bad')] });
    expect(open(rig, lamps, traced)).toEqual([
      'figure:static-leak on b',
      'look:holding/park on a+b',
    ]);
  });

  it('of the unit in front alone goes by that unit, whatever is coupled', () => {
    const cutOut = (verdict: 'pass' | 'fail') => figure(verdict, { id: 'cut-out' });
    const rig = run({ unitIds: [A, B], figures: [cutOut('fail')] });
    expect(open(rig)).toEqual(['figure:cut-out on a']);
    expect(open(rig, run({ figures: [cutOut('pass')] }))).toEqual([]);
  });

  it('of a look goes when the same look is good', () => {
    const bad = run({ findings: [look('bad')] });
    expect(open(bad)).toEqual(['look:holding/park on a']);
    expect(open(bad, run({ findings: [look('noted')] }))).toHaveLength(1);
    expect(open(bad, run({ findings: [look('good', 'couplers')] }))).toHaveLength(1);
    expect(open(bad, run({ findings: [look('good')] }))).toEqual([]);
  });

  it('may be closed by word, and opens again when it fails again', () => {
    const first = failed();
    const closing = { runId: first.runId, key: 'figure:static-leak' };
    expect(openFailures([first], [closing])).toEqual([]);
    expect(openFailures([first, failed()], [closing])).toHaveLength(1);
  });

  it('never goes but by a whole run in which the same thing passes', () => {
    const figures = fc.constantFrom(figure('pass'), figure('fail'), figure('cant-tell'));
    const some = fc.record({
      unitIds: fc.constantFrom([A], [B], [A, B]),
      isWhole: fc.boolean(),
      figures: fc.array(figures, { maxLength: 1 }),
    });
    fc.assert(
      fc.property(fc.array(some, { maxLength: 8 }), some, (before, last) => {
        const list = before.map((each) => run(each));
        const was = open(...list);
        const next = run(last);
        const is = open(...list, next);
        const gone = was.filter((each) => !is.includes(each));
        if (gone.length === 0) return;
        const passed = next.isWhole && next.figures[0]?.verdict === 'pass';
        const traced = next.figures[0]?.verdict === 'fail' && next.unitIds.length === 1;
        expect(passed || traced).toBe(true);
      }),
    );
  });
});
