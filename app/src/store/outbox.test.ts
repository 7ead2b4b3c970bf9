/**
 * @jest-environment node
 */
import 'fake-indexeddb/auto';
import type { AnyFact, RunHeader, VisitHeader } from '@keen-bleed/contract';
import { CORE_VERSION, RUN_VERSION, roadTest, runMade, VISIT_VERSION } from '@keen-bleed/core';
import fc from 'fast-check';
import { aPhone, aRun, keptFacts, me, openPage, pagesOff, record, type Page } from '../test/aPhone';
import { FakeServer, type Weather } from '../test/fakeServer';
import { madeUpUnit } from '../test/madeUpUnit';
import { buildName } from './buildName';

// A browser without locks, as some phones' are.
Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

const unit = madeUpUnit();
const made = runMade({ unit, towed: [], ruleSet: roadTest, leftOut: ['drain'] });
const id = (number: number) => `00000000-0000-7000-8000-${String(number).padStart(12, '0')}`;
const run = (n: number, unitId = unit.id): RunHeader => ({
  id: id(n),
  kind: 'run',
  v: RUN_VERSION,
  subject: { unitId, rigId: null, partId: null },
  startedAtMs: 1,
  offsetMs: 0,
  coreVersion: CORE_VERSION,
  made,
});
const visit = (n: number): VisitHeader => ({
  ...run(n),
  kind: 'visit',
  v: VISIT_VERSION,
  made: { units: [unit], reason: null },
});
const note = (text: string) => ({ kind: 'note', stepId: 'prepare', text }) as const;
const textsOf = (facts: readonly AnyFact[] = []) =>
  facts.map((fact) => ('text' in fact ? fact.text : fact.kind));

beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] }));
afterEach(async () => {
  await pagesOff();
  jest.useRealTimers();
});

/** Signs in at a server that breaks once over the facts, and is well afterwards. */
async function signInTo(page: Page, server: FakeServer): Promise<void> {
  server.refuses = (piece) =>
    'text' in piece ? { code: 'went-wrong', message: 'broke', status: 500 } : null;
  await signIn(page);
  server.refuses = () => null;
}

/** Signs in on a page, and waits for all that follows from it. */
const signIn = ({ outbox }: Page, who = me): Promise<void> => outbox.setOutboxOwner(who);

