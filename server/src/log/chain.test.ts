import type { LogRecord, RunExport } from '@keen-bleed/contract';
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { openDatabase } from '../db/database';
import {
  addTruck,
  makeStaff,
  openTestShop,
  runHeader,
  wholeRun,
  type Staff,
  type TestShop,
} from '../test/testShop';
import { headOf, linked, standingOf } from './chain';
import { chainOlderFacts } from './chainOlderFacts';

const VERIFY = join(__dirname, '../../../scripts/verify.mjs');

let shop: TestShop;
let staff: Staff;
let owner: pg.Client;
let number = 0;
beforeAll(async () => {
  shop = await openTestShop();
  staff = await makeStaff(shop, 'chain');
  owner = new pg.Client({ connectionString: shop.ownerUrl });
  await owner.connect();
});
afterAll(async () => {
  await owner.end();
  await shop.close();
});

/** A whole run, sent in two lots. */
async function aRun(): Promise<string> {
  number += 1;
  const unit = await addTruck(staff.lead, String(number));
  const header = runHeader(unit);
  const facts = wholeRun();
  await staff.technician.post('/api/logs').send(header).expect(201);
  for (const lot of [facts.slice(0, 4), facts.slice(4)]) {
    await staff.technician.post(`/api/logs/${header.id}/facts`).send({ facts: lot }).expect(200);
  }
  return header.id;
}

const read = async (id: string) =>
  (await staff.viewer.get(`/api/logs/${id}`).expect(200)).body as LogRecord<'run'>;

/** Changes rows behind the back of the product, as somebody with the whole machine in hand can. */
async function tamper(statement: string, values: unknown[]): Promise<void> {
  await owner.query('begin');
  await owner.query('alter table facts disable trigger user');
  await owner.query(statement, values);
  await owner.query('alter table facts enable trigger user');
  await owner.query('commit');
}

describe('a log’s chain', () => {
  it('is found again by the formula alone, entry by entry in the order of receipt', async () => {
    const id = await aRun();
    const { rows } = await owner.query<{
      lane: string;
      seq: number;
      person_id: string;
      received_at_ms: string;
      fact: object;
      link: string;
    }>('select * from facts where log_id = $1 order by place', [id]);
    const [log] = (
      await owner.query<{ header: object }>('select header from logs where id = $1', [id])
    ).rows;
    // Written anew from the words of the export, with nothing of the product.
    const canonical = (value: unknown): string =>
      Array.isArray(value)
        ? `[${value.map(canonical).join(',')}]`
        : value !== null && typeof value === 'object'
          ? `{${Object.keys(value)
              .sort()
              .map(
                (key) =>
                  `${JSON.stringify(key)}:${canonical((value as Record<string, unknown>)[key])}`,
              )
              .join(',')}}`
          : JSON.stringify(value);
    const sha = (text: string) => createHash('sha256').update(text).digest('hex');
    let head = sha(canonical(log?.header));
    for (const row of rows) {
      const vouched = {
        entry: sha(canonical(row.fact)),
        lane: row.lane,
        personId: row.person_id,
        receivedAtMs: Number(row.received_at_ms),
        seq: row.seq,
      };
      head = sha(`${head}\n${canonical(vouched)}`);
      expect(row.link).toBe(head);
    }
    expect(rows).toHaveLength(9);
    expect((await read(id)).chain).toEqual({ head, brokenAt: null });
  });

  it.each([
    [
      'a reading that was changed',
      `update facts set fact = jsonb_set(fact, '{readingPsi}', '90') where log_id = $1 and place = 3`,
      3,
    ],
    [
      'an entry that was given to somebody else',
      `update facts set person_id = $2 where log_id = $1 and place = 2`,
      2,
    ],
    [
      'a time of receipt that was moved',
      `update facts set received_at_ms = received_at_ms + 1 where log_id = $1 and place = 5`,
      5,
    ],
    ['an entry that was taken out', `delete from facts where log_id = $1 and place = 4`, 4],
    [
      'an entry that was taken from the end',
      `delete from facts where log_id = $1 and place = 9`,
      9,
    ],
    [
      'a link that was made up',
      `update facts set link = repeat('0', 64) where log_id = $1 and place = 6`,
      6,
    ],
  ])('tells of %s, by its place', async (_, statement, place) => {
    const id = await aRun();
    await tamper(statement, statement.includes('$2') ? [id, staff.ids.viewer] : [id]);
    const before = await staff.viewer.get(`/api/logs/${id}`).expect(200);
    expect((before.body as LogRecord).chain?.brokenAt).toBe(place);
    const pdf = await staff.viewer.get(`/api/runs/${id}/report.pdf`).expect(200);
    expect(pdf.headers['content-type']).toBe('application/pdf');
  });

  it('tells of a header that was changed, at the first entry', async () => {
    const id = await aRun();
    await owner.query('alter table logs disable trigger user');
    await owner.query(
      `update logs set header = jsonb_set(header, '{startedAtMs}', '5') where id = $1`,
      [id],
    );
    await owner.query('alter table logs enable trigger user');
    expect((await read(id)).chain?.brokenAt).toBe(1);
  });

  it('is given to entries of an older version, in their order, once', async () => {
    const id = await aRun();
    const kept = await read(id);
    await tamper('update facts set place = null, link = null where log_id = $1', [id]);
    expect((await read(id)).chain?.brokenAt).toBe(1);
    const asOwner = openDatabase(shop.ownerUrl, () => undefined);
    await chainOlderFacts(asOwner);
    await chainOlderFacts(asOwner);
    await asOwner.close();
    expect((await read(id)).chain).toEqual(kept.chain);
  });
});

