import pg from 'pg';
import request from 'supertest';
import { v7 as uuidv7 } from 'uuid';
import { demoPassword, demoShopName } from '../demo/demoPeople';
import { seedDemo } from '../demo/seedDemo';
import type { Route } from '../http/route';
import { openTestShop, type Agent, type TestShop } from '../test/testShop';

/*
 * A second shop that holds every row of the first under the very same ids, with other words in it. Whatever a route
 * reads without asking for the shop then comes twice, or comes in the other shop's words.
 */
const TWIN = 'The other depot';
/** Put before every name, number and note of the twin. */
const MARK = 'Zz';
/** These tell of the asking itself. */
const OF_THE_ASKING = ['/me/sessions', '/audit'];

let shop: TestShop;
let owner: pg.Client;
let first: Agent;
let twin: Agent;
let shopId: string;
let before: Map<string, string>;

async function agent(shopName: string): Promise<Agent> {
  const made = request.agent(shop.app);
  await made
    .post('/api/sign-in')
    .send({ signInName: 'maren', password: demoPassword, shop: shopName })
    .expect(200);
  return made;
}

/** Every id of the first shop, by what stands in a path for it. */
async function idsFor(path: string): Promise<string[]> {
  if (!path.includes(':')) return [''];
  const [, first = ''] = path.split('/');
  const from = {
    units: `from units where shop_id = $1`,
    logs: `from (select distinct on (kind, verdict) id from logs where shop_id = $1 order by kind, verdict, id) l`,
    runs: `from logs where shop_id = $1 and kind = 'run' order by id desc limit 3`,
    visits: `from logs where shop_id = $1 and kind = 'visit' order by id limit 3`,
    jobs: `from logs where shop_id = $1 and kind = 'job'`,
  }[first];
  if (!from) throw new Error(`${path}: what is its id?`);
  const { rows } = await owner.query<{ id: string }>(`select id ${from}`, [shopId]);
  return rows.map(({ id }) => id);
}

