import { roadTest } from '../standards/roadTest';
import { testUnit, Walk } from '../test/walk';
import { holdNow, settlingNow, WATCHED_WITHIN_MS } from './awaiting';

const holding = () => new Walk().ready().mark().wait(30).mark().mark(126).mark(106).startHold(120);

describe('the wait for air to stand', () => {
  const settling = (walk: Walk) => settlingNow(walk.state, walk.nowMs);

  it('runs from when nothing moved the air any more until the hold begins, and at no other step', () => {
    const walk = new Walk().ready();
    expect(settling(walk)).toBeNull();
    walk.mark().wait(30).mark();
    expect(settling(walk)).toBeNull();
    walk.mark(126).mark(106);
    // The step of the hold: nobody has said yet that nothing moves.
    expect(walk.state.step?.id).toBe('static-hold');
    expect(settling(walk)).toBeNull();
    walk.mark(120);
    expect(settling(walk)?.leftMs).toBeGreaterThan(0);
    walk.wait(3_600);
    expect(settling(walk)?.leftMs).toBe(0);
    walk.mark(120);
    expect(walk.state.hold).not.toBeNull();
    expect(settling(walk)).toBeNull();
  });

  it('is none before what is only looked at', () => {
    expect(settling(new Walk(testUnit(), { ruleSet: roadTest, leftOut: [] }))).toBeNull();
  });
});

describe('the clock of a hold', () => {
  it('counts down to nought and ends by itself only under somebody’s eyes', () => {
    const walk = holding();
    const { endsAtMs } = walk.state.hold!;
    const at = (ms: number) => holdNow(walk.state, endsAtMs + ms);
    expect(at(-1_500)).toEqual({ leftMs: 1_500, over: false, endsByItself: false });
    expect(at(0)).toEqual({ leftMs: 0, over: true, endsByItself: true });
    expect(at(WATCHED_WITHIN_MS)).toMatchObject({ leftMs: 0, endsByItself: true });
    expect(at(WATCHED_WITHIN_MS + 1)).toEqual({ leftMs: 0, over: true, endsByItself: false });
    expect(holdNow(new Walk().ready().state, endsAtMs)).toBeNull();
  });

  it('does not end by itself again once its end was taken back', () => {
    const walk = holding();
    walk.wait((walk.state.hold!.endsAtMs - walk.nowMs) / 1_000).holdOver();
    walk.add({ kind: 'retract', target: walk.state.undoable!.id });
    expect(holdNow(walk.state, walk.state.hold!.endsAtMs)).toEqual({
      ...{ leftMs: 0, over: true, endsByItself: false },
    });
  });
});