describe('the command that verifies', () => {
  const verify = (args: string[], env: Record<string, string> = {}) => {
    const done = spawnSync(process.execPath, [VERIFY, ...args], {
      env: { ...process.env, ...env },
      encoding: 'utf8',
    });
    return { status: done.status, said: done.stdout + done.stderr };
  };

  it('holds an export to the chain it carries', async () => {
    const id = await aRun();
    const whole = (await staff.viewer.get(`/api/runs/${id}/export.json`).expect(200))
      .body as RunExport;
    const folder = mkdtempSync(join(tmpdir(), 'keen-bleed-chain-'));
    const file = join(folder, 'run.json');
    const of = (record: object) => {
      writeFileSync(file, JSON.stringify(record));
      return verify([file]);
    };
    expect(of(whole)).toMatchObject({ status: 0 });
    const touched = whole.facts.map((fact) =>
      fact.kind === 'mark' ? { ...fact, readingPsi: fact.readingPsi + 1 } : fact,
    );
    expect(of({ ...whole, facts: touched })).toMatchObject({
      status: 2,
      said: expect.stringContaining('is not what was recorded') as string,
    });
    expect(of({ ...whole, facts: whole.facts.slice(1) }).status).toBe(2);
    expect(of({ ...whole, header: { ...whole.header, startedAtMs: 1 } }).status).toBe(2);
    expect(of({ ...whole, format: 'something else' }).said).toContain('no exported record');
    rmSync(folder, { recursive: true });
  });

  it('holds every record of a database to its chain, and names the one that was touched', async () => {
    const fresh = await openTestShop();
    const others = await makeStaff(fresh, 'verify');
    const header = runHeader(await addTruck(others.lead, '1'));
    await others.technician.post('/api/logs').send(header).expect(201);
    await others.technician
      .post(`/api/logs/${header.id}/facts`)
      .send({ facts: wholeRun() })
      .expect(200);
    const env = { DATABASE_URL: fresh.ownerUrl };
    expect(verify([], env)).toMatchObject({ status: 0 });
    const client = new pg.Client({ connectionString: fresh.ownerUrl });
    await client.connect();
    await client.query('alter table facts disable trigger user');
    await client.query(`update facts set fact = jsonb_set(fact, '{atMs}', '1') where place = 4`);
    await client.end();
    const found = verify([], env);
    expect(found.status).toBe(2);
    expect(found.said).toContain(`run ${header.id}`);
    expect(found.said).toContain('entry 4');
    await fresh.close();
  });
});

describe('a chain that is found again', () => {
  const entries = [1, 2, 3].map((seq) => ({
    ...{ lane: 'l', seq, personId: 'p', receivedAtMs: seq },
    fact: { kind: 'note', text: `entry ${seq}` },
  }));
  const log = { header: { id: 'h' }, factCount: 3 };
  const kept = linked(headOf(log.header, []), entries);

  it('is whole in whatever order its entries are read', () => {
    expect(standingOf(log, [...kept].reverse())).toEqual({
      head: kept[2]!.link,
      brokenAt: null,
    });
  });

  it('breaks where an entry’s place was changed, though every link still fits', () => {
    const [first, second, third] = kept;
    const brokenAt = (...moved: typeof kept) => standingOf(log, moved).brokenAt;
    expect(brokenAt(first!, second!, { ...third!, place: 7 })).toBe(3);
    expect(brokenAt({ ...first!, place: 0 }, second!, third!)).toBe(1);
  });

  it('breaks after its last entry where the end was taken away, and where one was never linked', () => {
    expect(standingOf(log, kept.slice(0, 2)).brokenAt).toBe(3);
    const [first, second, third] = kept;
    expect(
      standingOf(log, [first!, second!, { ...third!, place: null, link: null }]).brokenAt,
    ).toBe(1);
  });
});
