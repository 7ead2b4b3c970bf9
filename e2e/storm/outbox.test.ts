import type { LogRecord, Me, RunFact, Unit } from '@keen-bleed/contract';
import type { NewFact } from '@keen-bleed/core';
import * as core from '@keen-bleed/core';
import fc from 'fast-check';
import 'fake-indexeddb/auto';
import { IDBFactory } from 'fake-indexeddb';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { AsyncLocalStorage } from 'node:async_hooks';
import type * as Kept from '../../app/src/store/kept';
import type * as Logs from '../../app/src/store/logs';
import type * as Outbox from '../../app/src/store/outbox';
import type * as RecordFact from '../../app/src/store/recordFact';
import type * as StartRun from '../../app/src/store/startRun';
import {
  addTruck,
  makeStaff,
  openTestShop,
  shortRuleSet,
  testPassword,
  type Staff,
  type TestShop,
} from '../../server/src/test/testShop';

/* Two phones take marks on one unit, over a network and through deaths and restarts drawn at random. The phones
   run the app's own store and outbox, the server is the real one over a real PostgreSQL. Whatever happens, in
   the end each mark stands at the server once, in its place, and each phone still has all it took. */

// No screen is drawn here, and loading the library anew at each of a few thousand openings takes its time.
jest.mock('react', () => ({}));

/** The short form; `npm run storm` asks for more, and gives it its time. */
const SEQUENCES = Number(process.env.STORM_SEQUENCES ?? 150);
const MINUTES = Number(process.env.STORM_MINUTES ?? 0);
const SEED = Number(process.env.STORM_SEED ?? Date.now() % 1_000_000);

let shop: TestShop;
let staff: Staff;
let unit: Unit;
let server: Server | null = null;
let port = 0;
const realFetch = globalThis.fetch;
/** Whose code is running: a phone's work goes on with its own disk and network, whoever's turn it is. */
const turnOf = new AsyncLocalStorage<Phone>();
async function startServer(): Promise<void> {
  if (server) return;
  const starting = createServer(shop.app);
  await new Promise<void>((resolve) => starting.listen(port, '127.0.0.1', resolve));
  port = (starting.address() as AddressInfo).port;
  server = starting;
}

async function stopServer(): Promise<void> {
  const stopping = server;
  server = null;
  if (!stopping) return;
  stopping.closeAllConnections();
  await new Promise((resolve) => stopping.close(resolve));
}

/** What the network does to the next request. */
type Weather = 'clear' | 'gone' | 'answer-lost' | 'doubled' | 'echo-later';

interface Request {
  path: string;
  init: RequestInit;
}

class Phone {
  readonly disk = new IDBFactory();
  private kept!: typeof Kept;
  private logs!: typeof Logs;
  private recording!: typeof RecordFact;
  private outbox!: typeof Outbox;
  private starting!: typeof StartRun;
  weather: Weather = 'clear';
  /** Requests whose copies are still on their way somewhere. */
  private echoes: Request[] = [];
  runId = '';
  /** Everything that was said to be kept. */
  readonly taken: RunFact[] = [];

  constructor(
    private readonly me: Me,
    private readonly cookie: string,
  ) {}

  private send({ path, init }: Request): Promise<Response> {
    return realFetch(`http://127.0.0.1:${port}${path}`, {
      ...init,
      headers: { ...(init.headers as Record<string, string>), Cookie: this.cookie },
    });
  }

  readonly fetch = async (path: string, init: RequestInit): Promise<Response> => {
    const { weather } = this;
    const request = { path, init };
    if (weather === 'gone') throw new TypeError('no network');
    if (weather === 'echo-later') this.echoes.push(request);
    const answer = await this.send(request);
    if (weather === 'doubled') await (await this.send(request)).arrayBuffer();
    if (weather === 'answer-lost') {
      await answer.arrayBuffer();
      throw new TypeError('the answer was lost');
    }
    return answer;
  };

  /** An old request arrives once more, long after its time. */
  async echo(): Promise<void> {
    const late = this.echoes.shift();
    // Nobody waits for it: a server that is not there any more does not hear it.
    if (late && server)
      await this.send(late).then(
        (answer) => answer.arrayBuffer(),
        () => null,
      );
  }

