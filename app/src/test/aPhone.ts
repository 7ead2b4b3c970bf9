import type { AnyFact, RunFact, RunHeader, VisitFact, VisitHeader } from '@keen-bleed/contract';
import * as core from '@keen-bleed/core';
import type { NewFact } from '@keen-bleed/core';
import { IDBFactory } from 'fake-indexeddb';
import type * as Database from '../store/database';
import type * as Kept from '../store/kept';
import type * as Logs from '../store/logs';
import type * as Outbox from '../store/outbox';
import type * as RecordFact from '../store/recordFact';
import type * as StartRun from '../store/startRun';
import type * as StartVisit from '../store/startVisit';
import type { FakeServer } from './fakeServer';

/** Who holds a made-up phone. */
export const me = {
  shopId: '00000000-0000-7000-8000-0000000000aa',
  personId: '00000000-0000-7000-8000-0000000000bb',
};

/* eslint-disable @typescript-eslint/no-require-imports -- a page that starts anew loads its modules anew */
const load = () => ({
  database: require('../store/database') as typeof Database,
  kept: require('../store/kept') as typeof Kept,
  logs: require('../store/logs') as typeof Logs,
  outbox: require('../store/outbox') as typeof Outbox,
  recording: require('../store/recordFact') as typeof RecordFact,
  startRun: require('../store/startRun') as typeof StartRun,
  startVisit: require('../store/startVisit') as typeof StartVisit,
});
/* eslint-enable @typescript-eslint/no-require-imports */

/** One page of the app on a phone: its modules over the phone's disk. */
export type Page = ReturnType<typeof load>;

/** Opens the app as a page that starts anew: what was in memory is gone, the disk is what it was. */
export function openPage(): Page {
  jest.resetModules();
  // The computation holds no state, and is large: one copy serves every page.
  jest.doMock('@keen-bleed/core', () => core);
  const page = load();
  open.add(page);
  return page;
}

const open = new Set<Page>();

/** Ends what every page still does, so that none sends to the next test's server. */
export async function pagesOff(): Promise<void> {
  const ended = [...open].map(async ({ outbox }) => {
    await outbox.setOutboxOwner(null);
    await outbox.sendNow();
  });
  open.clear();
  await Promise.all(ended);
  jest.clearAllTimers();
}

/** A phone with an empty disk and its first page. */
export function aPhone(server: FakeServer): Page {
  globalThis.indexedDB = new IDBFactory();
  globalThis.fetch = server.fetch as unknown as typeof fetch;
  return openPage();
}

/** Records a fact on a page, as the screen does. */
export async function record(
  { kept, logs, recording }: Page,
  logId: string,
  fact: NewFact<RunFact> | NewFact<VisitFact>,
  who = me,
  atMs = Date.now(),
): Promise<void> {
  const log = await logs.keptLog(logId);
  if (!log) throw new Error('no such log here');
  const done = await recording.recordFact(
    { log: logs.folded(log), lane: await kept.laneOf(who) },
    fact,
    atMs,
  );
  if ('problem' in done) throw new Error(done.problem);
}

/** Puts a run on the phone's disk, for tests that do not care what it is on. */
export async function aRun(
  { logs }: Page,
  header: RunHeader | VisitHeader,
  who = me,
): Promise<string> {
  await logs.openOnDevice(who, header, () => false);
  return header.id;
}

/** The facts kept of a log, lane by lane in their order. */
export async function keptFacts({ logs }: Page, logId: string): Promise<AnyFact[]> {
  const kept = await logs.keptLog(logId);
  return (kept?.rows ?? []).sort((a, b) => a.seq - b.seq).map(({ fact }) => fact);
}
