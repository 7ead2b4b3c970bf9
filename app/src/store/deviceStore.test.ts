/**
 * @jest-environment node
 */
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { openDB } from 'idb';
import { keptFacts, me, openPage } from '../test/aPhone';
import type { DeviceLog } from './database';
import { leaveOldLogs, mayLeave } from './retention';
import truck from '../../../core/src/log/golden/records/run-0.2.0-truck.json';

Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

describe('what the first version kept on the device', () => {
  /** The store as the first version left it, with two tabs’ facts in one place. */
  async function firstVersion(isClosed = false) {
    globalThis.indexedDB = new IDBFactory();
    const { header, facts } = truck;
    const db = await openDB('keen-bleed', 1, {
      upgrade(old) {
        const runs = old.createObjectStore('runs', { keyPath: 'id' });
        runs.createIndex('by-unit', 'header.unitId');
        const events = old.createObjectStore('events', { keyPath: 'id' });
        events.createIndex('by-run', 'runId');
        events.createIndex('by-sent', 'sent');
        old.createObjectStore('kept');
      },
    });
    await db.put('runs', {
      id: header.id,
      ...me,
      header,
      opened: true,
      closed: isClosed,
      refused: 'The next place in this run is 4.',
    });
    const open = facts.filter((fact) => isClosed || fact.kind !== 'close');
    const doubled = { ...open[3], id: '00000000-0000-7000-8000-00000000d0d0' };
    for (const event of isClosed ? facts : [...open, doubled]) {
      await db.put('events', {
        id: event.id,
        runId: header.id,
        event,
        sent: (event as unknown as { seq: number }).seq <= 3 ? 1 : 0,
      });
    }
    await db.put('kept', { ...me, name: 'Idris' }, 'me');
    db.close();
    return { runId: header.id, count: open.length + 1 };
  }

  it('is all there afterwards, each fact in a place of its own, and what stuck is tried again', async () => {
    const { runId, count } = await firstVersion();
    const page = openPage();
    const kept = await page.logs.keptLog(runId);
    expect(kept?.log).toMatchObject({ kind: 'run', opened: 1, closed: 0, refused: null });
    expect(kept?.log.header).toMatchObject({ v: 2, coreVersion: '0.2.0' });
    const facts = await keptFacts(page, runId);
    expect(facts.map(({ seq }) => seq)).toEqual(Array.from({ length: count }, (_, n) => n + 1));
    expect(new Set(facts.map(({ lane }) => lane))).toEqual(new Set([runId]));
    // The three that were sent keep their places; they are the server's.
    expect(kept?.rows.filter(({ sent }) => sent === 1).map(({ seq }) => seq)).toEqual([1, 2, 3]);
    expect(await page.kept.keptMe()).toMatchObject({ name: 'Idris' });
    // Every fact still finds its step.
    const folded = page.logs.folded(kept!);
    const steps = kept?.log.header.kind === 'run' ? kept.log.header.made.steps : [];
    for (const fact of folded.facts) {
      if ('stepId' in fact) expect(steps.map((step) => step.id)).toContain(fact.stepId);
    }
  });

  it('says how a closed run came out, as it is judged today', async () => {
    const { runId } = await firstVersion(true);
    const kept = await openPage().logs.keptLog(runId);
    // Its own version failed it; the doubt it is judged with since then leaves that open.
    expect(kept?.log).toMatchObject({ closed: 1, verdict: 'cant-tell' });
    expect(truck.judged.verdict).toBe('fail');
  });
});