  /** The app is opened: its modules are new, the disk is what it was, and it sends at once. */
  async open(): Promise<void> {
    jest.isolateModules(() => {
      /* eslint-disable @typescript-eslint/no-require-imports */
      jest.doMock('@keen-bleed/core', () => core);
      this.kept = require('../../app/src/store/kept') as typeof Kept;
      this.logs = require('../../app/src/store/logs') as typeof Logs;
      this.recording = require('../../app/src/store/recordFact') as typeof RecordFact;
      this.outbox = require('../../app/src/store/outbox') as typeof Outbox;
      this.starting = require('../../app/src/store/startRun') as typeof StartRun;
      /* eslint-enable @typescript-eslint/no-require-imports */
    });
    await this.outbox.setOutboxOwner(this.me);
  }

  /** Does something with this phone's disk and network. */
  as<T>(work: () => Promise<T>): Promise<T> {
    return turnOf.run(this, work);
  }

  async begin(): Promise<void> {
    await this.open();
    this.runId = await this.starting.startRun(this.me, {
      unit,
      towed: [],
      rigId: null,
      ruleSet: shortRuleSet,
      leftOut: ['drain'],
    });
  }

  async take(fact: NewFact<RunFact>): Promise<void> {
    const kept = await this.logs.keptLog(this.runId);
    if (!kept) throw new Error('the run is gone');
    const writing = { log: this.logs.folded(kept), lane: await this.kept.laneOf(this.me) };
    const atMs = STARTED_MS + this.taken.length * 1_000;
    const done = await this.recording.recordFact(writing, fact, atMs);
    if ('problem' in done) throw new Error(done.problem);
    this.taken.push(done.log.facts.at(-1) as RunFact);
  }

  sendNow(): Promise<void> {
    return this.outbox.sendNow();
  }

  async waiting(): Promise<number> {
    const kept = await this.logs.keptLog(this.runId);
    if (kept?.log.refused) throw new Error(`refused: ${kept.log.refused.message}`);
    return (await this.logs.countUnsent()) + (kept?.log.opened === 1 ? 0 : 1);
  }

  async facts(): Promise<RunFact[]> {
    const kept = await this.logs.keptLog(this.runId);
    return (kept?.rows ?? []).map(({ fact }) => fact as RunFact).sort((a, b) => a.seq - b.seq);
  }
}

