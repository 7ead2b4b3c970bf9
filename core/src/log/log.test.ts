import type { VisitFact, VisitHeader } from '@keen-bleed/contract';
import fc from 'fast-check';
import { testUnit, unitOf, Walk } from '../test/walk';
import { CORE_VERSION } from '../version';
import { correctedMs, isTimeUnsure, unsureLanes } from '../facts/factTimes';
import { FoldedLog, MOST_FACTS } from './foldedLog';
import { inOrder } from '../facts/factOrder';
import { runKind } from './kinds/run/runKind';
import { visitKind, type VisitEntry } from './kinds/visit/visitKind';

const id = (n: number) => `00000000-0000-7000-8000-${String(n).padStart(12, '0')}`;
const laneA = id(1001);
const laneB = id(1002);
const startMs = 1_760_000_000_000;

const tractor = unitOf('tractor', '21');
const trailer = unitOf('trailer', '31');
const header: VisitHeader = {
  id: id(5000),
  kind: 'visit',
  v: 1,
  subject: { unitId: tractor.id, rigId: null, partId: null },
  startedAtMs: startMs,
  offsetMs: 0,
  coreVersion: CORE_VERSION,
  made: { units: [tractor, trailer], reason: null },
};
const note = (n: number, lane: string, seq: number, atMs: number, offsetMs: number | null = 0) =>
  ({ id: id(n), lane, seq, atMs, offsetMs, v: 1, kind: 'note', at: null, text: `n${n}` }) as const;
const visit = (facts: readonly VisitFact[] = []) => new FoldedLog(visitKind, header, facts);

const sayEntry = (entry: VisitEntry) => (entry.kind === 'check' ? entry.said : entry.text);

describe('the order of facts', () => {
  it('is by what the server’s clock would have said, whichever clock was wrong', () => {
    // The second phone is ten minutes ahead: what it wrote first by its clock came after.
    const facts = [
      note(1, laneA, 1, startMs + 60_000),
      note(2, laneB, 1, startMs + 630_000, 600_000),
      note(3, laneA, 2, startMs + 90_000),
    ];
    expect(inOrder(facts).map((fact) => fact.id)).toEqual([id(2), id(1), id(3)]);
  });

  it('never puts a fact later than it was received', () => {
    const in2099 = Date.UTC(2099, 0, 1);
    expect(correctedMs({ atMs: in2099, offsetMs: null, receivedAtMs: startMs })).toBe(startMs);
    expect(correctedMs({ atMs: startMs + 5, offsetMs: 5, receivedAtMs: startMs + 9 })).toBe(
      startMs,
    );
  });

  it('is the same for every device, however the facts came in, and keeps each lane’s own', () => {
    const fact = fc.record({
      lane: fc.constantFrom(laneA, laneB, id(1003)),
      afterMs: fc.integer({ min: -5_000, max: 5_000 }),
      offsetMs: fc.constantFrom(0, 600_000, -90_000, null),
    });
    fc.assert(
      fc.property(
        fc.array(fact, { maxLength: 30 }),
        fc.array(fc.nat(), { minLength: 30, maxLength: 30 }),
        (drawn, keys) => {
          const last = new Map<string, number>();
          const facts = drawn.map(({ lane, afterMs, offsetMs }, n) => {
            const seq = (last.get(lane) ?? 0) + 1;
            last.set(lane, seq);
            return note(n + 1, lane, seq, startMs + n * 1_000 + afterMs, offsetMs);
          });
          const shuffled = facts
            .map((each, n) => ({ each, key: keys[n] ?? 0 }))
            .sort((a, b) => a.key - b.key)
            .map(({ each }) => each);
          const ordered = inOrder(facts);
          expect(inOrder([...shuffled, ...facts.slice(0, 3)])).toEqual(ordered);
          for (const lane of last.keys()) {
            const seqs = ordered.filter((each) => each.lane === lane).map(({ seq }) => seq);
            expect(seqs).toEqual([...seqs].sort((a, b) => a - b));
          }
        },
      ),
    );
  });
});

