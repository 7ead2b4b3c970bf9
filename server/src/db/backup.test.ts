import type { LogRecord } from '@keen-bleed/contract';
import { spawnSync } from 'node:child_process';
import {
  chmodSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase, type Database } from './database';
import { prepareDatabase } from './leastRights';
import {
  addTruck,
  makeStaff,
  openEmptyDatabase,
  openTestShop,
  runHeader,
  signedInAgent,
  testApp,
  TEST_SECRET,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';

const script = (name: string) => join(__dirname, `../../../scripts/${name}.mjs`);

let shop: TestShop;
let staff: Staff;
let folder: string;
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'keen-bleed-backup-'));
  shop = await openTestShop();
  staff = await makeStaff(shop, 'kept');
});
afterAll(async () => {
  await shop.close();
  rmSync(folder, { recursive: true });
});

/** Runs one of the commands on a database. */
function command(name: string, url: string, ...args: string[]) {
  return commandWith({}, name, url, ...args);
}

function commandWith(
  env: Record<string, string>,
  name: string,
  url: string,
  ...args: string[]
): { status: number | null; said: string } {
  const done = spawnSync(process.execPath, [script(name), ...args], {
    // One that does not end is what is wrong: this stands far over what it needs.
    timeout: 60_000,
    env: { ...process.env, DATABASE_URL: url, KEEN_BLEED_DATA: folder, ...env },
    encoding: 'utf8',
  });
  return { status: done.status, said: done.stdout + done.stderr };
}

/** PostgreSQL's programs with a psql that does `first` with what it is fed. */
function programsWith(
  name: string,
  words: string,
  program = 'psql',
): { POSTGRES_PROGRAMS: string } {
  const home = '/usr/lib/postgresql';
  const [newest = ''] = readdirSync(home).sort((a, b) => Number(b) - Number(a));
  const real = join(home, newest, 'bin');
  const programs = join(folder, name);
  mkdirSync(programs);
  for (const each of readdirSync(real))
    if (each !== program) symlinkSync(join(real, each), join(programs, each));
  const whole = join(real, program);
  writeFileSync(join(programs, program), `#!/bin/sh\n${words.replace('PSQL', whole)}\n`);
  chmodSync(join(programs, program), 0o755);
  return { POSTGRES_PROGRAMS: programs };
}

/** Rows of every table, by name, and how much else there is. */
async function holds(database: Database): Promise<unknown> {
  const { rows } = await database.pool.query(
    `select (select count(*)::int from pg_trigger where not tgisinternal) as triggers,
       (select count(*)::int from pg_constraint) as constraints,
       (select count(*)::int from pg_indexes where schemaname = 'public') as indexes,
       (select count(*)::int from facts) as facts, (select count(*)::int from units) as units,
       (select count(*)::int from shops) as shops`,
  );
  return rows[0];
}

async function aRun(agent: Staff, number: string): Promise<string> {
  const header = runHeader(await addTruck(agent.lead, number));
  await agent.technician.post('/api/logs').send(header).expect(201);
  await agent.technician
    .post(`/api/logs/${header.id}/facts`)
    .send({ facts: wholeRun() })
    .expect(200);
  return header.id;
}

