import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import { prepareDatabase } from './leastRights';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  TEST_SECRET,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';

let shop: TestShop;
let staff: Staff;
let owner: pg.Client;
let logId: string;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'rights');
  owner = new pg.Client({ connectionString: shop.ownerUrl });
  await owner.connect();
  const unit = await addTruck(staff.lead, '1');
  const header = runHeader(unit);
  logId = header.id;
  await staff.technician.post('/api/logs').send(header).expect(201);
  await staff.technician.post(`/api/logs/${logId}/facts`).send({ facts: wholeRun() }).expect(200);
});
afterAll(async () => {
  await owner.end();
  await shop.close();
});

/** What a statement of somebody who got hold of the server’s own connection is answered with. */
const code = (client: { query: (text: string) => Promise<unknown> }, statement: string) =>
  client.query(statement).then(
    () => 'done',
    (error: unknown) => (error as { code: string }).code,
  );

const DENIED = '42501';
const REFUSED = '23000';

it('works as a role that is no superuser, owns nothing and makes nothing', async () => {
  const { rows } = await shop.database.pool.query<Record<string, unknown>>(
    `select rolsuper, rolcreatedb, rolcreaterole, rolbypassrls,
       (select count(*)::int from pg_class where relowner = r.oid) as owns
     from pg_roles r where rolname = current_user`,
  );
  expect(rows[0]).toEqual({
    ...{ rolsuper: false, rolcreatedb: false, rolcreaterole: false, rolbypassrls: false },
    owns: 0,
  });
  expect(await code(shop.database.pool, 'create table extra (id int)')).toBe(DENIED);
  expect(await code(shop.database.pool, 'alter table facts disable trigger all')).toBe(DENIED);
});

const EVIDENCE = [
  'facts',
  'failure_closings',
  'unit_revisions',
  'rule_set_revisions',
  'blobs',
  'audit',
];

it.each([...EVIDENCE, 'logs'])('may not delete from %s, nor empty it', async (table) => {
  expect(await code(shop.database.pool, `delete from ${table}`)).toBe(DENIED);
  expect(await code(shop.database.pool, `truncate ${table} cascade`)).toBe(DENIED);
});

it.each(EVIDENCE)('may not change a row of %s', async (table) => {
  expect(await code(shop.database.pool, `update ${table} set shop_id = shop_id`)).toBe(DENIED);
});

it('changes of a log what follows from its facts, and never its header', async () => {
  const { pool } = shop.database;
  expect(await code(pool, `update logs set headline = headline where id = '${logId}'`)).toBe(
    'done',
  );
  expect(await code(pool, `update logs set header = '{}' where id = '${logId}'`)).toBe(REFUSED);
  expect(await code(pool, `update logs set person_id = '${staff.ids.lead}'`)).toBe(REFUSED);
});

it('is kept from changing facts by the tables themselves: their owner is refused, too', async () => {
  for (const statement of [
    `update facts set fact = '{}'`,
    `update facts set received_at_ms = 0`,
    `update facts set link = null`,
    'delete from facts',
    'truncate facts',
    'delete from logs',
    'delete from audit',
  ]) {
    expect([statement, await code(owner, statement)]).toEqual([statement, REFUSED]);
  }
});

it('begins every key with the shop, the session store and the ledger of migrations apart', async () => {
  const { rows } = await owner.query<{ table: string; key: string; first: string }>(
    `select c.relname as table, i.indexrelid::regclass::text as key,
       coalesce((select attname from pg_attribute a where a.attrelid = c.oid and a.attnum = i.indkey[0]), '?') as first
     from pg_index i join pg_class c on c.oid = i.indrelid join pg_namespace n on n.oid = c.relnamespace
     where n.nspname = 'public' and (i.indisunique or i.indisprimary)`,
  );
  expect(rows.length).toBeGreaterThan(20);
  const apart = rows.filter(({ first }) => first !== 'shop_id').map(({ key }) => key);
  // The table of shops is led by the shop’s own id. Tries are counted before anybody knows a shop.
  expect(apart.sort()).toEqual(['sessions_pkey', 'shops_pkey', 'tries_pkey']);
  const { rows: foreign } = await owner.query<{ name: string; from: string; to: string }>(
    `select conname as name,
       (select attname from pg_attribute where attrelid = conrelid and attnum = conkey[1]) as from,
       (select attname from pg_attribute where attrelid = confrelid and attnum = confkey[1]) as to
     from pg_constraint where contype = 'f' and connamespace = 'public'::regnamespace`,
  );
  expect(foreign.length).toBeGreaterThan(12);
  expect(foreign.filter(({ from }) => from !== 'shop_id')).toEqual([]);
  expect(foreign.filter(({ to }) => to !== 'shop_id' && to !== 'id')).toEqual([]);
});

it('takes no id of nobody for a fact: rows are added all the same', async () => {
  const { pool } = shop.database;
  const row = `insert into facts (shop_id, log_id, lane, seq, id, person_id, fact, received_at_ms)
    values ('${staff.shopId}', '${logId}', '${uuidv7()}', 1, '${uuidv7()}',`;
  expect(await code(pool, `${row} '${uuidv7()}', '{}', 0)`)).toBe('23503');
  expect(await code(pool, `${row} '${staff.ids.lead}', '{}', 0)`)).toBe('done');
});

it('gives the owner’s own address back where whoever runs the server made a role by hand', async () => {
  let did = 0;
  const work = () => Promise.resolve(void (did += 1));
  expect(await prepareDatabase(shop.ownerUrl, TEST_SECRET, work, false)).toBe(shop.ownerUrl);
  expect(did).toBe(1);
  const { username } = new URL(await prepareDatabase(shop.ownerUrl, TEST_SECRET));
  expect(username).not.toBe(new URL(shop.ownerUrl).username);
});