describe('what may leave the device', () => {
  const day = 86_400_000;
  const nowMs = 100 * day;
  const log = (id: string, startedDay: number, change: Partial<DeviceLog> = {}): DeviceLog =>
    ({
      id,
      kind: 'run',
      ...me,
      unitId: 'u',
      header: { startedAtMs: startedDay * day },
      opened: 1,
      closed: 1,
      refused: null,
      confirmedAtMs: startedDay * day,
      writers: {},
      verdict: 'pass',
      ...change,
    }) as DeviceLog;

  it('is what the server has confirmed for thirty days, but not a unit’s last three runs', () => {
    const logs = [log('a', 1), log('b', 2), log('c', 3), log('d', 4), log('e', 5)];
    expect(mayLeave(logs, nowMs)).toEqual(['a', 'b']);
    expect(mayLeave(logs, 20 * day)).toEqual([]);
  });

  it('is no failure that no later run has passed, nothing open, and nothing the server has not confirmed', () => {
    const failing = [
      log('failed', 1, { verdict: 'fail' }),
      ...['c', 'd', 'e'].map((id, n) => log(id, 10 + n, { verdict: 'incomplete' })),
    ];
    expect(mayLeave(failing, nowMs)).toEqual([]);
    const passed = failing.map((each) => (each.id === 'e' ? { ...each, verdict: 'pass' } : each));
    expect(mayLeave(passed, nowMs)).toEqual(['failed']);
    expect(mayLeave([log('v', 1, { kind: 'visit', verdict: null })], nowMs)).toEqual(['v']);
    expect(mayLeave([log('v', 1, { kind: 'visit', closed: 0 })], nowMs)).toEqual([]);
    expect(mayLeave([log('v', 1, { kind: 'visit', confirmedAtMs: null })], nowMs)).toEqual([]);
  });

  it('goes by when each unit’s runs were begun, in whatever order they are kept', () => {
    const shuffled = [log('e', 5), log('a', 1), log('c', 3), log('b', 2), log('d', 4)];
    const other = ['x', 'y', 'z'].map((id, n) => log(id, n, { unitId: 'another' }));
    expect(mayLeave([...other, ...shuffled], nowMs).sort()).toEqual(['a', 'b']);
    // A failure that came after the last pass stays beside the newest three.
    const failedSince = [log('pass', 1, { verdict: 'pass' }), log('fail', 2, { verdict: 'fail' })];
    const newer = ['c', 'd', 'e'].map((id, n) => log(id, 10 + n, { verdict: 'incomplete' }));
    expect(mayLeave([...newer, ...failedSince], nowMs)).toEqual(['pass']);
    // A closed run that was not passed and did not fail is no failure.
    const incomplete = log('inc', 3, { verdict: 'incomplete' });
    expect(mayLeave([...newer, incomplete], nowMs)).toEqual(['inc']);
  });

  it('is what was confirmed more than thirty days ago', () => {
    const visit = log('v', 1, { kind: 'visit', verdict: null });
    const { confirmedAtMs } = visit;
    expect(mayLeave([visit], confirmedAtMs! + 30 * day)).toEqual([]);
    expect(mayLeave([visit], confirmedAtMs! + 30 * day + 1)).toEqual(['v']);
  });

  it('leaves with all that belongs to it, and stays whole where something of it was not sent', async () => {
    globalThis.indexedDB = new IDBFactory();
    const { database } = openPage();
    const db = await database.database();
    const fact = (logId: string, seq: number, sent: 0 | 1) => ({
      ...{ id: `${logId}${seq}`, logId, lane: 'l', seq, sent, epoch: '' },
      fact: { kind: 'note' } as never,
    });
    for (const id of ['old', 'unsent', 'young']) {
      await db.put('logs', log(id, id === 'young' ? 90 : 1, { kind: 'visit', verdict: null }));
      await db.put('facts', fact(id, 1, 1));
      await db.put('facts', fact(id, 2, id === 'unsent' ? 0 : 1));
      await db.put('blobs', { id: `photo ${id}`, logId: id, blob: new Blob(['x']), sent: 1 });
      const dropped = { id: `dropped ${id}`, logId: id, why: '', atMs: 1 };
      await db.put('dropped', { ...dropped, fact: { kind: 'note' } as never });
    }
    await leaveOldLogs(nowMs);
    expect(await db.getAllKeys('logs')).toEqual(['unsent', 'young']);
    expect(await db.getAllKeys('facts')).toEqual(['unsent1', 'unsent2', 'young1', 'young2']);
    expect(await db.getAllKeys('blobs')).toEqual(['photo unsent', 'photo young']);
    expect(await db.getAllKeys('dropped')).toEqual(['dropped unsent', 'dropped young']);
  });
});
