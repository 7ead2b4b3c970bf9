import type { AnyFact, JobFact, VisitFact, VisitHeader } from '@keen-bleed/contract';
import fc from 'fast-check';
import { inOrder } from '../facts/factOrder';
import { clockAnswers, correctedMs, isTimeDoubted, isTimeUnsure } from '../facts/factTimes';
import { stateOfJob } from '../repair/jobState';
import { jobHeader } from '../test/jobWriter';
import { unitOf } from '../test/walk';
import { CORE_VERSION } from '../version';
import { FoldedLog } from './foldedLog';
import { jobKind } from './kinds/job/jobKind';
import { visitKind } from './kinds/visit/visitKind';
import { SharedFold } from './sharedFold';

const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const lanes = [id(1001), id(1002), id(1003)] as const;
const startMs = 1_760_000_000_000;
const unit = unitOf('tractor', '21');
const header: VisitHeader = {
  ...{ id: id(5000), kind: 'visit', v: 1, startedAtMs: startMs, offsetMs: 0 },
  subject: { unitId: unit.id, rigId: null, partId: null },
  coreVersion: CORE_VERSION,
  made: { units: [unit], reason: null },
};

/** Notes of three phones as they arrive, one of which may be an answer to how far a clock was ahead. */
const arrivals = fc
  .array(
    fc.record({
      lane: fc.constantFrom(...lanes),
      beforeMs: fc.constantFrom(0, 0, 1, 400, 90_000),
      offsetMs: fc.constantFrom(0, 0, 0, 600_000, null),
      lateMs: fc.constantFrom(0, 500, 500, 500, -3_600_000),
    }),
    { minLength: 1, maxLength: 40 },
  )
  .chain((drawn) =>
    fc.tuple(fc.constant(drawn), fc.option(fc.nat({ max: drawn.length - 1 }), { nil: null })),
  )
  .map(([drawn, clockAt]) => {
    const last = new Map<string, number>();
    return drawn.map(({ lane, beforeMs, offsetMs, lateMs }, n): VisitFact => {
      const seq = (last.get(lane) ?? 0) + 1;
      last.set(lane, seq);
      const at = startMs + n * 1_000;
      const stamp = {
        ...{ id: id(n + 1), lane, seq, v: 1 },
        ...{ atMs: at - beforeMs, receivedAtMs: at + lateMs },
      };
      return n === clockAt
        ? { ...stamp, offsetMs: 0, kind: 'clock', ofLane: lanes[0], aheadMs: 600_000 }
        : { ...stamp, offsetMs, kind: 'note', at: null, text: `n${n}` };
    });
  });

describe('a log that is added to', () => {
  it('is what it would be with all of it at once, from however many phones it comes', () => {
    fc.assert(
      fc.property(arrivals, (facts) => {
        const grown = new FoldedLog(visitKind, header);
        for (const fact of facts) grown.add(fact);
        const whole = new FoldedLog(visitKind, header, facts);
        expect(grown.facts).toEqual(inOrder(facts));
        expect(grown.state).toEqual(whole.state);
        expect(grown.lanes).toEqual(whole.lanes);
        const answers = clockAnswers(facts);
        expect(grown.times).toEqual({
          answers,
          lastMs: Math.max(...facts.map((fact) => correctedMs(fact, answers.get(fact.lane)))),
          isUnsure: isTimeUnsure(facts),
          isDoubted: isTimeDoubted(facts),
        });
      }),
      { numRuns: 300 },
    );
  });

  it('works out where a job stands when somebody looks, not for each entry it takes', () => {
    const made = jobHeader([unit]);
    let workedOut = 0;
    const counting = {
      ...jobKind,
      fold: (head: typeof made, facts: readonly JobFact[]) =>
        new SharedFold(head, facts, (each, all: readonly JobFact[]) => {
          workedOut += 1;
          return stateOfJob(each, all);
        }),
    };
    const log = new FoldedLog(counting, made);
    const at = { unitId: unit.id, partId: 'foot-valve' };
    const seqs = new Map<string, number>();
    for (let n = 0; n < 200; n += 1) {
      const lane = lanes[n % 2] ?? lanes[0];
      const seq = (seqs.get(lane) ?? 0) + 1;
      seqs.set(lane, seq);
      const stamp = { id: id(n + 1), lane, seq, v: 1, atMs: startMs + n * 1_000, offsetMs: 0 };
      const fact = {
        ...stamp,
        ...{ kind: 'fitted', at, repair: 'replaced', was: {}, now: {}, orientation: 'as before' },
      } as JobFact;
      expect(log.admit(fact)).toBeNull();
      log.add(fact);
    }
    expect(workedOut).toBe(0);
    expect((log.state.fitted as readonly AnyFact[]).length).toBe(200);
    expect(workedOut).toBe(1);
  });
});
