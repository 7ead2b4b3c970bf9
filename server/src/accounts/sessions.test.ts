import type { AuditPage, DeviceSession, Me } from '@keen-bleed/contract';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import pg from 'pg';
import pino from 'pino';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { makeApp } from '../app';
import { people, shops } from '../db/schema';
import { openDatabase } from '../db/database';
import { MOST_DEVICES } from '../http/quotas';
import { SuspectTables } from '../suspects/suspectTables';
import { workOutApart } from '../suspects/workOut';
import {
  addTruck,
  makeStaff,
  openTestShop,
  testPassword,
  TEST_SECRET,
  type Agent,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { hashPassword } from './password';
import { recoverLead } from './recover';
import { setUpCodeOf } from './setUpCode';

let shop: TestShop;
let staff: Staff;
let owner: pg.Client;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'sess');
  owner = new pg.Client({ connectionString: shop.ownerUrl });
  await owner.connect();
});
afterAll(async () => {
  await owner.end();
  await shop.close();
});

const enter = async (name: string, userAgent = 'none', more: object = {}): Promise<Agent> => {
  const agent = request.agent(shop.app);
  await agent
    .post('/api/sign-in')
    .set('user-agent', userAgent)
    .send({ signInName: name, password: testPassword, ...more })
    .expect(200);
  return agent;
};
const devicesOf = async (agent: Agent) =>
  (await agent.get('/api/me/sessions').expect(200)).body as DeviceSession[];

const FIREFOX = 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0';
const PHONE =
  'Mozilla/5.0 (Linux; Android 14; Pixel 7) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/126.0 Mobile Safari/537.36';

describe('the devices somebody is signed in on', () => {
  it('are twenty at most: a further one signs out those that were used longest ago', async () => {
    const made = await makeStaff(shop, 'crowd');
    const [first, second] = [await enter(made.names.viewer), await enter(made.names.viewer)];
    // The very first was used just now.
    await owner.query(
      `update sessions set last_at = now() + interval '1 minute' where sid =
         (select sid from sessions where person_id = $1 order by last_at limit 1)`,
      [made.ids.viewer],
    );
    const others: Agent[] = [];
    for (let n = 0; n < MOST_DEVICES; n += 1) others.push(await enter(made.names.viewer));
    expect(await devicesOf(others.at(-1)!)).toHaveLength(MOST_DEVICES);
    for (const ended of [first, second, others[0]!]) await ended.get('/api/me').expect(401);
    for (const kept of [made.viewer, others[1]!, others.at(-1)!, made.technician])
      await kept.get('/api/me').expect(200);
  });

  it('are listed to them alone, with the one they look from, and ended one by one', async () => {
    const made = await makeStaff(shop, 'devices');
    const [desk, phone] = [
      await enter(made.names.viewer, FIREFOX),
      await enter(made.names.viewer, PHONE),
    ];
    const seen = await devicesOf(desk);
    expect(seen.map(({ device }) => device).sort()).toEqual([
      'A device that does not say what it is',
      'Chrome on Android phone',
      'Firefox on Linux',
    ]);
    expect(seen.filter(({ isThis }) => isThis)).toMatchObject([{ device: 'Firefox on Linux' }]);
    expect(JSON.stringify(seen)).not.toMatch(/sid/);
    const other = seen.find(({ device }) => device.includes('phone'))!;
    // Nobody ends a device of somebody else, of the same shop or another; a lead neither.
    await made.lead.delete(`/api/me/sessions/${other.id}`).expect(404);
    await staff.viewer.delete(`/api/me/sessions/${other.id}`).expect(404);
    await phone.get('/api/me').expect(200);
    await desk.delete(`/api/me/sessions/${other.id}`).expect(204);
    await phone.get('/api/me').expect(401);
    await desk.get('/api/me').expect(200);
    await desk.delete(`/api/me/sessions/${other.id}`).expect(404);
  });

  it('are signed out when they lie idle for longer than the shop has it', async () => {
    const made = await makeStaff(shop, 'idle');
    await made.lead.patch('/api/shop').send({ idleMinutes: 5 }).expect(422);
    await made.lead.patch('/api/shop').send({ idleMinutes: 30 }).expect(200);
    const lie = (minutes: number) =>
      owner.query(
        `update sessions set last_at = now() - $3 * interval '1 minute' where shop_id = $1 and person_id = $2`,
        [made.shopId, made.ids.technician, minutes],
      );
    const idleMinutes = async () => {
      const { rows } = await owner.query<{ m: string }>(
        'select extract(epoch from now() - last_at) / 60 as m from sessions where shop_id = $1 and person_id = $2',
        [made.shopId, made.ids.technician],
      );
      return Number(rows[0]?.m);
    };
    await lie(20);
    await made.technician.get('/api/me').expect(200);
    // That it is in use is noted without holding the answer up.
    while ((await idleMinutes()) > 1);
    await lie(45);
    await made.technician.get('/api/me').expect(401);
    await made.lead.get('/api/me').expect(200);
    expect(await devicesOf(made.lead)).toHaveLength(1);
  });
});

