import type { LogRecord, RunRow, YardRow } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { v7 as uuidv7 } from 'uuid';
import apart from '../../../core/src/log/golden/records/run-0.2.0-drain-apart-truck.json';
import { hashPassword } from '../accounts/password';
import { openEmptyDatabase, signedInAgent, testApp, testPassword } from '../test/testShop';
import { migrateDatabase } from './database';

const folder = join(__dirname, '../../drizzle');
const statements = (file: string) =>
  readFileSync(join(folder, file), 'utf8').split('--> statement-breakpoint');

/** A database as the version before logs left it, with one closed run, one open one and one dated 2099. */
async function before() {
  const database = await openEmptyDatabase();
  const client = new pg.Client({ connectionString: database.url });
  await client.connect();
  for (const file of ['0000_first.sql', '0001_yard_indexes.sql']) {
    for (const statement of statements(file)) await client.query(statement);
  }
  // What the migrator would have noted: both are there.
  await client.query('create schema drizzle');
  await client.query(
    'create table drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint)',
  );
  const journal = JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as {
    entries: { when: number }[];
  };
  for (const { when } of journal.entries.slice(0, 2)) {
    await client.query(
      'insert into drizzle.__drizzle_migrations (hash, created_at) values ($1, $2)',
      [String(when), when],
    );
  }
  const ids = { shop: uuidv7(), person: uuidv7() };
  await client.query('insert into shops (id, name) values ($1, $2)', [ids.shop, 'Old']);
  await client.query(
    'insert into people (shop_id, id, name, sign_in_name, role, password_hash) values ($1, $2, $3, $3, $4, $5)',
    [ids.shop, ids.person, 'old-tech', 'technician', await hashPassword(testPassword)],
  );
  const { unit } = apart.header;
  const { id: unitId, revision: _r, retiredAtMs: _t, ...draft } = unit;
  const now = {
    ...newUnitDraft('truck', 2015),
    number: unit.number,
    name: unit.name,
    buildYear: 2020,
  };
  await client.query(
    'insert into units (shop_id, id, number, draft, revision) values ($1, $2, $3, $4, 2)',
    [ids.shop, unitId, unit.number, now],
  );
  const addRun = async (id: string, shiftMs: number, events: readonly { atMs: number }[]) => {
    const closed = events.find((event) => (event as { kind?: string }).kind === 'close');
    await client.query(
      `insert into runs (shop_id, id, unit_id, person_id, unit, towed, rule_set, left_out, started_at_ms,
         closed_at_ms, verdict, headline, drained, core_version, last_seq)
       values ($1, $2, $3, $4, $5, '[]', $6, '[]', $7, $8, $9, $10, true, '0.2.0', $11)`,
      [
        ids.shop,
        id,
        unitId,
        ids.person,
        unit,
        apart.header.ruleSet,
        apart.header.startedAtMs + shiftMs,
        closed ? closed.atMs + shiftMs : null,
        closed ? apart.judged.verdict : null,
        closed ? apart.judged.headline : null,
        events.length,
      ],
    );
    await client.query(
      'insert into run_units (shop_id, unit_id, run_id, started_at_ms, closed_at_ms, verdict) values ($1, $2, $3, $4, $5, $6)',
      [
        ids.shop,
        unitId,
        id,
        apart.header.startedAtMs + shiftMs,
        closed ? closed.atMs + shiftMs : null,
        closed ? apart.judged.verdict : null,
      ],
    );
    for (const [i, event] of events.entries()) {
      const eventId = uuidv7();
      await client.query(
        'insert into run_events (shop_id, run_id, seq, id, event) values ($1, $2, $3, $4, $5)',
        [ids.shop, id, i + 1, eventId, { ...event, id: eventId, atMs: event.atMs + shiftMs }],
      );
    }
  };
  const facts = apart.facts as unknown as { atMs: number; kind: string; target?: string }[];
  // Ids are made anew here, so nothing that names another by its id is among them.
  const plain = facts.filter((fact) => !('supersedes' in fact) && fact.kind !== 'retract');
  const runs = { closed: uuidv7(), open: uuidv7(), future: uuidv7() };
  const in2099 = Date.UTC(2099, 0, 1) - apart.header.startedAtMs;
  await addRun(runs.future, in2099, plain);
  await addRun(runs.closed, 0, plain);
  await addRun(runs.open, 3_600_000, plain.slice(0, 4));
  await client.end();
  return { ...database, ids, runs, unitId, draft, events: plain.length };
}

let old: Awaited<ReturnType<typeof before>>;
beforeAll(async () => {
  old = await before();
});
afterAll(() => old.database.close());

it('takes every run over as a log, with its facts, its meaning and its unit as it was', async () => {
  await migrateDatabase(old.database);
  const app = testApp(old.database);
  const agent = await signedInAgent(app, 'old-tech');
  const kept = (await agent.get(`/api/logs/${old.runs.closed}`).expect(200))
    .body as LogRecord<'run'>;
  expect(kept.facts).toHaveLength(old.events);
  expect(kept.header).toMatchObject({
    v: 2,
    coreVersion: '0.2.0',
    subject: { unitId: old.unitId },
  });
  // Findings of the step that is no longer made stand in the record by the step that was asked.
  expect(kept.header.made.steps.map((step) => step.id)).toContain('drain');
  const report = await agent.get(`/api/runs/${old.runs.closed}/export.json`).expect(200);
  const { outcome } = report.body as { outcome: { findings: { key: string; said: string }[] } };
  expect(outcome.findings).toContainEqual(expect.objectContaining({ key: 'water', said: 'milky' }));
  // One dated 2099 is not the newest for good: it came in no later than it was received.
  const future = (await agent.get(`/api/logs/${old.runs.future}`)).body as LogRecord<'run'>;
  expect(future.closedAtMs).toBeLessThanOrEqual(Date.now());
  const yard = (await agent.get('/api/yard').expect(200)).body as YardRow[];
  expect(yard[0]).toMatchObject({ open: { runId: old.runs.open }, last: { verdict: 'fail' } });
  const rows = (await agent.get(`/api/units/${old.unitId}/runs`).expect(200)).body as RunRow[];
  expect(rows.map(({ id }) => id).sort()).toEqual(Object.values(old.runs).sort());
  // The open one goes on where it was, in whatever lane.
  const fact = {
    id: uuidv7(),
    lane: uuidv7(),
    seq: 1,
    atMs: Date.now(),
    offsetMs: 0,
    v: 2,
    kind: 'note',
    stepId: 'prepare',
    text: 'on the new version',
  };
  const held = await agent
    .post(`/api/logs/${old.runs.open}/facts`)
    .send({ facts: [fact] })
    .expect(200);
  expect(held.body).toMatchObject({ held: 5, lanes: { [old.runs.open]: 4, [fact.lane]: 1 } });
  // The unit's earlier revision is known by the run that was made on it.
  const { rows: revisions } = await old.database.pool.query(
    'select revision, draft from unit_revisions order by revision',
  );
  expect(revisions).toMatchObject([{ revision: 1, draft: old.draft }, { revision: 2 }]);
});