describe('a clock that cannot be measured', () => {
  const unknown = [note(1, laneA, 1, startMs, null), note(2, laneB, 1, startMs, 0)];

  it('leaves the time of its log unsure until somebody says how far it was ahead', () => {
    expect(isTimeUnsure(unknown)).toBe(true);
    expect(unsureLanes(unknown)).toEqual([laneA]);
    const answer = {
      ...note(3, laneB, 2, startMs),
      kind: 'clock',
      ofLane: laneA,
      aheadMs: 3_600_000,
    } as const;
    expect(isTimeUnsure([...unknown, answer])).toBe(false);
    // It is set back by the hour it was ahead, and so comes first.
    expect(inOrder([...unknown, answer])[0]?.lane).toBe(laneA);
  });

  it('can be answered for after the log was closed', () => {
    const walk = new Walk().ready();
    walk.add({ kind: 'close', how: 'incomplete', reason: 'called away' });
    expect(() => walk.add({ kind: 'skip', stepId: 'cut-in', reason: 'late' })).toThrow('closed');
    walk.add({ kind: 'clock', ofLane: walk.facts[0]!.lane, aheadMs: 5 });
    expect(walk.facts.at(-1)?.kind).toBe('clock');
  });
});

describe('what a log takes', () => {
  it('is each fact once, in its lane’s next place', () => {
    const log = visit([note(1, laneA, 1, startMs)]);
    expect(log.admit(note(2, laneA, 3, startMs))).toMatchObject({ code: 'facts-missing' });
    expect(log.admit(note(2, laneA, 1, startMs))).toMatchObject({ code: 'place-taken' });
    expect(log.admit(note(2, laneA, 2, startMs))).toBeNull();
    expect(log.admit(note(2, laneB, 1, startMs))).toBeNull();
    expect(log.lanes).toEqual({ [laneA]: 1 });
  });

  it('goes on in time within a lane; between lanes clocks may differ', () => {
    const log = visit([note(1, laneA, 1, startMs)]);
    expect(log.admit(note(2, laneA, 2, startMs - 90_000))?.message).toContain('went back by 90 s');
    expect(log.admit(note(2, laneB, 1, startMs - 90_000))).toBeNull();
  });

  it('has a bound, said in words, at which it can still be closed', () => {
    const full = Array.from({ length: MOST_FACTS }, (_, n) => note(n + 1, laneA, n + 1, startMs));
    const log = visit(full);
    const next = note(9_001, laneA, MOST_FACTS + 1, startMs);
    expect(log.admit(next)?.code).toBe('log-full');
    expect(log.admit(next)?.message).toContain('5000');
    const close = { ...next, kind: 'close' } as unknown as VisitFact;
    expect(log.admit(close)).toBeNull();
  });

  it('takes back only what is there', () => {
    const log = visit([note(1, laneA, 1, startMs)]);
    const retract = (target: string): VisitFact => ({
      ...{ id: id(2), lane: laneA, seq: 2, atMs: startMs, offsetMs: 0, v: 1 },
      kind: 'retract',
      target,
    });
    expect(log.admit(retract(id(77)))).toMatchObject({ field: 'target' });
    expect(log.admit(retract(id(1)))).toBeNull();
    // What a part or a line is, is said anew: it is not as if nobody had ever looked.
    const part = {
      ...{ id: id(3), lane: laneA, seq: 2, atMs: startMs, offsetMs: 0, v: 1 },
      ...{ kind: 'part', at: { unitId: trailer.id, partId: 'relay' }, standing: 'fitted' },
    } as VisitFact;
    log.add(part);
    expect(log.admit({ ...retract(id(3)), seq: 3 })).toMatchObject({
      field: 'target',
      message: 'Say how the part is instead: that replaces what was said.',
    });
  });
});