describe('a stream of events', () => {
  let server: Server;
  let base: string;
  beforeAll(async () => {
    server = createServer(shop.app);
    await new Promise<void>((up) => server.listen(0, '127.0.0.1', up));
    base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  });
  afterAll(() => {
    server.closeAllConnections();
    return new Promise((done) => server.close(done));
  });

  /** Signs somebody in and follows a pedal; tells when the stream is ended by the server. */
  async function follow(name: string, unitId: string) {
    const entered = await fetch(`${base}/api/sign-in`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ signInName: name, password: testPassword }),
    });
    const cookie = entered.headers
      .getSetCookie()
      .map((each) => each.split(';')[0])
      .join('; ');
    const stream = await fetch(`${base}/api/units/${unitId}/pedal/live`, { headers: { cookie } });
    expect(stream.status).toBe(200);
    const reader = stream.body!.getReader();
    await reader.read();
    const ended = (async () => {
      for (;;) if ((await reader.read()).done) return 'ended';
    })();
    const again = () =>
      fetch(`${base}/api/units/${unitId}/pedal/live`, { headers: { cookie } }).then((answer) => {
        void answer.body?.cancel();
        return answer.status;
      });
    const signOut = () => fetch(`${base}/api/sign-out`, { method: 'POST', headers: { cookie } });
    return { ended, again, signOut };
  }

  it.each([
    ['is let go', { active: false }, 401],
    ['is given another password', { password: 'plough gate amber tin' }, 401],
    ['is given another role, and may be asked for again', { role: 'technician' }, 200],
  ])('ends as its owner %s', async (_, edit, status) => {
    const made = await makeStaff(shop, `stream-${Object.keys(edit)[0]}`);
    const unit = await addTruck(made.lead, '1');
    const viewer = await follow(made.names.viewer, unit.id);
    const bystander = await follow(made.names.technician, unit.id);
    await made.lead.patch(`/api/people/${made.ids.viewer}`).send(edit).expect(200);
    expect(await viewer.ended).toBe('ended');
    expect(await viewer.again()).toBe(status);
    expect(await Promise.race([bystander.ended, Promise.resolve('open')])).toBe('open');
  });

  it('ends at a sign-out, on that device alone', async () => {
    const made = await makeStaff(shop, 'stream-out');
    const unit = await addTruck(made.lead, '1');
    const [one, two] = [
      await follow(made.names.viewer, unit.id),
      await follow(made.names.viewer, unit.id),
    ];
    await one.signOut();
    expect(await one.ended).toBe('ended');
    expect(await Promise.race([two.ended, Promise.resolve('open')])).toBe('open');
    expect(await two.again()).toBe(200);
  });
});

