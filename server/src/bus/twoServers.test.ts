import type { FactorOffer, Held, LogRecord, Unit } from '@keen-bleed/contract';
import { createProxyMiddleware } from 'http-proxy-middleware';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import pino from 'pino';
import { makeApp } from '../app';
import { openDatabase, type Database } from '../db/database';
import { SuspectTables } from '../suspects/suspectTables';
import { workOutApart } from '../suspects/workOut';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  testPassword,
  TEST_SECRET,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { PostgresBus } from './bus';

/** A server as one machine of several has it: a pool, a bus and a port of its own on a shared database. */
interface Machine {
  database: Database;
  bus: PostgresBus;
  server: Server;
  port: number;
}

const SIGN_IN_TRIES = 3;

async function startMachine(url: string): Promise<Machine> {
  const database = openDatabase(url, () => undefined);
  const bus = new PostgresBus(url, database.pool, () => undefined);
  await bus.start();
  const app = makeApp({
    database,
    bus,
    log: pino({ level: 'silent' }),
    sessionSecret: TEST_SECRET,
    secureCookie: false,
    trustedProxies: null,
    signInTries: SIGN_IN_TRIES,
    webFolder: null,
    tables: new SuspectTables(workOutApart),
  });
  const server = createServer(app);
  await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
  return { database, bus, server, port: (server.address() as AddressInfo).port };
}

async function stopMachine({ database, bus, server }: Machine): Promise<void> {
  server.closeAllConnections();
  await new Promise((done) => server.close(done));
  await bus.stop();
  await database.close();
}

let shop: TestShop;
let staff: Staff;
let unit: Unit;
let machines: [Machine, Machine];
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'two');
  unit = await addTruck(staff.lead, '1');
  machines = [await startMachine(shop.url), await startMachine(shop.url)];
});
afterAll(async () => {
  await Promise.all(machines.map(stopMachine));
  await shop.close();
});

/** Somebody who is sent to one machine or the other, as a proxy in front may. */
class Visitor {
  private cookies = new Map<string, string>();
  constructor(private readonly spread: () => number) {}

