import fc from 'fast-check';
import { shortTest, testUnit, Walk } from '../test/walk';
import { roadTest } from '../standards/roadTest';
import { newUnitDraft, usualGauge } from '../rig/newUnit';
import { padNow, settlingNow } from './awaiting';
import { figuresOf } from '../reading/figuresOf';
import { nextDue } from '../procedure/nextDue';
import { procedureFor } from '../procedure/procedureFor';
import { stateOfRun } from './stateOfRun';
import { sayStep } from '../procedure/sayStep';

describe('a run of a truck', () => {
  it('goes from preparation over build-up, cut-out and cut-in to the hold', () => {
    const walk = new Walk();
    expect(walk.state.step?.id).toBe('prepare');
    expect(padNow(walk.state, walk.nowMs)).toBeNull();
    walk.ready();
    expect(padNow(walk.state, walk.nowMs)).toMatchObject({ proposedPsi: 85, method: 'crossing' });
    walk.wait(5).mark();
    expect(padNow(walk.state, walk.nowMs)?.proposedPsi).toBe(100);
    walk.wait(30).mark();
    expect(walk.state.step?.id).toBe('cut-out');
    expect(padNow(walk.state, walk.nowMs)).toMatchObject({ proposedPsi: 125, method: 'read' });
    walk.mark(126);
    expect(padNow(walk.state, walk.nowMs)?.proposedPsi).toBe(100);
    walk.mark(106);
    expect(walk.state.step?.id).toBe('static-hold');
    expect(padNow(walk.state, walk.nowMs)?.proposedPsi).toBe(126);
    walk.held(120, 1);
    expect(walk.state.step).toBeNull();
  });

  it('takes about a dozen presses when nothing is nudged', () => {
    const walk = new Walk().untilHoldOver();
    walk.add({ kind: 'close', how: 'complete' });
    expect(walk.facts.length).toBeLessThanOrEqual(13);
  });

  it('fans below 75 and times 85 to 100 with dual circuits, 50 to 90 with a single one', () => {
    const buildUp = (circuits: 'single' | 'dual') =>
      procedureFor({ unit: testUnit({ circuits }), towed: [] }, shortTest).steps[1]?.reckon[0];
    expect(buildUp('single')).toMatchObject({ kind: 'build-up', spanPsi: 40 });
    expect(buildUp('dual')).toMatchObject({ kind: 'build-up', spanPsi: 15 });
  });

  it('charges a towed unit from the shop’s air', () => {
    const trailer = testUnit({ ...newUnitDraft('trailer', 2015), number: '3', name: 'Trailer' });
    const { steps } = procedureFor({ unit: trailer, towed: [] }, roadTest, ['drain']);
    expect(steps.map((step) => step.id)).toEqual([
      'prepare',
      'charge',
      'static-hold',
      'trailer-alone',
    ]);
  });

  it('speaks the gauge’s own unit', () => {
    expect(sayStep('Fan down below {75}.', 'bar', 'words')).toBe('Fan down below 5.17 bar.');
    const bar = new Walk(testUnit({ gauge: usualGauge.bar })).ready();
    expect((padNow(bar.state, bar.nowMs)?.proposedPsi ?? 0) * 0.06894757).toBeCloseTo(5.9, 9);
  });
});

const correct = (walk: Walk, psi: number) => {
  const mark = walk.state.marks.at(-1);
  if (!mark) throw new Error('no mark to correct');
  const { factId, stepId, key, atMs, resolutionPsi, method } = mark;
  walk.add({
    kind: 'mark',
    stepId,
    key,
    atMs,
    readingPsi: psi,
    resolutionPsi,
    method,
    supersedes: factId,
  });
};