describe('the outbox', () => {
  it('sends a run and its facts, once, and then has nothing to send', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    await record(page, runId, note('b'));
    await signIn(page);
    expect(textsOf(server.facts.get(runId))).toEqual(['a', 'b']);
    expect(await page.logs.countUnsent()).toBe(0);
    // Only what is closed and sent may leave the device one day.
    expect((await page.logs.keptLog(runId))?.log.confirmedAtMs).toBeNull();
    // Each thing is asked for once: the record, and its facts in one lot.
    const asked = ['POST /api/v1/logs', `POST /api/v1/logs/${runId}/facts`];
    expect(server.requests).toEqual(asked);
    await page.outbox.sendNow();
    expect(server.requests).toHaveLength(asked.length);
    expect(page.outbox.outboxNow()).toEqual({
      ...{ unsent: 0, refused: 0, standing: 'sent', message: null },
    });
  });

  it('counts what waits where a log is opened on the screen, and says that it is being sent', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await page.outbox.countWaiting();
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 0, standing: 'sent' });
    await record(page, runId, note('a'));
    await page.outbox.countWaiting();
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 1, standing: 'sending' });
    // Where there is no network, that is what is said.
    server.weather = ['lost-request', 'lost-request'];
    await signIn(page);
    await page.outbox.countWaiting();
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 1, standing: 'offline' });
  });

  it('asks to sign in where something waits, and nothing of the kind where nothing does', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    server.weather = ['signed-out'];
    await signIn(page);
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 0, standing: 'sent' });
    await record(page, runId, note('a'));
    server.weather = ['signed-out'];
    await page.outbox.sendNow();
    expect(page.outbox.outboxNow()).toEqual({
      ...{ unsent: 1, refused: 0, standing: 'signed-out', message: 'sign in' },
    });
    // It is not tried again by itself: only a sign-in helps.
    const before = server.requests.length;
    await jest.advanceTimersByTimeAsync(120_000);
    expect(server.requests).toHaveLength(before);
    await page.outbox.setOutboxOwner(null);
    await signIn(page);
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
  });

  it('sends by itself a moment after it is told of more, and counts that for the sign', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    const sent = async () => {
      await jest.advanceTimersByTimeAsync(500);
      for (let turn = 0; turn < 100; turn += 1) await new Promise(setImmediate);
      return textsOf(server.facts.get(runId));
    };
    await record(page, runId, note('a'));
    expect(await sent()).toEqual([]);
    page.outbox.sendSoon();
    expect(await sent()).toEqual(['a']);
    await record(page, runId, note('b'));
    const said: number[] = [];
    page.outbox.onOutbox(() => said.push(page.outbox.outboxNow().unsent));
    page.outbox.moreSoon(1);
    expect(said).toEqual([]);
    expect(await sent()).toEqual(['a', 'b']);
    expect(said[0]).toBe(1);
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 0, standing: 'sent' });
  });

  it('leaves another person’s record that a restored server lacks to that person', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const other = { ...me, personId: id(77) };
    const visitId = await aRun(page, visit(1), other);
    await record(page, visitId, { kind: 'note', at: null, text: 'theirs' }, other);
    await signIn(page, other);
    await signIn(page);
    server.logs.delete(visitId);
    server.facts.delete(visitId);
    await record(page, visitId, { kind: 'note', at: null, text: 'mine' });
    await page.outbox.sendNow();
    expect(server.logs.has(visitId)).toBe(false);
    expect((await page.logs.keptLog(visitId))?.log).toMatchObject({ opened: 1 });
    expect(page.outbox.outboxNow()).toMatchObject({ standing: 'refused', unsent: 1 });
    // They come back, and bring all of it; what the first wrote is theirs to send again.
    await page.outbox.setOutboxOwner(null);
    await signIn(openPage(), other);
    expect(textsOf(server.facts.get(visitId))).toEqual(['theirs']);
    await signIn(openPage());
    expect(textsOf(server.facts.get(visitId))).toEqual(['theirs', 'mine']);
  });

  it('sends a long absence in lots the server takes, none twice, whatever comes between', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    const said = Array.from({ length: 201 }, (_, n) => String(n));
    for (const text of said) await record(page, runId, note(text));
    server.weather = ['ok', 'lost-request'];
    await page.outbox.sendNow();
    expect(server.lots).toEqual([200]);
    // What was answered is not sent again, nor is anything once all is.
    await page.outbox.sendNow();
    await page.outbox.sendNow();
    expect(server.lots).toEqual([200, 1]);
    expect(textsOf(server.facts.get(runId))).toEqual(said);
    await record(page, runId, note('new'));
    await page.outbox.sendNow();
    expect(server.lots).toEqual([200, 1, 1]);
  });

  it('never hands in what another person marked', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const other = { ...me, personId: id(77) };
    const runId = await aRun(page, run(1), other);
    await record(page, runId, note('theirs'), other);
    await signIn(page);
    expect(server.facts.size).toBe(0);
    expect(await page.logs.countUnsent()).toBe(1);
  });

  it('does not take a guest network’s empty answer for a receipt', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    await record(page, runId, note('a'));
    server.weather = ['guest-network'];
    await page.outbox.sendNow();
    expect(await page.logs.countUnsent()).toBe(1);
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
    expect(await page.logs.countUnsent()).toBe(0);
  });

  it('does not take a proxy’s words for the server’s: it goes out by itself, and nobody is asked to look', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    await record(page, runId, note('a'));
    server.weather = ['proxy'];
    await page.outbox.sendNow();
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 1, refused: 0, standing: 'offline' });
    await jest.advanceTimersByTimeAsync(15_500);
    for (let turn = 0; turn < 100; turn += 1) await new Promise(setImmediate);
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
    expect(page.outbox.outboxNow()).toMatchObject({ unsent: 0, standing: 'sent' });
  });

  it('brings a restored server what it lost, at the next start', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const [gone, cut] = [await aRun(page, run(1)), await aRun(page, run(2, id(52)))];
    for (const runId of [gone, cut]) {
      for (const text of ['a', 'b', 'c']) await record(page, runId, note(text));
    }
    await signIn(page);
    // The backup is older than the first run, and than the second’s last two facts.
    server.logs.delete(gone);
    server.facts.delete(gone);
    server.facts.set(cut, (server.facts.get(cut) ?? []).slice(0, 1));
    await signIn(openPage());
    expect(textsOf(server.facts.get(gone))).toEqual(['a', 'b', 'c']);
    expect(textsOf(server.facts.get(cut))).toEqual(['a', 'b', 'c']);
  });

  it('brings a restored server a run that it lost while the page stayed open, without a reload', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const gone = await aRun(page, run(1));
    for (const text of ['a', 'b']) await record(page, gone, note(text));
    await signIn(page);
    server.logs.delete(gone);
    server.facts.delete(gone);
    await record(page, gone, note('c'));
    await page.outbox.sendNow();
    expect((await page.logs.keptLog(gone))?.log).toMatchObject({ refused: null, opened: 0 });
    await page.outbox.tryAgain(gone);
    expect(textsOf(server.facts.get(gone))).toEqual(['a', 'b', 'c']);
    expect(await page.logs.countUnsent()).toBe(0);
  });

  it('goes on no more with a run that was closed on another device', async () => {
    const server = new FakeServer();
    let page = aPhone(server);
    const runs = [await aRun(page, run(1)), await aRun(page, run(2, id(77)))] as const;
    await signIn(page);
    expect(await page.logs.openLogs(me)).toHaveLength(2);
    server.closed.set(runs[0], 5);
    page = openPage();
    await signIn(page);
    expect((await page.logs.openLogs(me)).map((log) => log.id)).toEqual([runs[1]]);
  });

  it('compares what the server holds as soon as there is a network, where there was none at the start', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const cut = await aRun(page, run(1));
    for (const text of ['a', 'b']) await record(page, cut, note(text));
    await signIn(page);
    server.facts.set(cut, (server.facts.get(cut) ?? []).slice(0, 1));
    const again = openPage();
    server.weather = ['lost-request'];
    await signIn(again);
    expect(textsOf(server.facts.get(cut))).toEqual(['a']);
    await again.outbox.sendNow();
    expect(textsOf(server.facts.get(cut))).toEqual(['a', 'b']);
  });

  it('sends the other runs when the server breaks over one', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const [bad, good] = [await aRun(page, run(1)), await aRun(page, run(2, id(52)))];
    await record(page, bad, note('half an emoji'));
    await record(page, good, note('fine'));
    server.refuses = (piece) =>
      'text' in piece && piece.text?.startsWith('half')
        ? { code: 'went-wrong', message: 'broke', status: 500 }
        : null;
    await signIn(page);
    expect(textsOf(server.facts.get(good))).toEqual(['fine']);
    expect(await page.logs.countUnsent()).toBe(1);
    // It is tried again by itself, later and later, not in a storm of requests.
    const before = server.requests.length;
    await jest.advanceTimersByTimeAsync(3_000);
    expect(server.requests.length - before).toBeLessThanOrEqual(3);
  });

  it('finds a network that is back within a quarter of a minute, though nothing says so', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    await record(page, runId, note('under the trailer'));
    server.weather = Array.from({ length: 1_000 }, () => 'lost-request' as const);
    await page.outbox.sendNow();
    // However long it is away, it is tried again and again, and none of it is taken for sent.
    const tries: number[] = [];
    for (let n = 0; n < 20; n += 1) {
      const before = server.requests.length;
      await jest.advanceTimersByTimeAsync(15_500);
      for (let turn = 0; turn < 50; turn += 1) await new Promise(setImmediate);
      tries.push(server.requests.length - before);
    }
    expect(Math.min(...tries)).toBeGreaterThan(0);
    expect(Math.max(...tries.slice(4))).toBeLessThanOrEqual(4);
    expect(await page.logs.countUnsent()).toBe(1);
    server.weather = [];
    await jest.advanceTimersByTimeAsync(15_500);
    for (let turn = 0; turn < 100; turn += 1) await new Promise(setImmediate);
    expect(textsOf(server.facts.get(runId))).toEqual(['under the trailer']);
  });

  it('backs off from a gap that does not close', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    server.refuses = (piece) =>
      'text' in piece ? { code: 'facts-missing', message: 'gap', status: 409 } : null;
    await signIn(page);
    const before = server.requests.length;
    await jest.advanceTimersByTimeAsync(3_000);
    expect(server.requests.length - before).toBeLessThanOrEqual(6);
    server.refuses = () => null;
    await jest.advanceTimersByTimeAsync(60_000);
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
  });

  it('leaves a record that stumbled alone until its time has come, and sends the others meanwhile', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const [stuck, other] = [await aRun(page, run(1)), await aRun(page, run(2, id(52)))];
    await record(page, stuck, note('a'));
    await signInTo(page, server);
    const sentTo = (logId: string) =>
      server.requests.filter((each) => each.endsWith(`/${logId}/facts`)).length;
    const before = sentTo(stuck);
    await record(page, other, note('b'));
    await page.outbox.sendNow();
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(other))).toEqual(['b']);
    expect(sentTo(stuck)).toBe(before);
    await jest.advanceTimersByTimeAsync(10_000);
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(stuck))).toEqual(['a']);
  });

  it('compares once with a server that answers, however it does, and again with one that is away', async () => {
    const compared = ({ requests }: FakeServer) =>
      requests.filter((each) => each === 'POST /api/v1/logs/held').length;
    for (const [weather, times] of [
      ['broken', 1],
      ['database-down', 2],
    ] as const) {
      const server = new FakeServer();
      const page = aPhone(server);
      const runId = await aRun(page, run(1));
      await record(page, runId, note('a'));
      await signIn(page);
      await page.outbox.setOutboxOwner(null);
      server.requests = [];
      server.weather = [weather];
      await signIn(page);
      await page.outbox.sendNow();
      await page.outbox.sendNow();
      expect([weather, compared(server)]).toEqual([weather, times]);
    }
  });

  it('waits by a steady clock: one that is set back by a day makes nothing wait for a day', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    await signInTo(page, server);
    jest.setSystemTime(Date.now() - 86_400_000);
    await jest.advanceTimersByTimeAsync(10_000);
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
  });

  it('waits no more for what another tab has sent meanwhile', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    await signInTo(page, server);
    const second = openPage();
    await signIn(second);
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
    await jest.advanceTimersByTimeAsync(10_000);
    // The last pass runs to its end, and plans no other.
    for (let turn = 0; turn < 100; turn += 1) await new Promise(setImmediate);
    expect(jest.getTimerCount()).toBe(0);
  });

  it('goes on in a lane of its own where a copy of its store took the same place', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    await signIn(page);
    const [first] = server.facts.get(runId) ?? [];
    // The copy writes in the same lane and is quicker.
    server.facts.get(runId)?.push({ ...first!, id: id(900), seq: 2, text: 'copy' } as AnyFact);
    await record(page, runId, note('b'));
    await record(page, runId, note('c'));
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a', 'copy', 'b', 'c']);
    await record(page, runId, note('d'));
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId)).at(-1)).toBe('d');
    expect(await page.logs.countUnsent()).toBe(0);
  });

  it('loses and doubles nothing through lost requests, lost answers, guest networks, a database down, restarts and sign-outs', async () => {
    const weather = fc.constantFrom<Weather>(
      'ok',
      'lost-request',
      'lost-answer',
      'database-down',
      'signed-out',
      'guest-network',
      'proxy',
      'broken',
    );
    const happening = fc.oneof(
      fc.record({ does: fc.constant('mark' as const) }),
      fc.record({ does: fc.constant('send' as const), meets: fc.array(weather, { maxLength: 3 }) }),
      fc.record({ does: fc.constant('restart' as const) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(happening, { minLength: 1, maxLength: 14 }), async (happenings) => {
        await pagesOff();
        const server = new FakeServer();
        let page = aPhone(server);
        const runId = await aRun(page, run(1));
        await signIn(page);
        let marks = 0;
        for (const each of happenings) {
          if (each.does === 'mark') {
            marks += 1;
            await record(page, runId, note(`n${marks}`));
          } else if (each.does === 'send') {
            server.weather = [...each.meets];
            await page.outbox.sendNow();
          } else {
            page = openPage();
            await signIn(page);
          }
        }
        server.weather = [];
        await signIn(openPage());
        await jest.advanceTimersByTimeAsync(130_000);
        expect(textsOf(server.facts.get(runId))).toEqual(
          Array.from({ length: marks }, (_, n) => `n${n + 1}`),
        );
        expect(await page.logs.countUnsent()).toBe(0);
      }),
      { numRuns: 60 },
    );
  });
});