  async ask(method: string, path: string, body?: unknown, at = this.spread()): Promise<Response> {
    const answer = await fetch(`http://127.0.0.1:${machines[at]!.port}/api${path}`, {
      method,
      headers: {
        cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
        ...(body === undefined ? {} : { 'content-type': 'application/json' }),
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    for (const each of answer.headers.getSetCookie()) {
      const [name = '', value = ''] = each.split(';')[0]!.split('=');
      this.cookies.set(name, value);
    }
    return answer;
  }
}

/** Sends every request to the other machine than the one before. */
const inTurn = () => {
  let n = 0;
  return () => (n += 1) % 2;
};

async function enter(name: string, spread: () => number = inTurn()): Promise<Visitor> {
  const visitor = new Visitor(spread);
  const entered = await visitor.ask('POST', '/sign-in', {
    signInName: name,
    password: testPassword,
  });
  expect(entered.status).toBe(200);
  return visitor;
}

/** Reads a stream until an event fits; gives what it carried. */
async function until(stream: Response, fits: (event: string, data: unknown) => boolean) {
  const reader = stream.body!.getReader();
  let text = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) throw new Error('the stream ended');
    text += Buffer.from(value as Uint8Array).toString('utf8');
    const whole = text.split('\n\n');
    text = whole.pop() ?? '';
    for (const each of whole) {
      const event = /^event: ?(.*)$/m.exec(each)?.[1] ?? '';
      const data = /^data: ?(.*)$/m.exec(each)?.[1];
      if (data !== undefined && fits(event, JSON.parse(data))) {
        void reader.cancel();
        return JSON.parse(data) as unknown;
      }
    }
  }
}

describe('two servers on one database', () => {
  it('serve one visitor by turns: sessions, records and chains are the same on both', async () => {
    const visitor = await enter(staff.names.technician);
    const header = runHeader(unit);
    expect((await visitor.ask('POST', '/logs', header)).status).toBe(201);
    const facts = wholeRun();
    for (const fact of facts) {
      const answer = await visitor.ask('POST', `/logs/${header.id}/facts`, { facts: [fact] });
      expect(answer.status).toBe(200);
    }
    for (const at of [0, 1]) {
      const record = (await (
        await visitor.ask('GET', `/logs/${header.id}`, undefined, at)
      ).json()) as LogRecord;
      expect(record.facts).toHaveLength(facts.length);
      expect(record.chain?.brokenAt).toBeNull();
    }
    await visitor.ask('POST', '/sign-out', undefined, 0);
    expect((await visitor.ask('GET', '/me', undefined, 1)).status).toBe(401);
  });

  it('are one behind a proxy that sends each request to the other: a follower hears what the other took in', async () => {
    const turn = inTurn();
    const targets: string[] = [];
    const passOn = createProxyMiddleware({
      router: () => {
        const to = `http://127.0.0.1:${machines[turn()]!.port}`;
        targets.push(to);
        return to;
      },
      target: 'http://127.0.0.1:1',
    });
    const proxy = createServer((request, response) => void passOn(request, response));
    await new Promise<void>((up) => proxy.listen(0, '127.0.0.1', up));
    try {
      const at = `http://127.0.0.1:${(proxy.address() as AddressInfo).port}/api/v1`;
      const json = { 'content-type': 'application/json' };
      const entered = await fetch(`${at}/sign-in`, {
        ...{ method: 'POST', headers: json },
        body: JSON.stringify({ signInName: staff.names.technician, password: testPassword }),
      });
      expect(entered.status).toBe(200);
      const cookie = entered.headers
        .getSetCookie()
        .map((each) => each.split(';')[0])
        .join('; ');
      const post = (path: string, body: object) =>
        fetch(`${at}${path}`, {
          ...{ method: 'POST', headers: { ...json, cookie } },
          body: JSON.stringify(body),
        });
      const header = runHeader(unit);
      expect((await post('/logs', header)).status).toBe(201);
      const [first] = wholeRun();
      const stream = await fetch(`${at}/logs/${header.id}/live`, { headers: { cookie } });
      expect(stream.status).toBe(200);
      const followedAt = targets.at(-1);
      const heard = until(stream, (_, held) => (held as Held).held === 1);
      expect((await post(`/logs/${header.id}/facts`, { facts: [first] })).status).toBe(200);
      expect(targets.at(-1)).not.toBe(followedAt);
      expect(await heard).toMatchObject({ logId: header.id, held: 1 });
      expect(new Set(targets).size).toBe(2);
    } finally {
      proxy.closeAllConnections();
      await new Promise((done) => proxy.close(done));
    }
  });

  it('take the same facts at both at once, each of them once', async () => {
    const visitor = await enter(staff.names.technician);
    const header = runHeader(unit);
    await visitor.ask('POST', '/logs', header);
    const facts = wholeRun();
    await Promise.all(
      Array.from({ length: 8 }, (_, n) =>
        visitor.ask('POST', `/logs/${header.id}/facts`, { facts }, n % 2),
      ),
    );
    const record = (await (await visitor.ask('GET', `/logs/${header.id}`)).json()) as LogRecord;
    expect(record.facts.map(({ id }) => id).sort()).toEqual(facts.map(({ id }) => id).sort());
    expect(record.chain?.brokenAt).toBeNull();
  });

  it('tell followers at one what the other took in', async () => {
    const writer = await enter(staff.names.technician, () => 0);
    const follower = await enter(staff.names.viewer, () => 1);
    const header = runHeader(unit);
    await writer.ask('POST', '/logs', header);
    const facts = wholeRun();
    const stream = await follower.ask('GET', `/logs/${header.id}/live`);
    const grown = until(stream, (event, data) => event === 'grew' && (data as Held).held === 3);
    await writer.ask('POST', `/logs/${header.id}/facts`, { facts: facts.slice(0, 3) });
    expect(await grown).toMatchObject({ logId: header.id, held: 3 });
  });

  it('pass calls to a pedal, and what the helper’s phone shows of them', async () => {
    const caller = await enter(staff.names.technician, () => 0);
    const helper = await enter(staff.names.viewer, () => 1);
    const stream = await helper.ask('GET', `/units/${unit.id}/pedal/live`);
    const called = until(stream, (_, data) => (data as { call: unknown }).call !== null);
    const call = { call: 'press', seq: 1 };
    await caller.ask('POST', `/units/${unit.id}/pedal`, call);
    expect(await called).toMatchObject({ seq: 1 });
    await helper.ask('POST', `/units/${unit.id}/pedal/heard`, { seq: 1 });
    for (;;) {
      const said = (await (await caller.ask('POST', `/units/${unit.id}/pedal`, call)).json()) as {
        heard: { seq: number } | null;
      };
      if (said.heard?.seq === 1) break;
    }
  });

  it('show the same simulated gauge set to listeners at both', async () => {
    const [one, two] = [
      await enter(staff.names.technician, () => 0),
      await enter(staff.names.lead, () => 1),
    ];
    interface Sample {
      channel: string;
      seq: number;
      psi: number;
    }
    const collect = async (
      visitor: Visitor,
      started: () => void,
      enough: (n: number) => boolean,
    ) => {
      const kept = new Map<string, number>();
      const stream = await visitor.ask('GET', `/units/${unit.id}/gauges/live`);
      await until(stream, (event, data) => {
        if (event !== 'samples') return false;
        started();
        for (const { channel, seq, psi } of data as Sample[]) kept.set(`${channel} ${seq}`, psi);
        return enough(kept.size);
      });
      return kept;
    };
    let isDone = false;
    let first: Promise<Map<string, number>> | undefined;
    await new Promise<void>((started) => {
      first = collect(one, started, () => isDone);
    });
    const second = await collect(
      two,
      () => undefined,
      (n) => n > 40,
    );
    isDone = true;
    const seen = await first!;
    const both = [...second].filter(([key]) => seen.has(key));
    expect(both.length).toBeGreaterThan(20);
    for (const [key, psi] of both) expect([key, psi]).toEqual([key, seen.get(key)]);
  });

  it('end a stream at one when its right is taken away at the other', async () => {
    const made = await makeStaff(shop, 'two-ended');
    const own = await addTruck(made.lead, '1');
    const viewer = await enter(made.names.viewer, () => 1);
    const lead = await enter(made.names.lead, () => 0);
    const stream = await viewer.ask('GET', `/units/${own.id}/pedal/live`);
    const reader = stream.body!.getReader();
    const ended = (async () => {
      for (;;) if ((await reader.read()).done) return 'ended';
    })();
    await lead.ask('PATCH', `/people/${made.ids.viewer}`, { active: false });
    expect(await ended).toBe('ended');
  });

  it('count tries together', async () => {
    const stranger = new Visitor(inTurn());
    const tryIt = (password: string) =>
      stranger.ask('POST', '/sign-in', { signInName: staff.names.lead, password });
    for (let n = 0; n < SIGN_IN_TRIES; n += 1) expect((await tryIt('wrong')).status).toBe(401);
    for (const at of [0, 1]) {
      const refused = await stranger.ask(
        'POST',
        '/sign-in',
        { signInName: staff.names.lead, password: testPassword },
        at,
      );
      expect(refused.status).toBe(429);
    }
  });

  it('take a second factor’s code once, whichever it is given to', async () => {
    const made = await makeStaff(shop, 'two-codes');
    const { TOTP, Secret } = await import('otpauth');
    const offer = (
      await made.lead.post('/api/me/second-factor').send({ password: testPassword }).expect(200)
    ).body as FactorOffer;
    const totp = new TOTP({ secret: Secret.fromBase32(offer.secret) });
    await made.lead
      .post('/api/me/second-factor/confirm')
      .send({ code: totp.generate({ timestamp: Date.now() - 30_000 }) })
      .expect(200);
    const code = totp.generate();
    const body = { signInName: made.names.lead, password: testPassword, code };
    const answers = await Promise.all(
      [0, 1].map((at) => new Visitor(() => at).ask('POST', '/sign-in', body)),
    );
    expect(answers.map(({ status }) => status).sort()).toEqual([200, 401]);
  });

  it('hear each other again after the database dropped every connection', async () => {
    const writer = await enter(staff.names.technician, () => 0);
    const follower = await enter(staff.names.viewer, () => 1);
    const header = runHeader(unit);
    await writer.ask('POST', '/logs', header);
    const stream = await follower.ask('GET', `/logs/${header.id}/live`);
    const asked = until(stream, (event, data) => event === 'grew' && data === null);
    const owner = new pg.Client({ connectionString: shop.ownerUrl });
    await owner.connect();
    await owner.query(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()`,
    );
    await owner.end();
    // What was said meanwhile is not known: followers are told to ask.
    expect(await asked).toBeNull();
    const again = await follower.ask('GET', `/logs/${header.id}/live`);
    const grown = until(
      again,
      (event, data) => event === 'grew' && (data as Held | null)?.held === 2,
    );
    await writer.ask('POST', `/logs/${header.id}/facts`, { facts: wholeRun().slice(0, 2) });
    await grown;
  });
});
