import pino from 'pino';
import request from 'supertest';
import { makeApp } from '../app';
import { SuspectTables } from '../suspects/suspectTables';
import { workOutApart } from '../suspects/workOut';
import { addTruck, makeStaff, openTestShop, TEST_SECRET, type TestShop } from '../test/testShop';

let shop: TestShop;
const logged: string[] = [];
const appWith = (metricsToken: string | null) =>
  makeApp({
    database: shop.database,
    log: pino({}, { write: (line: string) => void logged.push(line) }),
    sessionSecret: TEST_SECRET,
    secureCookie: false,
    trustedProxies: null,
    signInTries: 100,
    metricsToken,
    webFolder: null,
    tables: new SuspectTables(workOutApart),
  });
beforeAll(async () => {
  shop = await openTestShop();
});
afterAll(() => shop.close());

describe('what is measured', () => {
  it('is read with the token alone, in the usual text format, by route and never by id', async () => {
    const app = appWith('a token for tests');
    const staff = await makeStaff({ ...shop, app }, 'metrics');
    const unit = await addTruck(staff.lead, '1');
    await staff.viewer.get(`/api/units/${unit.id}`).expect(200);
    await staff.viewer.get(`/api/units/${unit.id.replace(/^./, 'f')}`).expect(404);
    await request(app).get('/metrics').expect(404);
    await request(app).get('/metrics').set('authorization', 'Bearer another token ...').expect(404);
    const { text, headers } = await request(app)
      .get('/metrics')
      .set('authorization', 'Bearer a token for tests')
      .expect(200);
    expect(headers['content-type']).toContain('text/plain');
    const line = (name: string, ...labels: string[]) =>
      text
        .split('\n')
        .find((each) => each.startsWith(name) && labels.every((label) => each.includes(label)));
    const of = ['route="/api/units/:id"', 'method="GET"'];
    expect(line('keen_bleed_answer_seconds_count', ...of, 'status="200"')).toMatch(/ 1$/);
    expect(line('keen_bleed_answer_seconds_count', ...of, 'status="404"')).toMatch(/ 1$/);
    expect(line('keen_bleed_database_connections')).toMatch(/ [1-9]\d*$/);
    expect(line('process_resident_memory_bytes')).toBeDefined();
    expect(text).not.toContain(unit.id);
  });

  it('is nobody’s where no token was set', async () => {
    const app = appWith(null);
    await request(app).get('/metrics').set('authorization', 'Bearer null').expect(404);
  });
});

describe('every request', () => {
  it('has a name that its answer carries, the proxy’s own where that fits, and the log tells it', async () => {
    const app = appWith(null);
    const own = await request(app).get('/live').set('x-request-id', 'proxy-12345678');
    expect(own.headers['x-request-id']).toBe('proxy-12345678');
    const most = 'x'.repeat(64);
    const long = await request(app).get('/live').set('x-request-id', most);
    expect(long.headers['x-request-id']).toBe(most);
    for (const wrong of ['no spaces <b>', '1234567', `${most}x`, '12345678<b>', '<b>12345678']) {
      const other = await request(app).get('/live').set('x-request-id', wrong);
      expect(other.headers['x-request-id']).toMatch(/^[0-9a-f-]{36}$/);
    }
    const broken = makeApp({
      database: {
        ...shop.database,
        pool: Object.create(shop.database.pool, {
          query: { value: () => Promise.reject(new Error('a bug')) },
        }) as typeof shop.database.pool,
      },
      log: pino({}, { write: (line: string) => void logged.push(line) }),
      sessionSecret: TEST_SECRET,
      secureCookie: false,
      trustedProxies: null,
      signInTries: 100,
      webFolder: null,
      tables: new SuspectTables(workOutApart),
    });
    const failed = await request(broken).get('/api/health').expect(500);
    const name = failed.headers['x-request-id'];
    expect(logged.some((line) => line.includes(String(name)) && line.includes('a bug'))).toBe(true);
    expect(JSON.stringify(failed.body)).not.toContain('a bug');
  });
});