/** What every route that reads a record or writes a text file answers, by path. */
async function readAll(as: Agent): Promise<Map<string, string>> {
  const { routes } = shop.app.locals as { routes: Route[] };
  const reads = routes.filter(
    ({ method, path, answers }) =>
      method === 'get' &&
      !OF_THE_ASKING.includes(path) &&
      (typeof answers !== 'string' || /\.(json|jsonl|csv|ics|html)$/.test(path)),
  );
  const read = new Map<string, string>();
  for (const { path } of reads) {
    for (const id of await idsFor(path)) {
      const at = path.replace(/:\w+/, id);
      const answer = await as.get(`/api${at}`).buffer();
      expect([at, answer.status]).toEqual([at, 200]);
      // When a file was made stands in it, and that it was.
      read.set(
        at,
        answer.text.replace(/DTSTAMP:\w+|"exportedAtMs":\d+|\{"line":"(audit|end)".*\n/g, ''),
      );
    }
  }
  return read;
}

/** Copies each row of every table into the twin, its texts and its JSON marked. */
async function copyRows(): Promise<void> {
  const twinId = uuidv7();
  const { rows: tables } = await owner.query<{ table: string; columns: string[]; types: string[] }>(
    `select c.table_name as table, array_agg(c.column_name::text order by ordinal_position) as columns,
       array_agg(c.data_type::text order by ordinal_position) as types
     from information_schema.columns c
     join information_schema.tables t using (table_schema, table_name)
     where c.table_schema = 'public' and t.table_type = 'BASE TABLE'
     group by 1 having 'shop_id' = any(array_agg(c.column_name::text))`,
  );
  expect(tables.length).toBeGreaterThan(10);
  await owner.query(`set session_replication_role = replica`);
  await owner.query(
    `insert into shops (id, name, rule_set_id, time_zone, demo) select $1, $2, rule_set_id, time_zone, demo from shops`,
    [twinId, TWIN],
  );
  for (const { table, columns, types } of tables.filter((each) => each.table !== 'sessions')) {
    const values = columns.map((column, n) => {
      if (column === 'shop_id') return `'${twinId}'`;
      if (types[n] === 'jsonb')
        return `regexp_replace("${column}"::text, '"(name|number|text|owner)": "', '"\\1": "${MARK} ', 'g')::jsonb`;
      if (table === 'people' && column === 'name') return `'${MARK} ' || name`;
      if (table === 'units' && column === 'number') return `'${MARK} ' || number`;
      return `"${column}"`;
    });
    const names = columns.map((column) => `"${column}"`).join(', ');
    await owner.query(
      `insert into "${table}" (${names}) select ${values.join(', ')} from "${table}" where shop_id = $1`,
      [shopId],
    );
  }
  await owner.query(`set session_replication_role = origin`);
}

/** Gives the twin as many logs again, of the same units at the same hours under ids of their own. */
async function addOthers(table: string, id: string): Promise<void> {
  const { rows } = await owner.query<{ column: string }>(
    `select column_name::text as column from information_schema.columns where table_name = $1`,
    [table],
  );
  const names = rows.map(({ column }) => `"${column}"`);
  const own = `(left("${id}"::text, 35) || translate(right("${id}"::text, 1), '0123456789abcdef', '123456789abcdef0'))::uuid`;
  await owner.query(
    `insert into "${table}" (${names.join(', ')})
     select ${names.map((name) => (name === `"${id}"` ? own : name)).join(', ')} from "${table}" where shop_id <> $1`,
    [shopId],
  );
}

beforeAll(async () => {
  shop = await openTestShop();
  owner = new pg.Client({ connectionString: shop.ownerUrl });
  await owner.connect();
  await seedDemo(shop.database.db, { todayMs: Date.parse('2026-11-24T12:00:00Z') });
  shopId = (await owner.query<{ id: string }>('select id from shops')).rows[0]?.id ?? '';
  first = await agent(demoShopName);
  before = await readAll(first);
  await copyRows();
  twin = await agent(TWIN);
}, 180_000);
afterAll(async () => {
  await owner.end();
  await shop.close();
});

it('reads its own words in the other shop, and none of the first', async () => {
  const theirs = await readAll(twin);
  const names = /(?<!Zz )(Maren Osk|Idris Fenn|Paula Quill|Joss Wend)/;
  const leaks = [...theirs].filter(([, text]) => names.test(text));
  expect(leaks.map(([path]) => path)).toEqual([]);
  // As often as the first shop says a name, the twin says one with its mark: nothing is told twice, nothing left out.
  const count = (text: string, name: RegExp) => (text.match(name) ?? []).length;
  const said = /(Maren Osk|Idris Fenn|Paula Quill|Joss Wend)/g;
  for (const [path, text] of before) {
    expect([path, count(theirs.get(path) ?? '', said)]).toEqual([path, count(text, said)]);
  }
  const yard = JSON.parse(theirs.get('/yard') ?? '[]') as { unit: { number: string } }[];
  expect(yard.length).toBeGreaterThan(10);
  expect(yard.filter(({ unit }) => !unit.number.startsWith(MARK))).toEqual([]);
  for (const [path, text] of theirs) {
    if (/^\/units\/[^/]+$/.test(path)) expect(text).toContain(`"number":"${MARK} `);
  }
});

it('reads the same as before where another shop holds the very same ids, and others at the same hours', async () => {
  await owner.query(`set session_replication_role = replica`);
  for (const table of ['logs', 'log_units'])
    await addOthers(table, table === 'logs' ? 'id' : 'log_id');
  await owner.query(`set session_replication_role = origin`);
  expect(before.size).toBeGreaterThan(60);
  const after = await readAll(first);
  const changed = [...before].filter(([path, text]) => after.get(path) !== text);
  expect(changed.map(([path]) => path)).toEqual([]);
});