describe('the first visit', () => {
  it('is asked for the code that was printed, however it is typed, and tries are limited', async () => {
    const empty = await openTestShop();
    const setUpCode = setUpCodeOf(TEST_SECRET);
    expect(setUpCode).toMatch(/^[A-Z2-9]{4}-[A-Z2-9]{4}$/);
    const app = makeApp({
      database: empty.database,
      log: pino({ level: 'silent' }),
      sessionSecret: TEST_SECRET,
      secureCookie: false,
      trustedProxies: null,
      signInTries: 2,
      setUpCode,
      webFolder: null,
      tables: new SuspectTables(workOutApart),
    });
    await request(app).get('/api/set-up').expect(200, { needsFirstLead: true, needsCode: true });
    const first = {
      shopName: 'Depot',
      name: 'Lea',
      signInName: 'lea',
      password: 'long enough now',
    };
    const without = await request(app).post('/api/set-up').send(first).expect(422);
    expect(without.body).toMatchObject({ fields: [{ field: 'code' }] });
    await request(app)
      .post('/api/set-up')
      .send({ ...first, code: 'AAAA-AAAA' })
      .expect(422);
    const typed = setUpCode.toLowerCase().replace('-', ' ');
    await request(app)
      .post('/api/set-up')
      .send({ ...first, code: typed })
      .expect(201);
    await request(app).get('/api/set-up').expect(200, { needsFirstLead: false, needsCode: false });
    await empty.close();
    const guessed = await openTestShop({ signInTries: 2 });
    const guess = () =>
      request(
        makeApp({
          database: guessed.database,
          log: pino({ level: 'silent' }),
          sessionSecret: TEST_SECRET,
          secureCookie: false,
          trustedProxies: null,
          signInTries: 2,
          setUpCode,
          webFolder: null,
          tables: new SuspectTables(workOutApart),
        }),
      )
        .post('/api/set-up')
        .send({ ...first, code: 'BBBB-BBBB' });
    // A new server each time: tries are counted for the installation, not for a process.
    for (let n = 0; n < 10; n += 1) expect((await guess()).status).toBe(422);
    expect((await guess()).status).toBe(429);
    await guessed.close();
  });
});

describe('a name that two shops know', () => {
  it('is told apart by its password, or by the shop’s name', async () => {
    const [one, two] = [uuidv7(), uuidv7()];
    await shop.database.db.insert(shops).values([
      { id: one, name: 'North' },
      { id: two, name: 'South' },
    ]);
    const person = (shopId: string, passwordHash: string) =>
      shop.database.db.insert(people).values({
        shopId,
        id: uuidv7(),
        name: 'Sam',
        signInName: 'sam',
        role: 'viewer',
        passwordHash,
      });
    await person(one, await hashPassword('north door copper'));
    await person(two, await hashPassword('south door copper'));
    const tryIt = (password: string, more: object = {}) =>
      request(shop.app)
        .post('/api/sign-in')
        .send({ signInName: 'Sam', password, ...more });
    expect(((await tryIt('south door copper').expect(200)).body as Me).shopName).toBe('South');
    await tryIt('east door copper').expect(401);
    await tryIt('south door copper', { shop: 'North' }).expect(401);
    await owner.query(
      `update people set password_hash = (select password_hash from people where shop_id = $1 limit 1) where shop_id = $2`,
      [one, two],
    );
    expect((await tryIt('north door copper').expect(401)).body).toMatchObject({
      code: 'which-shop',
    });
    const told = await tryIt('north door copper', { shop: 'south' }).expect(200);
    expect((told.body as Me).shopName).toBe('South');
    const atConsole = openDatabase(shop.ownerUrl, () => undefined);
    const unsure = await recoverLead(atConsole, 'sam');
    const sure = await recoverLead(atConsole, 'sam', 'north');
    await atConsole.close();
    expect(unsure).toEqual({
      trouble: expect.stringMatching(/known in (North, South|South, North)/) as string,
    });
    expect(sure).toHaveProperty('password');
  });

  it('is asked for its shop where so many know it that trying each would be slow', async () => {
    const known = Array.from({ length: 6 }, (_, n) => ({ id: uuidv7(), name: `Depot ${n}` }));
    await shop.database.db.insert(shops).values(known);
    // No two have the same: it is not asked because the password fits several.
    await shop.database.db.insert(people).values(
      await Promise.all(
        known.map(async ({ id, name }) => ({
          ...{ shopId: id, id: uuidv7(), name: 'Kim', signInName: 'kim', role: 'viewer' as const },
          passwordHash: await hashPassword(`${name} door copper`),
        })),
      ),
    );
    const tryIt = (more: object = {}) =>
      request(shop.app)
        .post('/api/sign-in')
        .send({ signInName: 'kim', password: 'Depot 0 door copper', ...more });
    expect((await tryIt().expect(401)).body).toMatchObject({ code: 'which-shop' });
    expect(((await tryIt({ shop: 'depot 0' }).expect(200)).body as Me).shopName).toBe('Depot 0');
  });
});

