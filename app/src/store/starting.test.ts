/** @jest-environment node */
import 'fake-indexeddb/auto';
import type { LogRecord, RuleSet, RunFact, Unit } from '@keen-bleed/contract';
import { roadTest } from '@keen-bleed/core';
import { v7 as uuidv7 } from 'uuid';
import { me } from '../test/aPhone';
import { madeUpUnit } from '../test/madeUpUnit';
import { asTheShopHasIt } from './asTheShopHasIt';
import { closedRunOf, changeLog, keptLog, openLogs, openRunOf } from './logs';
import { startJob } from './startJob';
import { runFromTrace, runHeaderOf, startRun } from './startRun';
import { startVisit } from './startVisit';
import { takeOver } from './takeOver';

Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

/** What the shop's server answers by path; nothing is offline. */
let answers: Record<string, unknown> = {};
beforeEach(() => {
  answers = {};
  globalThis.fetch = ((path: string) =>
    path in answers
      ? Promise.resolve(
          new Response(JSON.stringify(answers[path]), {
            headers: { 'content-type': 'application/json' },
          }),
        )
      : Promise.reject(new TypeError('network'))) as typeof fetch;
});

let n = 0;
/** A unit that nothing here knows yet. */
const aUnit = (change: Partial<Unit> = {}): Unit =>
  madeUpUnit('truck', { id: uuidv7(), number: String((n += 1)), ...change });
const on = (unit: Unit) => ({
  unit,
  towed: [],
  ruleSet: roadTest,
  leftOut: ['drain'],
  rigId: null,
});
const other = { ...me, personId: uuidv7() };
const note: { kind: 'note'; stepId: string; text: string } = {
  ...{ kind: 'note', stepId: 'prepare', text: 'Found so' },
};

describe('a run that is started', () => {
  it('begins with what it is given, in turn, and is gone on with where it is open here', async () => {
    const unit = aUnit();
    const id = await startRun(me, on(unit), [note, { ...note, text: 'And so' }]);
    const kept = await keptLog(id);
    const facts = (kept?.rows ?? []).map(({ fact }) => fact as RunFact);
    expect(facts.map(({ seq }) => seq).sort()).toEqual([1, 2]);
    expect(new Set(facts.map(({ lane }) => lane)).size).toBe(1);
    expect(kept?.log).toMatchObject({ unitId: unit.id, closed: 0, opened: 0, refused: null });
    expect(await startRun(me, on(unit))).toBe(id);
    expect((await openRunOf(me, unit.id))?.id).toBe(id);
    expect(await openRunOf(other, unit.id)).toBeNull();
    expect(await startRun(other, on(unit))).not.toBe(id);
    await changeLog(id, { closed: 1 });
    expect(await openRunOf(me, unit.id)).toBeNull();
    expect((await closedRunOf(me, unit.id))?.log.id).toBe(id);
    expect(await closedRunOf({ ...me, shopId: uuidv7() }, unit.id)).toBeNull();
  });

  it('out of a recorded trace does not write into one that is open', async () => {
    const unit = aUnit();
    const header = runHeaderOf(on(unit), 1);
    const facts = [{ ...note, atMs: 5 }];
    const made = await runFromTrace(me, header, facts);
    expect(made).toEqual({ id: header.id });
    expect((await keptLog(header.id))?.rows).toHaveLength(1);
    const again = await runFromTrace(me, runHeaderOf(on(unit), 2), facts);
    expect(again).toEqual({ problem: expect.stringContaining('is open here') as string });
    expect((await keptLog(header.id))?.rows).toHaveLength(1);
  });

  it('stands among what is open, newest first, without what is another’s', async () => {
    const [first, second] = [aUnit(), aUnit()];
    const older = await startRun(me, on(first));
    await changeLog(older, { header: { ...runHeaderOf(on(first), 1), id: older } });
    const newer = await startRun(me, on(second));
    const theirs = await startRun(other, on(aUnit()));
    const ids = (await openLogs(me)).map(({ id }) => id);
    expect(ids.indexOf(newer)).toBeLessThan(ids.indexOf(older));
    expect(ids).not.toContain(theirs);
  });
});

describe('a visit and a job', () => {
  it('are gone on with where the same is open here, and are others for another rig or another thing', async () => {
    const unit = aUnit();
    const visit = { units: [unit] as [Unit], rigId: null, reason: 'Air bangs' };
    const id = await startVisit(me, visit);
    expect((await keptLog(id))?.log.header).toMatchObject({
      kind: 'visit',
      made: { units: [{ id: unit.id }], reason: 'Air bangs' },
    });
    expect(await startVisit(me, visit)).toBe(id);
    expect(await startVisit(me, { ...visit, rigId: uuidv7() })).not.toBe(id);

    const [runId, otherRun] = [uuidv7(), uuidv7()];
    const bornOf = (of: string) => ({ kind: 'failure', runId: of, key: 'static-leak' }) as const;
    const job = (of: string) => ({
      ...{ units: [unit] as [Unit], rigId: null, found: 'Leaks', failures: [] },
      bornOf: bornOf(of),
    });
    const begun = await startJob(me, job(runId) as never);
    expect(await startJob(me, job(runId) as never)).toBe(begun);
    expect(await startJob(me, job(otherRun) as never)).not.toBe(begun);
    const byHand = { ...job(runId), bornOf: { kind: 'hand' } } as never;
    expect(await startJob(me, byHand)).not.toBe(await startJob(me, byHand));
  });
});