describe('the hold', () => {
  const inHold = () =>
    new Walk().ready().mark().wait(30).mark().mark(126).mark(106).wait(60).startHold(120);
  /** What a 2-psi dial and a limit of 2 psi/min ask for. */
  const LONG_S = 225;

  it('counts down from its start by the clock alone', () => {
    const walk = inHold();
    expect(walk.hold()).toMatchObject({ leftMs: LONG_S * 1000, over: false });
    walk.wait(37.5);
    expect(walk.hold()?.leftMs).toBe(187_500);
    // A phone that slept through the end wakes to a hold that is over, not to one that goes on.
    walk.wait(3600);
    expect(walk.hold()).toMatchObject({ leftMs: 0, over: true, endsByItself: false });
    expect(() => walk.add({ kind: 'hold-over', stepId: 'static-hold' })).toThrow(
      'Nobody saw the hold end',
    );
  });

  it('offers the next line down while it runs and a reading when it is over', () => {
    const walk = inHold();
    expect(padNow(walk.state, walk.nowMs)).toMatchObject({ proposedPsi: 118, method: 'crossing' });
    walk.wait(20).mark();
    expect(padNow(walk.state, walk.nowMs)?.proposedPsi).toBe(116);
    walk.wait(LONG_S - 20);
    expect(padNow(walk.state, walk.nowMs)).toMatchObject({ method: 'read', proposedPsi: 118 });
  });

  it('ends by itself under somebody’s eyes, with lines crossed or with none, and not before its time', () => {
    const quiet = inHold().wait(LONG_S - 1);
    expect(quiet.hold()?.endsByItself).toBe(false);
    expect(() => quiet.wait(-30).add({ kind: 'hold-over', stepId: 'static-hold' })).toThrow(
      'not over yet',
    );
    expect(quiet.wait(31).hold()?.endsByItself).toBe(true);
    quiet.holdOver();
    expect(quiet.state.step).toBeNull();
    const tapped = inHold()
      .wait(20)
      .mark()
      .wait(LONG_S - 20);
    expect(tapped.hold()?.endsByItself).toBe(true);
  });

  it('asks for a reading once its end by itself was taken back', () => {
    const walk = inHold().wait(LONG_S).holdOver();
    walk.add({ kind: 'retract', target: walk.state.undoable?.id ?? '' });
    expect(walk.hold()).toMatchObject({ over: true, endsByItself: false });
    walk.mark(119);
    expect(walk.state.step).toBeNull();
  });

  it('takes a reading between two lines while it runs, and a crossing on one', () => {
    const walk = inHold().wait(20).mark(119);
    expect(walk.state.marks.at(-1)).toMatchObject({ key: 'reading', method: 'read' });
    expect(padNow(walk.state, walk.nowMs)?.proposedPsi).toBe(118);
    walk.wait(10).mark();
    expect(walk.state.marks.at(-1)).toMatchObject({ key: 'crossing', method: 'crossing' });
  });

  it('can be made longer, while it runs and after', () => {
    const walk = inHold().wait(LONG_S - 1);
    walk.add({ kind: 'extend', stepId: 'static-hold', seconds: 60 });
    expect(walk.hold()?.leftMs).toBe(61_000);
    walk.wait(61);
    walk.add({ kind: 'extend', stepId: 'static-hold', seconds: 60 });
    expect(walk.hold()).toMatchObject({ leftMs: 60_000, over: false });
  });
});