describe('a lead who is locked out', () => {
  it('is let in again at the server’s console, whatever they were made of meanwhile', async () => {
    const made = await makeStaff(shop, 'console');
    await owner.query(`update people set role = 'viewer', active = false where id = $1`, [
      made.ids.lead,
    ]);
    const database = openDatabase(shop.ownerUrl, () => undefined);
    expect(await recoverLead(database, 'nobody-at-all')).toMatchObject({
      trouble: expect.stringContaining('Nobody') as string,
    });
    const done = await recoverLead(database, made.names.lead.toUpperCase());
    await database.close();
    if ('trouble' in done) throw new Error(done.trouble);
    const agent = request.agent(shop.app);
    const entered = await agent
      .post('/api/sign-in')
      .send({ signInName: made.names.lead, password: done.password })
      .expect(200);
    expect((entered.body as Me).role).toBe('lead');
    const trail = (await agent.get('/api/audit').expect(200)).body as AuditPage;
    expect(trail.rows.find(({ what }) => what === 'recovered')).toMatchObject({
      by: 'the server’s console',
    });
  });
});

describe('the audit trail', () => {
  const read = async (agent: Agent, after?: string) =>
    (await agent.get(`/api/audit${after ? `?after=${after}` : ''}`).expect(200)).body as AuditPage;

  it('says who did what, newest first, page by page, to leads of the shop alone', async () => {
    const made = await makeStaff(shop, 'audit');
    const { lead, technician, viewer, ids } = made;
    const unit = await addTruck(lead, '77');
    const edit = (change: object) =>
      lead.patch(`/api/people/${ids.viewer}`).send(change).expect(200);
    await edit({ role: 'technician' });
    await edit({ password: 'mud under the axle' });
    await edit({ active: false });
    await edit({ active: true });
    await edit({ secondFactor: false });
    const signIn = (password: string) =>
      request(shop.app).post('/api/sign-in').send({ signInName: made.names.viewer, password });
    await signIn(testPassword).expect(401);
    await signIn('mud under the axle').expect(200);
    await lead.patch('/api/shop').send({ name: 'New name' }).expect(200);
    await request(shop.app)
      .post('/api/sign-in')
      .send({ signInName: made.names.lead, password: 'wrong one' })
      .expect(401);
    await technician.get('/api/due.ics').expect(200);
    let rows = (await read(lead)).rows;
    // Somebody who is refused is noted without being waited for.
    while (!rows.some(({ what }) => what === 'refused')) rows = (await read(lead)).rows;
    const said = rows.map(({ what, by, about }) => `${what} ${by}: ${about}`);
    expect(said).toContain('unit-added lead: Tipper 77');
    expect(said).toContain('role lead: viewer: viewer to technician');
    expect(said).toContain('password lead: viewer’s');
    expect(said.filter((each) => each.endsWith(' lead: viewer')).sort()).toEqual([
      'activated lead: viewer',
      'deactivated lead: viewer',
    ]);
    expect(said).toContain('second-factor lead: viewer’s turned off');
    expect(said).toContain('shop lead: name');
    expect(said).toContain('refused somebody: as lead');
    expect(said.some((each) => each.startsWith('exported technician: '))).toBe(true);
    expect(said.filter((each) => each.startsWith('signed-in')).length).toBe(4);
    expect(rows.map(({ id }) => id)).toEqual([...rows.map(({ id }) => id)].sort().reverse());
    await technician.get('/api/audit').expect(403);
    // Whoever was let go, or given another password, is out.
    await viewer.get('/api/audit').expect(401);
    await staff.viewer.get('/api/audit').expect(403);
    expect((await read(staff.lead)).rows.some(({ about }) => about.includes('77'))).toBe(false);
    // More than a page of it.
    for (let n = 0; n < 120; n += 1) {
      await lead
        .patch('/api/shop')
        .send({ name: `Name ${n}` })
        .expect(200);
    }
    const first = await read(lead);
    const second = await read(lead, first.next!);
    expect(first.rows).toHaveLength(100);
    expect(second.next).toBeNull();
    const all = [...first.rows, ...second.rows].map(({ id }) => id);
    expect(new Set(all).size).toBe(all.length);
    expect(all.length).toBeGreaterThan(120);
    expect(unit.number).toBe('77');
    await lead.get('/api/audit?after=nothing').expect(422);
  });
});