describe('a backup', () => {
  it('brings everything back on another machine: people, records, chains and rights', async () => {
    const id = await aRun(staff, '1');
    const before = (await staff.viewer.get(`/api/logs/${id}`)).body as LogRecord;
    const file = join(folder, 'kept.backup');
    expect(command('backup', shop.ownerUrl, file)).toMatchObject({ status: 0 });
    expect(statSync(file).mode & 0o077).toBe(0);
    // What comes after the backup is not in it.
    await aRun(staff, '2');

    const empty = await openEmptyDatabase();
    await empty.database.close();
    expect(command('restore', empty.url, file)).toMatchObject({ status: 0 });
    expect(command('verify', empty.url)).toMatchObject({ status: 0 });
    const url = await prepareDatabase(empty.url, TEST_SECRET);
    const database = openDatabase(url, () => undefined);
    const viewer = await signedInAgent(testApp(database), staff.names.viewer);
    const after = (await viewer.get(`/api/logs/${id}`).expect(200)).body as LogRecord;
    expect(after).toEqual(before);
    expect((await viewer.get('/api/units').expect(200)).body).toHaveLength(1);
    // It works on, as the role with the least rights, and refuses as before.
    await expect(database.pool.query('delete from facts')).rejects.toMatchObject({ code: '42501' });
    const technician = await signedInAgent(testApp(database), staff.names.technician);
    const unit = await addTruck(technician, '3');
    const header = runHeader(unit);
    await technician.post('/api/logs').send(header).expect(201);
    await database.close();
  });

  it('replaces what is there only when told so, and keeps that in a backup of its own first', async () => {
    const other = await openTestShop();
    const people = await makeStaff(other, 'other');
    await aRun(people, '9');
    const file = join(folder, 'first.backup');
    expect(command('backup', other.ownerUrl, file).status).toBe(0);
    await aRun(people, '10');
    await other.close();
    const asked = command('restore', other.ownerUrl, file);
    expect(asked.said).not.toContain('brought back');
    const done = command('restore', other.ownerUrl, file, '--yes');
    expect(done).toMatchObject({ status: 0 });
    const safety = /kept in (\S+)/.exec(done.said)?.[1] ?? '';
    const count = async () => {
      const database = openDatabase(other.ownerUrl, () => undefined);
      const { rows } = await database.pool.query<{ n: number }>(
        'select count(*)::int as n from units',
      );
      await database.close();
      return rows[0]?.n;
    };
    expect(await count()).toBe(1);
    // Thought better of: what was replaced comes back.
    const back = command('restore', other.ownerUrl, safety, '--yes');
    if (back.status !== 0) throw new Error(back.said);
    expect(await count()).toBe(2);
  });

  it('that is not whole changes nothing', async () => {
    const file = join(folder, 'whole.backup');
    expect(command('backup', shop.ownerUrl, file).status).toBe(0);
    const bytes = readFileSync(file);
    const half = join(folder, 'half.backup');
    writeFileSync(half, bytes.subarray(0, Math.floor(bytes.length * 0.7)));
    const empty = await openEmptyDatabase();
    await prepareDatabase(empty.url, TEST_SECRET);
    const tables = async () =>
      (
        await empty.database.pool.query<{ n: number }>(
          `select count(*)::int as n from pg_class c join pg_namespace n on n.oid = c.relnamespace where nspname = 'public' and relkind = 'r'`,
        )
      ).rows[0]?.n;
    const before = await tables();
    const done = command('restore', empty.url, half, '--yes');
    expect(done.status).toBe(2);
    expect(done.said).toContain('nothing was changed');
    expect(await tables()).toBe(before);
    expect(command('restore', empty.url, join(folder, 'none')).said).toContain('There is no file');
    await empty.database.close();
  });

  it('comes back whole however slowly it is read, three times of three', async () => {
    const large = await openTestShop();
    await aRun(await makeStaff(large, 'large'), '5');
    const file = join(folder, 'slow.backup');
    const owner = openDatabase(large.ownerUrl, () => undefined);
    // More than the pipes between the programs hold, so that the last of it is still under way at the end.
    await owner.pool.query(
      'create table ballast as select n, repeat(md5(n::text), 8) as what from generate_series(1, 6000) as n',
    );
    expect(command('backup', large.ownerUrl, file).status).toBe(0);
    const all = await holds(owner);
    await owner.close();
    await large.close();
    const sips =
      "process.stdin.on('data', (d) => { process.stdin.pause(); setTimeout(() => process.stdout.write(d, () => process.stdin.resume()), 10); })";
    const slow = programsWith('slow', `node -e "${sips}" | PSQL "$@"`);
    for (let n = 0; n < 3; n += 1) {
      const empty = await openEmptyDatabase();
      const done = commandWith(slow, 'restore', empty.url, file);
      if (done.status !== 0) throw new Error(done.said);
      expect(await holds(empty.database)).toEqual(all);
      await empty.database.close();
    }
  });

  it.each([
    ['cut-off', 'head -c 60000 | PSQL "$@"', /nothing was changed/],
    [
      'no-trigger',
      'sed -u "0,/^CREATE TRIGGER/{/^CREATE TRIGGER/d}" | PSQL "$@"',
      /trigger .* is missing/,
    ],
    [
      'no-index',
      'sed -u "/^CREATE UNIQUE INDEX facts_place/d" | PSQL "$@"',
      /index public\.facts_place is missing/,
    ],
    ['no-row', 'sed -u "/signed-in/d" | PSQL "$@"', /table public\.audit\S* has \d+ rows of \d+/],
    [
      'other-fact',
      `sed -u 's/"kind": "mark"/"kind": "marc"/' | PSQL "$@"`,
      /the chains of its records are not those/,
    ],
  ])('is held against its own list before it counts: %s', async (name, psql, says) => {
    const other = await openTestShop();
    const people = await makeStaff(other, name);
    await aRun(people, '8');
    const file = join(folder, `${name}.backup`);
    expect(command('backup', other.ownerUrl, file).status).toBe(0);
    const empty = await openEmptyDatabase();
    await prepareDatabase(empty.url, TEST_SECRET);
    const before = await holds(empty.database);
    const done = commandWith(programsWith(name, psql), 'restore', empty.url, file, '--yes');
    expect(done.said).toMatch(says);
    expect(done.status).not.toBe(0);
    expect(await holds(empty.database)).toEqual(before);
    await empty.database.close();
    await other.close();
  });

  it.each(['pg_dump', 'psql'])('that %s breaks off ends, and keeps nothing', (program) => {
    const file = join(folder, `${program}.backup`);
    const broken = programsWith(`broken-${program}`, 'exit 3', program);
    const done = commandWith(broken, 'backup', shop.ownerUrl, file);
    expect(done).toMatchObject({ status: 1 });
    expect(done.said).toContain('nothing was kept');
    expect(readdirSync(folder).filter((each) => each.startsWith(`${program}.backup`))).toEqual([]);
  });

  it('with one byte changed is refused, and so is one from which anything is missing', async () => {
    const file = join(folder, 'bytes.backup');
    expect(command('backup', shop.ownerUrl, file).status).toBe(0);
    const bytes = readFileSync(file);
    const changed = Buffer.from(bytes);
    changed[Math.floor(bytes.length / 2)]! ^= 1;
    const broken = join(folder, 'broken.backup');
    const empty = await openEmptyDatabase();
    for (const each of [changed, bytes.subarray(0, -1), bytes.subarray(0, 100), Buffer.alloc(0)]) {
      writeFileSync(broken, each);
      expect(command('restore', empty.url, broken)).toMatchObject({ status: 2 });
    }
    await empty.database.close();
  });

  it('comes back onto a newer schema as it was kept, and leaves nothing of the newer one', async () => {
    const file = join(folder, 'older.backup');
    expect(command('backup', shop.ownerUrl, file).status).toBe(0);
    const newer = await openEmptyDatabase();
    await prepareDatabase(newer.url, TEST_SECRET);
    await newer.database.pool.query(
      'create table public.later (id int primary key); alter table units add column later text',
    );
    expect(command('restore', newer.url, file, '--yes')).toMatchObject({ status: 0 });
    const { rows } = await newer.database.pool.query<{ gone: boolean }>(
      `select to_regclass('public.later') is null and not exists (select from pg_attribute
         where attrelid = 'units'::regclass and attname = 'later') as gone`,
    );
    expect(rows).toEqual([{ gone: true }]);
    expect(await holds(newer.database)).toEqual(await holds(shop.database));
    await newer.database.close();
  });
});