async function cookieOf(name: string): Promise<string> {
  const answer = await realFetch(`http://127.0.0.1:${port}/api/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ signInName: name, password: testPassword }),
  });
  return (
    answer.headers
      .getSetCookie()
      .find((each) => each.startsWith('kb.sid='))
      ?.split(';')[0] ?? ''
  );
}

let cookies: string[] = [];
beforeAll(async () => {
  (globalThis as { navigator?: unknown }).navigator ??= {};
  Object.defineProperty(globalThis, 'indexedDB', {
    configurable: true,
    get: () => turnOf.getStore()?.disk,
  });
  globalThis.fetch = ((path: string, init: RequestInit) => {
    const phone = turnOf.getStore();
    if (!phone) throw new Error('a request of no phone');
    return phone.fetch(path, init);
  }) as typeof fetch;
  // Retries of a phone that has died must not go on in the test's own time.
  jest.useFakeTimers({ doNotFake: ALL_BUT_TIMEOUTS });
  shop = await openTestShop();
  staff = await makeStaff(shop, 'storm');
  unit = await addTruck(staff.lead, '1');
  await startServer();
  cookies = [await cookieOf(staff.names.technician), await cookieOf(staff.names.lead)];
});
afterAll(async () => {
  globalThis.fetch = realFetch;
  await stopServer();
  await shop.close();
});

const ALL_BUT_TIMEOUTS = [
  'Date',
  'hrtime',
  'nextTick',
  'performance',
  'queueMicrotask',
  'setImmediate',
  'clearImmediate',
  'setInterval',
  'clearInterval',
] as const as unknown as ('Date' | 'nextTick')[];

const note = (text: string): NewFact<RunFact> => ({ kind: 'note', stepId: 'prepare', text });

/** Facts by what they say and where they stand; how far a clock was off may be learnt on the way. */
const said = (facts: readonly RunFact[]) =>
  facts.map(({ id, lane, seq, atMs, kind }) => ({ id, lane, seq, atMs, kind }));

const STARTED_MS = 1_760_000_000_000;

type Step =
  | { do: 'take' }
  | { do: 'send' }
  | { do: 'send-and-die' }
  | { do: 'reload' }
  | { do: 'echo' }
  | { do: 'server-down' }
  | { do: 'server-up' }
  | { do: 'weather'; weather: Weather };

const weathers: Weather[] = ['clear', 'gone', 'answer-lost', 'doubled', 'echo-later'];
const steps = fc.tuple(
  fc.constantFrom(0, 1),
  fc.oneof(
    { weight: 5, arbitrary: fc.constant<Step>({ do: 'take' }) },
    { weight: 3, arbitrary: fc.constant<Step>({ do: 'send' }) },
    { weight: 2, arbitrary: fc.constant<Step>({ do: 'send-and-die' }) },
    { weight: 1, arbitrary: fc.constant<Step>({ do: 'reload' }) },
    { weight: 1, arbitrary: fc.constant<Step>({ do: 'echo' }) },
    { weight: 1, arbitrary: fc.constant<Step>({ do: 'server-down' }) },
    { weight: 1, arbitrary: fc.constant<Step>({ do: 'server-up' }) },
    {
      weight: 3,
      arbitrary: fc.constantFrom(...weathers).map<Step>((weather) => ({ do: 'weather', weather })),
    },
  ),
);

async function perform(phone: Phone, step: Step): Promise<void> {
  switch (step.do) {
    case 'take':
      return phone.take(note(`mark ${phone.taken.length + 1}`));
    case 'send':
      return phone.sendNow();
    case 'send-and-die': {
      // The request is on its way when the phone dies; what comes back is heard by nobody.
      const sending = phone.sendNow();
      await phone.open();
      await sending;
      return;
    }
    case 'reload':
      return phone.open();
    case 'echo':
      return phone.echo();
    case 'server-down':
      return stopServer();
    case 'server-up':
      return startServer();
    case 'weather':
      phone.weather = step.weather;
  }
}

it(
  'loses nothing and doubles nothing, whatever becomes of phones, network and server',
  async () => {
    let sequences = 0;
    let marks = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(steps, { minLength: 6, maxLength: 26 }), async (sequence) => {
        await startServer();
        const people = [
          { personId: staff.ids.technician, name: staff.names.technician },
          { personId: staff.ids.lead, name: staff.names.lead },
        ];
        const phones = people.map(
          (person, index) =>
            new Phone({ ...person, shopId: staff.shopId } as Me, cookies[index] ?? ''),
        );
        for (const phone of phones) await phone.as(() => phone.begin());
        for (const [who, step] of sequence) {
          const phone = phones[who];
          if (phone) await phone.as(() => perform(phone, step));
        }
        // In the end the sun shines: every phone is opened once more and sends what it has.
        await startServer();
        for (const phone of phones) {
          await phone.as(async () => {
            phone.weather = 'clear';
            await phone.open();
            for (let pass = 0; pass < 5; pass += 1) await phone.sendNow();
            expect(await phone.waiting()).toBe(0);
            expect(said(await phone.facts())).toEqual(said(phone.taken));
          });
          const answer = await staff.viewer.get(`/api/logs/${phone.runId}`).expect(200);
          const record = answer.body as LogRecord<'run'>;
          expect(said(record.facts)).toEqual(said(phone.taken));
          expect(record.header.subject.unitId).toBe(unit.id);
          marks += phone.taken.length;
        }
        sequences += 1;
      }),
      {
        numRuns: SEQUENCES,
        seed: SEED,
        ...(MINUTES > 0 ? { interruptAfterTimeLimit: MINUTES * 60_000 } : {}),
      },
    );
    if (MINUTES > 0) console.log(`${sequences} sequences by seed ${SEED}, ${marks} marks`);
    else expect(sequences).toBeGreaterThanOrEqual(SEQUENCES);
    expect(marks).toBeGreaterThan(sequences);
  },
  Math.max(300_000, (MINUTES + 5) * 60_000),
);
