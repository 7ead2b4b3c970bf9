/**
 * @jest-environment node
 */
import 'fake-indexeddb/auto';
import type { OpenRun, RunEvent } from '@keen-bleed/contract';
import { IDBFactory } from 'fake-indexeddb';
import fc from 'fast-check';
import type * as DeviceStore from './deviceStore';
import type * as Outbox from './outbox';

// A browser without locks, as some phones' are.
Object.defineProperty(globalThis, 'navigator', { value: {}, configurable: true });

const me = { shopId: 's', personId: 'p' };
const id = (number: number) => `00000000-0000-7000-8000-${String(number).padStart(12, '0')}`;
const note = (seq: number): RunEvent => ({
  id: id(seq),
  seq,
  atMs: seq,
  kind: 'note',
  stepId: 'prepare',
  text: `n${seq}`,
});

/** A server as the outbox sees it: it keeps what it takes, and can be told to misbehave. */
class FakeServer {
  opened = new Set<string>();
  events = new Map<string, RunEvent[]>();
  /** What the next requests meet; empty is a good day. */
  weather: ('ok' | 'lost-request' | 'lost-answer' | 'database-down' | 'signed-out')[] = [];
  requests = 0;

  fetch = (path: string, init: { body: string }): Promise<Response> => {
    this.requests += 1;
    const weather = this.weather.shift() ?? 'ok';
    if (weather === 'lost-request') return Promise.reject(new TypeError('network'));
    if (weather === 'database-down')
      return answer(503, { code: 'database-unavailable', message: 'away' });
    if (weather === 'signed-out') return answer(401, { code: 'not-signed-in', message: 'sign in' });
    const result = this.take(path, JSON.parse(init.body) as never);
    return weather === 'lost-answer' ? Promise.reject(new TypeError('network')) : result;
  };

  private take(path: string, body: OpenRun & { events: RunEvent[] }): Promise<Response> {
    if (path === '/api/runs') {
      this.opened.add(body.id);
      return answer(200, { held: 0 });
    }
    const runId = path.split('/')[3] ?? '';
    if (!this.opened.has(runId)) return answer(404, { code: 'not-found', message: 'no run' });
    const held = this.events.get(runId) ?? [];
    for (const event of body.events) {
      if (held.some((each) => each.id === event.id)) continue;
      if (event.seq > held.length + 1)
        return answer(409, { code: 'events-missing', message: 'gap' });
      held.push(event);
    }
    this.events.set(runId, held);
    return answer(200, { held: held.length });
  }
}

function answer(status: number, body: object): Promise<Response> {
  return Promise.resolve(
    new Response(JSON.stringify(body), { status, headers: { 'Content-Type': 'application/json' } }),
  );
}

/** A phone with an empty store, freshly started; `restart` closes the page and keeps the store. */
function phone(server: FakeServer) {
  globalThis.indexedDB = new IDBFactory();
  globalThis.fetch = server.fetch as unknown as typeof fetch;
  const load = () => {
    jest.resetModules();
    return {
      // eslint-disable-next-line @typescript-eslint/no-require-imports -- a page that starts anew loads its modules anew
      store: require('./deviceStore') as typeof DeviceStore,
      // eslint-disable-next-line @typescript-eslint/no-require-imports -- as above
      outbox: require('./outbox') as typeof Outbox,
    };
  };
  return { ...load(), restart: load };
}

const run = (runId: string): DeviceStore.DeviceRun => ({
  id: runId,
  ...me,
  header: { id: runId, unitId: 'u' } as OpenRun,
  opened: false,
  closed: false,
  refused: null,
});

beforeEach(() => jest.useFakeTimers({ doNotFake: ['setImmediate', 'queueMicrotask', 'nextTick'] }));
afterEach(() => jest.useRealTimers());

describe('the outbox', () => {
  it('sends a run and its facts, once, and then has nothing to send', async () => {
    const server = new FakeServer();
    const { store, outbox } = phone(server);
    await store.keepRun(run('r1'));
    await store.keepEvents('r1', [note(1), note(2)], false);
    outbox.setOutboxOwner(me);
    await outbox.sendNow();
    expect(server.events.get('r1')).toEqual([note(1), note(2)]);
    expect(await store.countUnsent()).toBe(0);
    const before = server.requests;
    await outbox.sendNow();
    expect(server.requests).toBe(before);
  });

  it('never hands in what another person marked', async () => {
    const server = new FakeServer();
    const { store, outbox } = phone(server);
    await store.keepRun({ ...run('r1'), personId: 'somebody else' });
    await store.keepEvents('r1', [note(1)], false);
    outbox.setOutboxOwner(me);
    await outbox.sendNow();
    expect(server.requests).toBe(0);
    expect(await store.countUnsent()).toBe(1);
  });

  it('keeps what the server will not take, says so, and goes on with the other runs', async () => {
    const server = new FakeServer();
    const { store, outbox } = phone(server);
    await store.keepRun({ ...run('a-lost'), opened: true });
    await store.keepEvents('a-lost', [note(1)], false);
    await store.keepRun(run('b-good'));
    await store.keepEvents('b-good', [{ ...note(2), seq: 1 }], false);
    outbox.setOutboxOwner(me);
    await outbox.sendNow();
    expect(server.events.get('b-good')).toHaveLength(1);
    expect(await store.keptEvents('a-lost')).toEqual([note(1)]);
    expect(await store.keptRun('a-lost')).toMatchObject({ refused: 'no run' });
  });

  it('sends all again where the server has lost some', async () => {
    const server = new FakeServer();
    const { store, outbox } = phone(server);
    server.opened.add('r1');
    await store.keepRun({ ...run('r1'), opened: true });
    await store.keepEvents('r1', [note(1)], true);
    await store.keepEvents('r1', [note(2)], false);
    outbox.setOutboxOwner(me);
    await outbox.sendNow();
    await outbox.sendNow();
    expect(server.events.get('r1')).toEqual([note(1), note(2)]);
  });

  it('loses and doubles nothing through lost requests, lost answers, a database down, restarts and sign-outs', async () => {
    const weather = fc.constantFrom(
      'ok',
      'lost-request',
      'lost-answer',
      'database-down',
      'signed-out' as const,
    );
    const happening = fc.oneof(
      fc.record({ does: fc.constant('mark' as const) }),
      fc.record({ does: fc.constant('send' as const), meets: fc.array(weather, { maxLength: 3 }) }),
      fc.record({ does: fc.constant('restart' as const) }),
    );
    await fc.assert(
      fc.asyncProperty(fc.array(happening, { minLength: 1, maxLength: 14 }), async (happenings) => {
        const server = new FakeServer();
        const device = phone(server);
        let { store, outbox } = device;
        await store.keepRun(run('r1'));
        outbox.setOutboxOwner(me);
        let marks = 0;
        for (const each of happenings) {
          if (each.does === 'mark') {
            marks += 1;
            await store.keepEvents('r1', [note(marks)], false);
          } else if (each.does === 'send') {
            server.weather = [...each.meets] as typeof server.weather;
            await outbox.sendNow();
          } else {
            ({ store, outbox } = device.restart());
            outbox.setOutboxOwner(me);
          }
        }
        server.weather = [];
        await outbox.sendNow();
        await outbox.sendNow();
        expect((server.events.get('r1') ?? []).map((event) => event.seq)).toEqual(
          Array.from({ length: marks }, (_, n) => n + 1),
        );
        expect(await store.countUnsent()).toBe(0);
      }),
      { numRuns: 100 },
    );
  });
});