describe('a log the server did not take', () => {
  const edited = (unit: Unit): Unit => ({ ...unit, revision: 7, name: 'As the shop has it' });

  it('goes on the units and by the rule set as the shop has them now', async () => {
    const unit = aUnit();
    const set: RuleSet = { ...roadTest, revision: 9 };
    answers = {
      '/api/v1/units': [edited(unit)],
      '/api/v1/rule-sets': { sets: [set], defaultId: set.id },
    };
    const refused = {
      ...{ code: 'not-right', message: 'x', field: null, factId: null, atMs: 1, build: 'b' },
    };
    const runId = await startRun(me, on(unit));
    await changeLog(runId, { refused });
    await asTheShopHasIt(runId);
    const run = (await keptLog(runId))?.log;
    expect(run?.refused).toBeNull();
    expect(run?.header.made).toMatchObject({
      unit: { revision: 7 },
      ruleSet: { revision: 9 },
      leftOut: ['drain'],
    });
    const visitId = await startVisit(me, { units: [unit], rigId: null, reason: null });
    await changeLog(visitId, { refused });
    await asTheShopHasIt(visitId);
    const visit = (await keptLog(visitId))?.log;
    expect(visit).toMatchObject({ refused: null, header: { made: { units: [{ revision: 7 }] } } });
    expect(visit?.header.kind).toBe('visit');
    const jobId = await startJob(me, {
      ...{ units: [unit], rigId: null, found: 'Leaks', failures: [], bornOf: { kind: 'hand' } },
    } as never);
    await changeLog(jobId, { refused });
    await asTheShopHasIt(jobId);
    expect((await keptLog(jobId))?.log).toMatchObject({
      ...{ refused: null, header: { kind: 'job', made: { units: [{ revision: 7 }] } } },
    });
    expect((await keptLog(jobId))?.log.header.made).toMatchObject({ found: 'Leaks' });
  });

  it('stays as it is where the server has it, and where the shop has no such unit or set any more', async () => {
    const unit = aUnit();
    const runId = await startRun(me, on(unit));
    answers = { '/api/v1/units': [], '/api/v1/rule-sets': { sets: [roadTest], defaultId: '' } };
    await expect(asTheShopHasIt(runId)).rejects.toThrow(`Unit ${unit.number} is no longer`);
    answers = { '/api/v1/units': [edited(unit)], '/api/v1/rule-sets': { sets: [], defaultId: '' } };
    await expect(asTheShopHasIt(runId)).rejects.toThrow('no longer has the rule set');
    await changeLog(runId, { opened: 1 });
    await asTheShopHasIt(runId);
    expect((await keptLog(runId))?.log.header.made).toMatchObject({
      unit: { revision: unit.revision },
    });
  });
});

describe('a run that is taken over', () => {
  it('is kept here with what the other device had said, and says who took it and what was known', async () => {
    const unit = aUnit();
    const header = runHeaderOf(on(unit), 1);
    const lane = uuidv7();
    const said = (seq: number, text: string) =>
      ({ ...note, text, id: uuidv7(), lane, seq, atMs: seq, offsetMs: 0, v: header.v }) as RunFact;
    const facts = [said(1, 'one'), said(2, 'two')].map((fact) => ({ ...fact, receivedAtMs: 9 }));
    const record = {
      ...{ header, facts: facts.slice(0, 1), writers: { [lane]: 'Other' }, by: 'Other' },
      ...{ byPersonId: other.personId, startedAtMs: 1, closedAtMs: null, timeUnsure: false },
      ...{ chain: { links: 1, head: null, brokenAt: null }, overlapping: [] },
    } as unknown as LogRecord<'run'>;
    // The server has heard one more since the screen was drawn.
    answers[`/api/v1/logs/${header.id}`] = { ...record, facts };
    expect(await takeOver(me, record)).toBeNull();
    const kept = await keptLog(header.id);
    expect(kept?.log).toMatchObject({ personId: other.personId, takenBy: me.personId });
    const own = kept?.rows.map(({ fact }) => fact).filter((fact) => fact.lane !== lane);
    expect(kept?.rows).toHaveLength(3);
    expect(own).toMatchObject([{ kind: 'take-over', knew: { [lane]: 2 }, seq: 1 }]);
  });
});

describe('a run that somebody takes back on a device of theirs', () => {
  it('is theirs there as before, and knows its own lane without saying so', async () => {
    const unit = aUnit();
    const id = await startRun(me, on(unit));
    const { log, rows } = (await keptLog(id))!;
    const record = {
      ...{ header: log.header, writers: {}, by: 'Me', byPersonId: me.personId, startedAtMs: 1 },
      ...{ facts: rows.map(({ fact }) => ({ ...fact, receivedAtMs: 9 })), closedAtMs: null },
    } as unknown as LogRecord<'run'>;
    answers[`/api/v1/logs/${id}`] = record;
    expect(await takeOver(me, record)).toBeNull();
    const after = (await keptLog(id))!;
    expect(after.log.takenBy).toBeUndefined();
    const taken = after.rows.map(({ fact }) => fact).find(({ kind }) => kind === 'take-over');
    expect(taken).toMatchObject({ knew: {} });
  });
});