describe('the wait before a hold', () => {
  const toHold = (climbS: number) =>
    new Walk().ready().mark().wait(climbS).mark().wait(5).mark(126).wait(10).mark(106).wait(30);

  it('counts down from when nothing moves the air any more, longer after a quicker climb', () => {
    const waitOf = (climbS: number) => {
      const walk = toHold(climbS).mark(124);
      return (settlingNow(walk.state, walk.nowMs)?.leftMs ?? 0) / 1000;
    };
    expect(waitOf(12)).toBeGreaterThan(waitOf(60));
    expect(waitOf(12)).toBeLessThanOrEqual(180);
    expect(waitOf(60)).toBeGreaterThan(30);
    const walk = toHold(20).mark(124);
    const { untilMs } = settlingNow(walk.state, walk.nowMs)!;
    expect(settlingNow(walk.wait(10).state, walk.nowMs)?.untilMs).toBe(untilMs);
    expect(settlingNow(walk.wait(600).state, walk.nowMs)?.leftMs).toBe(0);
  });

  it('is not asked of air that has stood for long', () => {
    const walk = toHold(20).wait(1_200).mark(125);
    expect(settlingNow(walk.state, walk.nowMs)?.leftMs).toBeLessThan(130_000);
    const pedal = new Walk(testUnit(), { ruleSet: roadTest }).ready().mark().wait(28).mark();
    pedal.mark(126).mark(106).held(122, 0.5);
    expect(settlingNow(pedal.state, pedal.nowMs)).toBeNull();
    pedal.mark(110);
    // A full pedal chills the tanks: (1 − 1/1.4)·10 psi comes back, at first 6 psi a minute [calc].
    expect(settlingNow(pedal.state, pedal.nowMs)?.leftMs).toBeGreaterThan(40_000);
  });

  it('may be cut short: the hold begins when it is pressed, and is reckoned with what heat is left', () => {
    const leakOf = (waits: boolean) => {
      const walk = toHold(12).mark(124);
      if (waits) walk.wait((settlingNow(walk.state, walk.nowMs)?.leftMs ?? 0) / 1000);
      walk.wait(3).mark(122).wait(225).mark(120);
      return figuresOf(walk.state, walk.context).find(({ id }) => id === 'static-leak');
    };
    expect(leakOf(false)?.standardUncertainty).toBeGreaterThan(
      leakOf(true)?.standardUncertainty ?? 9,
    );
    expect(leakOf(false)?.why).toContain('cooling');
  });
});

describe('undo and corrections', () => {
  it('takes back the last fact, whatever it was, and again the one before', () => {
    const walk = new Walk().ready().mark().wait(30).mark();
    expect(walk.state.step?.id).toBe('cut-out');
    walk.add({ kind: 'retract', target: walk.state.undoable?.id ?? '' });
    expect(walk.state.step?.id).toBe('build-up');
    expect(padNow(walk.state, walk.nowMs)?.spec.key).toBe('to');
    walk.add({ kind: 'retract', target: walk.state.undoable?.id ?? '' });
    expect(padNow(walk.state, walk.nowMs)?.spec.key).toBe('from');
    // Ready, and what was looked at on the way to it.
    for (let n = 0; n < 2; n += 1) {
      walk.add({ kind: 'retract', target: walk.state.undoable?.id ?? '' });
    }
    expect(walk.state.step?.id).toBe('prepare');
    expect(walk.state.undoable).toBeNull();
  });

  it('keeps the time of a mark that is corrected, and keeps the first reading in the record', () => {
    const walk = new Walk().ready().mark().wait(30).mark().mark(126);
    const madeAtMs = walk.nowMs;
    walk.wait(45);
    correct(walk, 124);
    expect(walk.state.marks.at(-1)).toMatchObject({ readingPsi: 124, atMs: madeAtMs });
    expect(
      walk.facts.filter((fact) => fact.kind === 'mark' && fact.key === 'cut-out'),
    ).toHaveLength(2);
    walk.add({ kind: 'retract', target: walk.state.undoable?.id ?? '' });
    expect(walk.state.marks.at(-1)?.readingPsi).toBe(126);
  });

  it('skips with a reason, keeps notes, and can be stopped', () => {
    const walk = new Walk().ready();
    walk.add({ kind: 'skip', stepId: 'build-up', reason: 'Yard too small' });
    expect(walk.state.step?.id).toBe('cut-out');
    walk.add({ kind: 'note', stepId: 'cut-out', text: 'Blast heard' });
    walk.add({ kind: 'close', how: 'incomplete', reason: 'Called away' });
    expect(walk.state.closed).toMatchObject({ how: 'incomplete', reason: 'Called away' });
    expect(walk.state.undoable).toBeNull();
  });
});

