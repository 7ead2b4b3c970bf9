import type { LogRecord } from '@keen-bleed/contract';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { openDatabase } from './database';
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
  const done = spawnSync(process.execPath, [script(name), ...args], {
    env: { ...process.env, DATABASE_URL: url, KEEN_BLEED_DATA: folder },
    encoding: 'utf8',
  });
  return { status: done.status, said: done.stdout + done.stderr };
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
    expect(done.status).toBe(1);
    expect(done.said).toContain('nothing was changed');
    expect(await tables()).toBe(before);
    expect(command('restore', empty.url, join(folder, 'none')).said).toContain('There is no file');
    await empty.database.close();
  });
});
