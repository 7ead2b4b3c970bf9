import pg from 'pg';
import { openDatabase } from '../db/database';
import { makeStaff, openTestShop, type Staff, type TestShop } from '../test/testShop';
import { isDatabaseAway } from './errorHandler';

let shop: TestShop;
let staff: Staff;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'd');
});
afterAll(() => shop.close());

/** Shuts one database as an operator would: no new connections, the open ones ended. */
async function shut(url: string, closed: boolean): Promise<void> {
  const admin = new pg.Client({ connectionString: process.env.TEST_DATABASE_URL });
  await admin.connect();
  const name = new URL(url).pathname.slice(1);
  await admin.query(`alter database ${name} with allow_connections ${closed ? 'false' : 'true'}`);
  if (closed)
    await admin.query('select pg_terminate_backend(pid) from pg_stat_activity where datname = $1', [
      name,
    ]);
  await admin.end();
}

describe('with the database away', () => {
  it('every request is told so in plain words, and goes through again when it is back', async () => {
    await shut(shop.url, true);
    for (const path of ['/api/yard', '/api/me', '/api/health']) {
      const answer = await staff.technician.get(path);
      expect([path, answer.status]).toEqual([path, 503]);
      expect(answer.body).toMatchObject({ code: 'database-unavailable' });
      expect(JSON.stringify(answer.body)).not.toMatch(/select|sql|postgres/i);
    }
    // Whoever looks after the server is told that it runs, and that it cannot be asked.
    await staff.technician.get('/live').expect(200);
    const ready = await staff.technician.get('/ready').expect(503);
    expect(ready.body).toEqual({ ready: false, why: 'the database cannot be reached' });
    await shut(shop.url, false);
    await staff.technician.get('/api/yard').expect(200);
    await staff.technician.get('/ready').expect(200);
  });

  it('outlives connections that break in the middle of a transaction', async () => {
    const broke: string[] = [];
    const own = openDatabase(shop.url, (error) => broke.push(error.message));
    const held = await own.pool.connect();
    await held.query('begin');
    const { rows } = await held.query<{ pid: number }>('select pg_backend_pid() as pid');
    const ended = new Promise((resolve) => held.once('end', resolve));
    const admin = new pg.Client({ connectionString: shop.url });
    await admin.connect();
    await admin.query('select pg_terminate_backend($1)', [rows[0]?.pid]);
    await admin.end();
    await ended;
    // Without a listener of its own the error would have ended this very process.
    expect(broke.length).toBeGreaterThan(0);
    held.release(true);
    await own.close();
  });

  it('gets every connection back, where one breaks as its transaction begins and where it breaks within', async () => {
    const own = openDatabase(shop.url, () => undefined);
    const { pool, db } = own;
    const out = () => pool.totalCount - pool.idleCount;
    const most = pool.options.max;
    const level = 'no such level' as 'serializable';
    for (let n = 0; n < 2 * most; n += 1) {
      await expect(
        db.transaction(() => Promise.resolve(), { isolationLevel: level }),
      ).rejects.toThrow();
    }
    expect(out()).toBe(0);
    for (let n = 0; n < 2 * most; n += 1) {
      const broken = db.transaction((tx) =>
        tx.execute('select pg_terminate_backend(pg_backend_pid())'),
      );
      await expect(broken).rejects.toThrow();
    }
    expect(out()).toBe(0);
    // None was left that would not answer, and what is done in a transaction is done whole or not at all.
    const shops = async () => (await pool.query('select id from shops')).rowCount;
    const before = await shops();
    await expect(
      db.transaction(async (tx) => {
        await tx.execute("insert into shops (id, name) values (gen_random_uuid(), 'Half')");
        throw new Error('changed its mind');
      }),
    ).rejects.toThrow('changed its mind');
    expect(await shops()).toBe(before);
    expect(
      await db.transaction(async (tx) => (await tx.execute('select 7 as seven')).rows[0]),
    ).toEqual({ seven: 7 });
    await own.close();
  });

  it('tells a lost connection from a refused query', () => {
    const coded = (code: string, cause?: Error) =>
      Object.assign(new Error('x', { cause }), { code });
    expect(isDatabaseAway(coded('ECONNREFUSED'))).toBe(true);
    expect(isDatabaseAway(new Error('query failed', { cause: coded('57P01') }))).toBe(true);
    expect(isDatabaseAway(coded('23505'))).toBe(false);
    expect(isDatabaseAway(new Error('plain'))).toBe(false);
    expect(isDatabaseAway('text')).toBe(false);
  });
});
