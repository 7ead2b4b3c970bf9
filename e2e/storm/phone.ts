import { photoIdOf } from '@keen-bleed/contract/photo-name';
import { aPhoto } from '../../server/src/test/aPhoto';
import type { Me, RunFact, VisitFact } from '@keen-bleed/contract';
import type { FoldedLog, NewFact } from '@keen-bleed/core';
import * as core from '@keen-bleed/core';
import 'fake-indexeddb/auto';
import { IDBFactory, IDBObjectStore } from 'fake-indexeddb';
import { AsyncLocalStorage } from 'node:async_hooks';
import type * as Database from '../../app/src/store/database';
import type * as Kept from '../../app/src/store/kept';
import type * as Logs from '../../app/src/store/logs';
import type * as Outbox from '../../app/src/store/outbox';
import type * as RecordFact from '../../app/src/store/recordFact';
import type * as StartRun from '../../app/src/store/startRun';
import type * as StartVisit from '../../app/src/store/startVisit';
import { shortRuleSet } from '../../server/src/test/testShop';
import type { World } from './world';

/** What the network does to the next requests. */
export type Weather =
  | 'clear'
  | 'gone'
  /** The request arrives, its answer does not. */
  | 'answer-lost'
  | 'doubled'
  /** A copy of the request arrives once more, long after its time. */
  | 'echo-later'
  /** A guest network answers everything with a page of its own. */
  | 'portal-page'
  /** As above, as what looks like an answer of the server's. */
  | 'portal-json'
  /** What stands before the server says that it has no server, in JSON of its own. */
  | 'no-upstream';

/** What is recorded on a phone: only a visit's notes have photos. */
export type Recorded = 'run' | 'visit';
export type Mark = RunFact | VisitFact;

/** One page of the app: its modules, and the record as it knows it. */
interface Tab {
  database: typeof Database;
  kept: typeof Kept;
  logs: typeof Logs;
  recording: typeof RecordFact;
  outbox: typeof Outbox;
  starting: typeof StartRun & typeof StartVisit;
  log: FoldedLog | null;
}

/** Whose code is running: a phone's work goes on with its own disk and network, whoever's turn it is. */
const turnOf = new AsyncLocalStorage<Phone>();

/** Gives whatever asks for a store or a network that of the phone whose turn it is. */
export function putPhonesInPlace(): void {
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
  for (const name of ['put', 'add'] as const) {
    // eslint-disable-next-line @typescript-eslint/unbound-method -- called on the store it is asked of
    const write = IDBObjectStore.prototype[name];
    IDBObjectStore.prototype[name] = function full(this: IDBObjectStore, ...args) {
      const request = write.apply(this, args);
      // A disk without room ends the whole transaction, and each write in it hears so.
      if (turnOf.getStore()?.isFull === true) this.transaction.abort();
      return request;
    };
  }
}

const STARTED_MS = 1_760_000_000_000;

interface Request {
  path: string;
  init: RequestInit;
}

/** A phone: the app's own store and outbox over a disk of its own, opened in one page or two. */
export class Phone {
  readonly disk = new IDBFactory();
  private tabs: Tab[] = [];
  weather: Weather = 'clear';
  /** Whether its disk takes nothing more. */
  isFull = false;
  /** Whether its pages are of a version before the server's. */
  isOld = false;
  private clockMs = 0;
  private wasSetBack = false;
  private echoes: Request[] = [];
  logId = '';
  /** Everything that was said to be kept. */
  readonly taken: Mark[] = [];
  /** Marks that were pressed, kept or not. */
  private pressed = 0;
  private moment = 0;

  constructor(
    private readonly world: World,
    private readonly me: Me,
    private readonly cookie: string,
    readonly recorded: Recorded,
  ) {}

  private send({ path, init }: Request): Promise<Response> {
    return this.world.ask(path, {
      ...init,
      headers: { ...(init.headers as Record<string, string>), Cookie: this.cookie },
    });
  }

  readonly fetch = async (path: string, init: RequestInit): Promise<Response> => {
    const { weather } = this;
    const request = { path, init: this.isOld ? ofAnOlderVersion(path, init) : init };
    if (weather === 'gone') throw new TypeError('no network');
    if (weather === 'portal-page')
      return Promise.resolve(page('<h1>Welcome, guest</h1>', 'text/html'));
    if (weather === 'portal-json') return Promise.resolve(page('{"ok":true}', 'application/json'));
    if (weather === 'no-upstream')
      return Promise.resolve(
        page('{"code":"BAD_GATEWAY","message":"no upstream"}', 'application/json', 502),
      );
    if (weather === 'echo-later') this.echoes.push(request);
    const answer = await this.send(request);
    if (weather === 'doubled') await (await this.send(request)).arrayBuffer();
    if (weather === 'answer-lost') {
      await answer.arrayBuffer();
      throw new TypeError('the answer was lost');
    }
    return answer;
  };

  /** An old request arrives once more. Nobody waits for it: a server that is not there does not hear it. */
  async echo(): Promise<void> {
    const late = this.echoes.shift();
    if (!late || !this.world.isUp) return;
    await this.send(late).then(
      (answer) => answer.arrayBuffer(),
      () => null,
    );
  }

  /** Does something with this phone's disk and network. */
  as<T>(work: () => Promise<T>): Promise<T> {
    return turnOf.run(this, work);
  }

  /** The app is opened: its modules are new and of today, the disk is what it was, and it sends at once. */
  async open(): Promise<void> {
    this.isOld = false;
    this.tabs = [];
    await this.openTab();
  }