describe('a visit', () => {
  const at = { unitId: trailer.id, partId: 'relay' };
  const seen = (n: number, lane: string, seq: number, change: object = {}): VisitFact => ({
    ...{ id: id(n), lane, seq, atMs: startMs + n * 1_000, offsetMs: 0, v: 1 },
    ...{ kind: 'seen', at, standing: 'bad', text: 'Hiss at the exhaust' },
    ...change,
  });

  it('holds what several people wrote, whoever sent first', () => {
    const log = visit([seen(2, laneB, 1), note(1, laneA, 1, startMs)]);
    expect(log.state.entries.map(sayEntry)).toEqual(['n1', 'Hiss at the exhaust']);
    expect(visitKind.summary(header, log.state)).toMatchObject({
      verdict: null,
      headline: '1 thing is not right: Hiss at the exhaust',
    });
  });

  it('takes parts that its units have, and no others', () => {
    const log = visit();
    expect(log.admit(seen(1, laneA, 1))).toBeNull();
    expect(log.admit(seen(1, laneA, 1, { at: { ...at, partId: 'governor' } }))?.message).toBe(
      'This unit has no part "governor".',
    );
    expect(
      log.admit(seen(1, laneA, 1, { at: { unitId: testUnit().id, partId: 'governor' } }))?.field,
    ).toBe('at.unitId');
  });

  it('takes water that one cord drained out of several tanks, of tanks that the unit has', () => {
    const log = visit();
    const drained = (beside: readonly string[]) =>
      seen(1, laneA, 1, {
        ...{ kind: 'check', at: { unitId: tractor.id, partId: 'primary-tank' } },
        ...{ checkId: '0/drain/primary tank', title: 'Drain', said: 'A cup' },
        ...{ answer: { kind: 'grade', grade: 'cup' }, text: undefined, standing: undefined },
        water: { ml: null, what: [], stuck: false, with: beside },
      });
    expect(log.admit(drained([]))).toBeNull();
    expect(log.admit(drained(['secondary-tank']))).toBeNull();
    expect(log.admit(drained(['secondary-tank', 'coffee-tank']))).toMatchObject({
      field: 'water.with',
      message: 'This unit has no part "coffee-tank".',
    });
  });

  it('takes as many lines of a unit as a rig has many times over, then asks for another visit', () => {
    const line = (n: number): VisitFact =>
      seen(n, laneA, n, {
        kind: 'line',
        at: { unitId: trailer.id, lineId: `line-${n}` },
        record: { id: `line-${n}`, standing: 'fitted' },
      });
    const full = Array.from({ length: 160 }, (_, n) => line(n + 1));
    expect(visit(full.slice(1)).admit(line(161))).toBeNull();
    expect(visit(full).admit(line(161))?.message).toContain('up to 160 lines');
    // One of those can still be said anew.
    expect(
      visit(full).admit({
        ...line(161),
        at: { unitId: trailer.id, lineId: 'line-3' },
      } as VisitFact),
    ).toBeNull();
  });

  it('shows a correction in place of what it corrects, and drops what was taken back', () => {
    const log = visit([
      seen(1, laneA, 1),
      seen(2, laneB, 1, { supersedes: id(1), text: 'Hiss, released' }),
      note(3, laneA, 2, startMs + 3_000),
      { ...note(4, laneA, 3, startMs + 4_000), kind: 'retract', target: id(3) } as never,
    ]);
    expect(log.state.entries.map(sayEntry)).toEqual(['Hiss, released']);
  });

  it('takes a correction of an entry of the same kind alone, and of one that is there', () => {
    const log = visit([seen(1, laneA, 1), note(2, laneA, 2, startMs + 3_000)]);
    expect(log.admit(seen(3, laneB, 1, { supersedes: id(1) }))).toBeNull();
    for (const target of [id(2), id(99)])
      expect(log.admit(seen(3, laneB, 1, { supersedes: target }))).toMatchObject({
        field: 'supersedes',
        message: 'The entry to correct is not there.',
      });
  });

  it('goes on in time within a lane, but for what is taken back, put right, or said of the clock', () => {
    const log = visit([seen(1, laneA, 1), note(2, laneA, 2, startMs + 60_000)]);
    const early = startMs + 30_000;
    expect(log.admit(note(3, laneA, 3, early))?.message).toContain('went back by 30 s');
    expect(log.admit(note(3, laneA, 3, startMs + 60_000))).toBeNull();
    const retract = { ...note(3, laneA, 3, early), kind: 'retract', target: id(2) };
    expect(log.admit(retract as never)).toBeNull();
    const clock = { ...note(3, laneA, 3, early), kind: 'clock', of: laneA, aheadMs: 5_000 };
    expect(log.admit(clock as never)).toBeNull();
    // The other phone's clock is its own.
    expect(log.admit(note(3, laneB, 1, early))).toBeNull();
  });

  it('still takes what was written by somebody who had not heard of its closing', () => {
    const log = visit([
      note(1, laneA, 1, startMs),
      { ...note(2, laneA, 2, startMs + 5_000), kind: 'close' } as never,
    ]);
    expect(log.state.closed).toEqual({ atMs: startMs + 5_000 });
    expect(log.admit(note(3, laneB, 1, startMs + 60_000))).toBeNull();
  });
});

it('folds a mark the same with a thousand facts before it as with one', () => {
  // By what it does, not by the clock: the fold of an added mark never asks for the earlier facts again.
  const walk = new Walk().ready();
  const log = new FoldedLog(runKind, walk.log.header, walk.facts);
  let seq = walk.facts.length;
  const add = (fact: object) => {
    seq += 1;
    log.add({
      ...walk.facts[0]!,
      id: id(20_000 + seq),
      seq,
      atMs: startMs + seq,
      ...fact,
    });
  };
  for (let n = 0; n < 1_000; n += 1) add({ kind: 'note', stepId: 'build-up', text: 'x' });
  expect(log.state.notes).toHaveLength(1_000);
  const before = log.state.notes[0];
  add({ kind: 'note', stepId: 'build-up', text: 'y' });
  expect(log.state.notes[0]).toBe(before);
});