describe('what may not be added', () => {
  it('refuses a mark off the gauge, naming the field and the scale', () => {
    const walk = new Walk().ready().mark().wait(30).mark();
    expect(() => walk.mark(9999)).toThrow(
      'readingPsi: 9999 psi is off the gauge: it reads 0 to 150 psi.',
    );
    expect(walk.state.step?.id).toBe('cut-out');
  });

  it('refuses a time that runs backwards, and says by how much', () => {
    const walk = new Walk().ready().mark();
    expect(() => walk.wait(-90).mark()).toThrow('atMs: The clock went back by 90 s');
  });

  it('refuses unknown steps and marks, places out of turn, and anything after the close', () => {
    const walk = new Walk();
    expect(() => walk.add({ kind: 'note', stepId: 'nowhere', text: 'x' })).toThrow(
      'no step "nowhere"',
    );
    expect(() => walk.add({ kind: 'skip', stepId: 'prepare', reason: 'x' })).toThrow(
      'cannot be skipped',
    );
    walk.ready();
    const odd = {
      kind: 'mark',
      stepId: 'build-up',
      key: 'odd',
      readingPsi: 85,
      resolutionPsi: 1,
      method: 'read',
    } as const;
    expect(() => walk.add(odd)).toThrow('takes no mark called "odd"');
    expect(() =>
      walk.add({ kind: 'retract', target: '00000000-0000-7000-8000-00000000ffff' }),
    ).toThrow('target');
    walk.add({ kind: 'close', how: 'incomplete', reason: 'enough' });
    expect(() => walk.add({ kind: 'skip', stepId: 'cut-in', reason: 'x' })).toThrow('closed');
  });

  it('refuses a correction of another time or of a mark already corrected', () => {
    const walk = new Walk().ready().mark().wait(30).mark().mark(126);
    const mark = walk.state.marks.at(-1);
    if (!mark) throw new Error('no mark');
    const { factId: supersedes, stepId, key, atMs, resolutionPsi, method } = mark;
    const again = {
      kind: 'mark',
      stepId,
      key,
      atMs,
      readingPsi: 124,
      resolutionPsi,
      method,
      supersedes,
    } as const;
    expect(() => walk.add({ ...again, atMs: atMs + 1 })).toThrow('keeps the time');
    expect(() => walk.add({ ...again, stepId: 'build-up', key: 'to' })).toThrow('and the place');
    walk.add(again);
    expect(() => walk.add(again)).toThrow('corrected already');
  });
});

describe('the fold', () => {
  it('comes out the same whatever the order and however often the facts arrive', () => {
    const walk = new Walk().untilHoldOver();
    const { made } = walk.log.header;
    const whole = stateOfRun(made, walk.facts);
    fc.assert(
      fc.property(
        fc.shuffledSubarray([...walk.facts], { minLength: walk.facts.length }),
        fc.subarray([...walk.facts]),
        (shuffled, doubled) => {
          expect(stateOfRun(made, [...shuffled, ...doubled])).toEqual(whole);
        },
      ),
    );
  });

  it('comes out the same fact by fact as all at once, taken-back and corrected ones among them', () => {
    const act = fc.constantFrom('mark', 'undo', 'correct', 'note', 'extend', 'over');
    fc.assert(
      fc.property(fc.array(act, { maxLength: 40 }), (acts) => {
        const walk = new Walk().ready('primary');
        for (const each of acts) {
          walk.wait(25);
          const { step, undoable } = walk.state;
          const mark = walk.state.marks.at(-1);
          if (each === 'mark' && padNow(walk.state, walk.nowMs)) walk.mark();
          else if (each === 'undo' && undoable) walk.add({ kind: 'retract', target: undoable.id });
          else if (each === 'correct' && mark) correct(walk, mark.readingPsi - 2);
          else if (each === 'note' && step) walk.add({ kind: 'note', stepId: step.id, text: 'x' });
          else if (each === 'extend' && step) {
            walk.add({ kind: 'extend', stepId: step.id, seconds: 30 });
          } else if (each === 'over' && walk.state.hold) walk.holdOver();
          expect(walk.state).toEqual(stateOfRun(walk.log.header.made, walk.facts));
        }
      }),
      { numRuns: 60 },
    );
  });
});

describe('what is due', () => {
  const day = 86_400_000;
  it.each([
    [90, 'later'],
    [7, 'later'],
    [6.5, 'soon'],
    [0.5, 'soon'],
    [-0.5, 'overdue'],
  ] as const)('with %d days to go counts as %s', (days, standing) => {
    expect(nextDue(0, 90, (90 - days) * day).standing).toBe(standing);
  });

  it('knows a unit that was never tested', () => {
    expect(nextDue(null, 90, 5)).toEqual({ dueAtMs: null, inDays: null, standing: 'never' });
  });
});