  /** Another page of the app is opened beside the one that is; two are as many as anybody has. */
  async openTab(): Promise<void> {
    if (this.tabs.length === 2) return;
    const tab = { log: null } as Tab;
    jest.isolateModules(() => {
      /* eslint-disable @typescript-eslint/no-require-imports */
      jest.doMock('@keen-bleed/core', () => core);
      tab.database = require('../../app/src/store/database') as typeof Database;
      tab.kept = require('../../app/src/store/kept') as typeof Kept;
      tab.logs = require('../../app/src/store/logs') as typeof Logs;
      tab.recording = require('../../app/src/store/recordFact') as typeof RecordFact;
      tab.outbox = require('../../app/src/store/outbox') as typeof Outbox;
      tab.starting = {
        ...(require('../../app/src/store/startRun') as typeof StartRun),
        ...(require('../../app/src/store/startVisit') as typeof StartVisit),
      };
      /* eslint-enable @typescript-eslint/no-require-imports */
    });
    this.tabs.push(tab);
    await tab.outbox.setOutboxOwner(this.me);
  }

  async begin(): Promise<void> {
    await this.open();
    const { startRun, startVisit } = this.tabs[0]!.starting;
    const { unit } = this.world;
    this.logId =
      this.recorded === 'run'
        ? await startRun(this.me, {
            unit,
            towed: [],
            rigId: null,
            ruleSet: shortRuleSet,
            leftOut: ['drain'],
          })
        : await startVisit(this.me, { units: [unit], rigId: null, reason: null });
  }

  /** Its clock is set to be so far off, ms. */
  setClock(offMs: number): void {
    this.wasSetBack ||= offMs < this.clockMs;
    this.clockMs = offMs;
  }

  /** A mark is pressed in every page at once; what the screen calls kept is noted. */
  async take(withPhoto = false): Promise<void> {
    this.moment += 1;
    await Promise.all(this.tabs.map((tab) => this.takeIn(tab, withPhoto)));
  }

  private async takeIn(tab: Tab, withPhoto: boolean): Promise<void> {
    this.pressed += 1;
    const text = `mark ${this.pressed}`;
    const atMs = STARTED_MS + this.clockMs + this.moment * 1_000;
    const { logs, kept } = tab;
    try {
      tab.log ??= logs.folded((await logs.keptLog(this.logId))!);
      const photos = withPhoto && this.recorded === 'visit' ? [await this.photoIn(tab)] : [];
      const fact: NewFact<Mark> =
        this.recorded === 'run'
          ? { kind: 'note', stepId: 'prepare', text }
          : { kind: 'note', at: null, text, ...(photos.length > 0 ? { photos } : {}) };
      const writing = { log: tab.log, lane: await kept.laneOf(this.me) };
      const done = await tab.recording.recordFact(writing, fact, atMs);
      if ('problem' in done) {
        // The screen says what to do first; the mark is not kept, and nobody takes it for kept.
        if (this.wasSetBack && done.problem.startsWith('The clock went back')) return;
        throw new Error(done.problem);
      }
      tab.log = done.log;
      const last = done.log.facts.at(-1);
      if (last?.kind !== 'note' || last.text !== text) throw new Error('another mark is last');
      this.taken.push(last);
    } catch (error) {
      // A full disk takes nothing, and the screen says so: nobody takes such a mark for kept.
      if (!this.isFull) throw error;
      tab.log = null;
    }
  }

  /** Keeps a picture on the phone, as the screen does before the note that names it. */
  private async photoIn(tab: Tab): Promise<string> {
    // What stands behind a picture's end is not drawn, and makes it another.
    const told = [this.pressed % 256, this.pressed >> 8];
    const bytes = Buffer.concat([await aPhoto(), Buffer.from(told)]);
    const id = photoIdOf(this.logId, bytes);
    const blob = new Blob([new Uint8Array(bytes)], { type: 'image/jpeg' });
    await (await tab.database.database()).put('blobs', { id, logId: this.logId, blob, sent: 0 });
    return id;
  }

  /** Every page sends. */
  async sendNow(): Promise<void> {
    await Promise.all(this.tabs.map((tab) => tab.outbox.sendNow()));
  }

  /** What the screen of refused records offers: to try it again. */
  async tryAgain(): Promise<void> {
    await this.tabs[0]!.outbox.tryAgain(this.logId);
  }

  /** What was refused of the record, or null. */
  async refused(): Promise<string | null> {
    const kept = await this.tabs[0]!.logs.keptLog(this.logId);
    return kept?.log.refused?.message ?? null;
  }

  async waiting(): Promise<number> {
    const { logs } = this.tabs[0]!;
    const kept = await logs.keptLog(this.logId);
    return (await logs.countUnsent()) + (kept?.log.opened === 1 ? 0 : 1);
  }

  async facts(): Promise<Mark[]> {
    const kept = await this.tabs[0]!.logs.keptLog(this.logId);
    return (kept?.rows ?? []).map(({ fact }) => fact as Mark).sort((a, b) => a.seq - b.seq);
  }
}

const page = (text: string, type: string, status = 200) =>
  new Response(text, { status, headers: { 'Content-Type': type } });

/** A request as pages of the version before write it: the header of a record has a smaller number. */
function ofAnOlderVersion(path: string, init: RequestInit): RequestInit {
  if (!path.endsWith('/logs') || typeof init.body !== 'string') return init;
  const header = JSON.parse(init.body) as { v: number };
  return { ...init, body: JSON.stringify({ ...header, v: header.v - 1 }) };
}