describe('what the server will not take', () => {
  const spoilt = (text: string) => (piece: object) =>
    'text' in piece && piece.text === text
      ? { code: 'wrong-shape', message: 'This text holds half a character: write it again.' }
      : null;

  async function refusedPage() {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    const other = await aRun(page, run(2, id(52)));
    for (const text of ['a', 'bad', 'c']) await record(page, runId, note(text));
    await record(page, other, note('fine'));
    server.refuses = spoilt('bad');
    await signIn(page);
    const kept = await page.logs.keptLog(runId);
    return { server, page, runId, other, refused: kept?.log.refused ?? null };
  }

  it('is kept, named with its entry, and holds up neither what came before it nor other records', async () => {
    const { server, page, runId, other, refused } = await refusedPage();
    expect(refused?.message).toContain('half a character');
    const bad = (await keptFacts(page, runId)).find((fact) => textsOf([fact])[0] === 'bad');
    expect(refused?.factId).toBe(bad?.id);
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
    expect(textsOf(server.facts.get(other))).toEqual(['fine']);
    expect(textsOf(await keptFacts(page, runId))).toEqual(['a', 'bad', 'c']);
  });

  it('is tried again by hand, at sign-in, and by another build of the app', async () => {
    const { server, page, runId } = await refusedPage();
    const asked = () => server.requests.filter((each) => each.endsWith('/facts')).length;
    let before = asked();
    await page.outbox.sendNow();
    expect(asked()).toBe(before);
    await page.outbox.tryAgain(runId);
    expect(asked()).toBeGreaterThan(before);
    before = asked();
    await page.outbox.setOutboxOwner(null);
    await signIn(page);
    expect(asked()).toBeGreaterThan(before);
    const kept = await page.logs.keptLog(runId);
    await page.logs.setRefused(runId, { ...kept!.log.refused!, build: 'an older build' });
    before = asked();
    await page.outbox.sendNow();
    expect(asked()).toBeGreaterThan(before);
  });

  it('is not noted where another page has sent all of it, nor left where that page was turned away meanwhile', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    const refusal = {
      ...{ code: 'not-found', message: 'no such record', field: null, factId: null, atMs: 1 },
      build: buildName(),
    };
    const refused = async () => (await page.logs.keptLog(runId))?.log.refused ?? null;
    // While the facts are on their way, the other page is told that there is no such record.
    const asServer = globalThis.fetch;
    globalThis.fetch = (async (path: string, init: RequestInit) => {
      if (path.endsWith('/facts')) {
        await page.logs.refuse(runId, refusal);
        expect(await refused()).toEqual(refusal);
      }
      return asServer(path, init);
    }) as typeof fetch;
    await signIn(page);
    expect(textsOf(server.facts.get(runId))).toEqual(['a']);
    expect(await refused()).toBeNull();
    // It says so once more, after all has gone out.
    await page.logs.refuse(runId, refusal);
    expect(await refused()).toBeNull();
    globalThis.fetch = asServer;
    await record(page, runId, note('b'));
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a', 'b']);
  });

  it('goes out once its words are put right, and the first words stay on the device', async () => {
    const { server, page, runId, refused } = await refusedPage();
    const bad = (await keptFacts(page, runId)).find((fact) => fact.id === refused?.factId);
    await page.logs.correctFact(
      refused?.factId ?? '',
      { ...bad, id: id(901), text: 'good' } as AnyFact,
      'half a character',
    );
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a', 'good', 'c']);
    const dropped = await page.logs.droppedFacts(runId);
    expect(textsOf(dropped.map(({ fact }) => fact))).toEqual(['bad']);
  });

  it('lets the rest go out once it is dropped, without a gap in the numbers', async () => {
    const { server, page, runId, refused } = await refusedPage();
    await page.logs.dropFact(refused?.factId ?? '', 'half a character');
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(runId))).toEqual(['a', 'c']);
    expect(server.facts.get(runId)?.map(({ seq }) => seq)).toEqual([1, 2]);
    expect(await page.logs.countUnsent()).toBe(0);
  });
});

