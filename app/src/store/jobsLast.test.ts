/**
 * @jest-environment node
 */
import 'fake-indexeddb/auto';
import type { JobHeader, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, JOB_VERSION, VISIT_VERSION } from '@keen-bleed/core';
import { aPhone, aRun, me, pagesOff, record } from '../test/aPhone';
import { FakeServer } from '../test/fakeServer';
import { madeUpUnit } from '../test/madeUpUnit';

// A browser without locks, as some phones' are.
Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

const unit = madeUpUnit();
const of = (id: string) => ({
  id,
  subject: { unitId: unit.id, rigId: null, partId: null },
  ...{ startedAtMs: 1, offsetMs: 0, coreVersion: CORE_VERSION },
});
/** A job is older than the check that retests it. */
const job: JobHeader = {
  ...of('00000000-0000-7000-8000-000000000901'),
  kind: 'job',
  v: JOB_VERSION,
  made: {
    units: [unit],
    bornOf: { kind: 'hand' },
    found: 'It blows',
    foundOn: [unit.id],
    failures: [],
    suspected: null,
  },
};
const visit: VisitHeader = {
  ...of('00000000-0000-7000-8000-000000000902'),
  kind: 'visit',
  v: VISIT_VERSION,
  made: { units: [unit], reason: null },
};
const note = (text: string) => ({ kind: 'note', text }) as never;

/** What a server took, in the order it took it. */
const taken = (server: FakeServer) => {
  const order: string[] = [];
  server.refuses = (piece) => {
    if ('text' in piece) order.push(String(piece.text));
    return null;
  };
  return order;
};

beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] }));
afterEach(async () => {
  await pagesOff();
  jest.useRealTimers();
});

describe('what a job names is at the server before the job says so', () => {
  it('though the job is older than the check', async () => {
    const server = new FakeServer();
    const order = taken(server);
    const page = aPhone(server);
    await aRun(page, job as never);
    await aRun(page, visit);
    await record(page, visit.id, note('check'));
    await record(page, job.id, note('retest by that check'));
    await page.outbox.setOutboxOwner(me);
    expect(order).toEqual(['check', 'retest by that check']);
  });

  it('though both were written while the job was on its way', async () => {
    const server = new FakeServer();
    const order = taken(server);
    const page = aPhone(server);
    await aRun(page, job as never);
    await aRun(page, visit);
    await record(page, job.id, note('begun'));
    const take = server.fetch;
    let written: Promise<void> | null = null;
    globalThis.fetch = (async (path: string, init: { method?: string; body?: unknown }) => {
      // The pass has looked at what waits; the job is opened, and its facts have not been read.
      if (path === '/api/v1/logs' && String(init.body).includes(job.id)) {
        written ??= (async () => {
          await record(page, visit.id, note('check'));
          await record(page, job.id, note('retest by that check'));
        })();
        await written;
        page.outbox.sendSoon();
        jest.advanceTimersByTime(1_000);
      }
      return take(path, init);
    }) as unknown as typeof fetch;
    await page.outbox.setOutboxOwner(me);
    await page.outbox.sendNow();
    await page.outbox.sendNow();
    expect(order).toEqual(['begun', 'check', 'retest by that check']);
  });

  it('and a job that the server has lost the beginning of is whole again at once', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    await aRun(page, job as never);
    await record(page, job.id, note('begun'));
    await page.outbox.setOutboxOwner(me);
    // Restored from a backup of before the first entry.
    server.facts.set(job.id, []);
    const order = taken(server);
    await record(page, job.id, note('gone on'));
    await page.outbox.sendNow();
    // The first time it is turned away: the server lacks what comes before it.
    expect(order).toEqual(['gone on', 'begun', 'gone on']);
    expect(server.held(job.id).held).toBe(2);
  });
});