describe('tabs of one device', () => {
  /** Two pages over one disk, each with modules of its own. */
  async function twoTabs() {
    const server = new FakeServer();
    const first = aPhone(server);
    const second = openPage();
    const runId = await aRun(first, run(1));
    return { server, first, second, runId };
  }

  it('never take the same place, however stale what each of them knows is', async () => {
    const { server, first, second, runId } = await twoTabs();
    // Each tab opened the run before the other wrote in it.
    const writing = await Promise.all(
      [first, second].map(async (page) => {
        const kept = await page.logs.keptLog(runId);
        return { log: page.logs.folded(kept!), lane: await page.kept.laneOf(me) };
      }),
    );
    const write = async (page: Page, at: number, text: string) => {
      const done = await page.recording.recordFact(writing[at]!, note(text), Date.now());
      if ('log' in done) writing[at] = { ...writing[at]!, log: done.log };
      return 'log' in done;
    };
    const done: boolean[] = [];
    for (let n = 0; n < 20; n += 1) {
      done.push(
        ...(await Promise.all([write(first, 0, `one ${n}`), write(second, 1, `two ${n}`)])),
      );
    }
    expect(done).not.toContain(false);
    const kept = await keptFacts(first, runId);
    expect(kept.map(({ seq }) => seq)).toEqual(Array.from({ length: 40 }, (_, n) => n + 1));
    await signIn(first);
    expect(server.facts.get(runId)).toHaveLength(40);
    expect(await first.logs.countUnsent()).toBe(0);
  });

  it('cannot both start a run of one unit', async () => {
    const { first, second } = await twoTabs();
    const started = { unit: madeUpUnit('truck', { id: id(60) }), towed: [], rigId: null };
    const on = { ...started, ruleSet: roadTest, leftOut: ['drain'] };
    const ids = await Promise.all([
      first.startRun.startRun(me, on),
      second.startRun.startRun(me, on),
    ]);
    expect(ids[0]).toBe(ids[1]);
  });
});

describe('a clock', () => {
  it('that was set between the recording and the sending leaves its offset open', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const [before, same] = [await aRun(page, run(1)), await aRun(page, run(2, id(52)))];
    await signIn(page);
    // Recorded without network, by a clock that was right when it was last measured.
    await record(page, before, note('recorded before the clock was set'));
    server.behindMs = 3 * 3_600_000;
    const again = openPage();
    await signIn(again);
    const [sent] = server.facts.get(before) ?? [];
    expect(sent?.offsetMs).toBeNull();
    expect((await keptFacts(again, before))[0]?.offsetMs).toBeNull();
    // From now on it is known that the phone is three hours ahead.
    await record(again, same, note('after'));
    await again.outbox.sendNow();
    expect(server.facts.get(same)?.[0]?.offsetMs).toBeCloseTo(3 * 3_600_000, -4);
  });

  it('that was set is not taken for the one that is only remembered', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    await page.outbox.setOutboxOwner(null);
    await record(page, runId, note('a'));
    const again = openPage();
    server.behindMs = -86_400_000;
    // What would have measured it is lost on the way.
    server.weather = ['lost-request'];
    await signIn(again);
    expect(server.facts.get(runId)?.[0]?.offsetMs).toBeNull();
  });

  it('that stays the same keeps its offset, through a restart too', async () => {
    const server = new FakeServer();
    server.behindMs = 600_000;
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await signIn(page);
    await record(page, runId, note('a'));
    const again = openPage();
    await signIn(again);
    expect(server.facts.get(runId)?.[0]?.offsetMs).toBeCloseTo(600_000, -4);
  });
});

describe('a visit', () => {
  it('is written in by two people of one device, each sent by its own', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const other = { ...me, personId: id(78) };
    const visitId = await aRun(page, visit(1));
    await record(page, visitId, { kind: 'note', at: null, text: 'mine' });
    await record(page, visitId, { kind: 'note', at: null, text: 'theirs' }, other);
    await record(page, visitId, { kind: 'note', at: null, text: 'mine again' });
    await signIn(page);
    expect(textsOf(server.facts.get(visitId))).toEqual(['mine', 'mine again']);
    await page.outbox.setOutboxOwner(null);
    await signIn(page, other);
    expect(textsOf(server.facts.get(visitId))).toEqual(['mine', 'mine again', 'theirs']);
  });

  it('sends a photo before the entry that names it', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const visitId = await aRun(page, visit(1));
    const photo = id(500);
    const db = await page.database.database();
    const blob = new Blob(['x'], { type: 'image/jpeg' });
    await db.put('blobs', { id: photo, logId: visitId, blob, sent: 0 });
    await record(page, visitId, { kind: 'note', at: null, text: 'see', photos: [photo] });
    await signIn(page);
    expect(server.photos).toEqual([photo]);
    expect(textsOf(server.facts.get(visitId))).toEqual(['see']);
  });

  it('says where the server has no room for a photo, keeps all that waits behind it, and sends it at one press', async () => {
    const server = new FakeServer();
    server.hasRoom = false;
    const page = aPhone(server);
    const [full, other] = [await aRun(page, visit(1)), await aRun(page, run(2, id(52)))];
    const photo = id(500);
    const db = await page.database.database();
    await db.put('blobs', { id: photo, logId: full, blob: new Blob(['x']), sent: 0 });
    await record(page, full, { kind: 'note', at: null, text: 'before' });
    await record(page, full, { kind: 'note', at: null, text: 'see', photos: [photo] });
    await record(page, full, { kind: 'note', at: null, text: 'and hear' });
    await record(page, other, note('fine'));
    await signIn(page);
    expect(textsOf(server.facts.get(other))).toEqual(['fine']);
    expect(textsOf(server.facts.get(full))).toEqual(['before']);
    expect(page.outbox.outboxNow()).toMatchObject({
      standing: 'refused',
      message: 'no more photos',
      unsent: 2,
    });
    // The note that names it is named: it can be dropped as well.
    const [, see] = await keptFacts(page, full);
    expect((await page.logs.keptLog(full))?.log.refused).toMatchObject({ factId: see!.id });
    server.hasRoom = true;
    await page.outbox.tryAgain(full);
    expect(textsOf(server.facts.get(full))).toEqual(['before', 'see', 'and hear']);
    expect(page.outbox.outboxNow()).toMatchObject({ standing: 'sent', unsent: 0 });
  });

  it('says that the server stumbles over a record once it did so three times, and no more when it is through', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const runId = await aRun(page, run(1));
    await record(page, runId, note('a'));
    server.refuses = (piece) =>
      'text' in piece ? { code: 'went-wrong', message: 'It broke.', status: 500 } : null;
    await signIn(page);
    const seen: string[] = [];
    for (const waitMs of [2_000, 4_000, 0]) {
      seen.push(page.outbox.outboxNow().standing);
      await jest.advanceTimersByTimeAsync(waitMs);
      await page.outbox.sendNow();
    }
    expect(seen).toEqual(['sending', 'sending', 'stumbling']);
    expect(page.outbox.outboxNow().message).toBe('It broke. It is tried again by itself.');
    server.refuses = () => null;
    await jest.advanceTimersByTimeAsync(8_000);
    await page.outbox.sendNow();
    expect(page.outbox.outboxNow()).toMatchObject({ standing: 'sent', message: null, unsent: 0 });
  });

  it('does not take a guest network’s empty answer for a photo’s receipt, and brings a restored server its photo', async () => {
    const server = new FakeServer();
    const page = aPhone(server);
    const visitId = await aRun(page, visit(1));
    await signIn(page);
    const photo = id(500);
    const db = await page.database.database();
    const blob = new Blob(['x'], { type: 'image/jpeg' });
    await db.put('blobs', { id: photo, logId: visitId, blob, sent: 0 });
    await record(page, visitId, { kind: 'note', at: null, text: 'see', photos: [photo] });
    server.weather = ['guest-network'];
    await page.outbox.sendNow();
    expect(await db.get('blobs', photo)).toMatchObject({ sent: 0 });
    await page.outbox.sendNow();
    expect(textsOf(server.facts.get(visitId))).toEqual(['see']);
    // The server comes back from a backup that is older than the photo.
    server.photos = [];
    server.facts.set(visitId, []);
    await signIn(openPage());
    expect(server.photos).toEqual([photo]);
    expect(textsOf(server.facts.get(visitId))).toEqual(['see']);
  });

  it('that others have closed leaves the device like any other', async () => {
    const page = aPhone(new FakeServer());
    const header = visit(1);
    const close = { id: id(60), lane: id(61), seq: 1, atMs: 1, offsetMs: 0, v: VISIT_VERSION };
    const facts = [{ ...close, kind: 'close', how: 'complete' } as AnyFact];
    await page.logs.takeIn(me, { header, facts, writers: {} }, id(77));
    expect((await page.logs.keptLog(header.id))?.log).toMatchObject({
      closed: 1,
      confirmedAtMs: Date.now(),
    });
  });
});

it('keeps the closing fact and the closed state as one', async () => {
  const page = aPhone(new FakeServer());
  const runId = await aRun(page, run(1));
  expect(await page.logs.openRunOf(me, unit.id)).not.toBeNull();
  await record(page, runId, { kind: 'close', how: 'incomplete', reason: 'called away' });
  const kept = await page.logs.keptLog(runId);
  expect(kept?.log).toMatchObject({ closed: 1, verdict: 'incomplete' });
  expect(await page.logs.openRunOf(me, unit.id)).toBeNull();
});
