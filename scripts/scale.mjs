/*
 * What a year of many shops weighs, by the rows the demo world leaves, and what one machine takes in: `npm run scale`.
 * The figures in docs/SCALE.md are what it printed.
 */
import { randomBytes } from 'node:crypto';
import { createRequire } from 'node:module';
import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir } from 'node:os';
import { join } from 'node:path';
import { performance } from 'node:perf_hooks';
import { startPostgres } from './setup/postgres.mjs';
import { root } from './setup/root.mjs';
import { runMain, say } from './setup/say.mjs';
import { startServer } from './setup/serverProcess.mjs';
import { ensureValidators } from './setup/webBuild.mjs';

const SHOPS = 1_000;
const UNITS = 200;
/** A year of one unit: tested monthly, looked at twice as often, mended now and then. */
const A_YEAR = { run: 12, visit: 24, job: 3 };
const WORKING_S = 250 * 10 * 3600;
/** Most of a day's work falls into its busiest hours. */
const PEAK = 4;
const SECONDS = 20;
const WRITERS = 8;

const uuid = (atMs) => {
  const bytes = randomBytes(16);
  bytes.writeUIntBE(atMs, 0, 6);
  bytes[6] = (bytes[6] & 0x0f) | 0x70;
  bytes[8] = (bytes[8] & 0x3f) | 0x80;
  return bytes.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
};

/** Notes a second that one machine takes in: each a request of its own, on records of many entries. */
async function sustained(url, client) {
  const entered = await fetch(`${url}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ signInName: 'idris', password: 'grit-before-snow' }),
  });
  const cookie = entered.headers
    .getSetCookie()
    .map((each) => each.split(';')[0])
    .join('; ');
  const send = (path, body) =>
    fetch(`${url}/api${path}`, {
      method: 'POST',
      headers: { cookie, 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  // A visit of the demo world and a note in it, again and again under ids of their own.
  const { rows } = await client.query(
    `select l.header, f.fact from logs l join facts f on f.shop_id = l.shop_id and f.log_id = l.id
     where l.kind = 'visit' and f.fact->>'kind' = 'note' order by l.started_at_ms desc limit 1`,
  );
  const [{ header: visit, fact: note }] = rows;
  let taken = 0;
  const untilMs = performance.now() + SECONDS * 1000;
  const write = async () => {
    const nowMs = Date.now();
    const header = { ...visit, id: uuid(nowMs), startedAtMs: nowMs };
    const opened = await send('/logs', header);
    if (!opened.ok) throw new Error(await opened.text());
    const lane = uuid(nowMs);
    for (let seq = 1; performance.now() < untilMs && seq <= 60; seq += 1) {
      const atMs = Date.now();
      const fact = { ...note, id: uuid(atMs), lane, seq, atMs };
      delete fact.photos;
      const answer = await send(`/logs/${header.id}/facts`, { facts: [fact] });
      if (!answer.ok) throw new Error(await answer.text());
      taken += 1;
    }
    if (performance.now() < untilMs) await write();
  };
  await Promise.all(Array.from({ length: WRITERS }, write));
  return taken / SECONDS;
}

await runMain(async () => {
  await ensureValidators();
  const home = mkdtempSync(join(tmpdir(), 'keen-bleed-scale-'));
  // As safe against a power loss as in use.
  const postgres = await startPostgres({ home });
  let server = null;
  try {
    server = await startServer({
      DATABASE_URL: postgres.url,
      SESSION_SECRET: 'scale',
      PORT: '0',
      DEMO: '1',
      LOG_LEVEL: 'silent',
    });
    const pg = createRequire(join(root, 'server/package.json'))('pg');
    const client = new pg.Client({ connectionString: postgres.url });
    await client.connect();
    await client.query('analyze');
    const { rows: sizes } = await client.query(
      `select relname as name, pg_total_relation_size(oid)::float8 as bytes,
         (select count(*) from pg_class) as _ from pg_class
       where relnamespace = 'public'::regnamespace and relkind = 'r'`,
    );
    const bytesOf = Object.fromEntries(sizes.map(({ name, bytes }) => [name, bytes]));
    const { rows: kinds } = await client.query(
      `select l.kind, count(*)::int as logs, sum(l.fact_count)::int as facts,
         avg(length(l.header::text) + coalesce(length(l.result::text), 0))::float8 as letters
       from logs l group by l.kind`,
    );
    const facts = kinds.reduce((sum, each) => sum + each.facts, 0);
    const logs = kinds.reduce((sum, each) => sum + each.logs, 0);
    const factBytes = bytesOf.facts / facts;
    const logBytes = (bytesOf.logs + bytesOf.log_units) / logs;
    let [yearLogs, yearFacts] = [0, 0];
    for (const { kind, logs: n, facts: f } of kinds) {
      const perYear = SHOPS * UNITS * A_YEAR[kind];
      yearLogs += perYear;
      yearFacts += (perYear * f) / n;
      say(`${kind}: ${(f / n).toFixed(1)} entries each`);
    }
    say(
      `an entry takes ${factBytes.toFixed(0)} bytes with its indexes, a record ${(logBytes / 1024).toFixed(1)} kB`,
    );
    const million = (value) => `${(value / 1e6).toFixed(1)} million`;
    say(
      `a year of ${SHOPS} shops of ${UNITS} units: ${million(yearLogs)} records, ${million(yearFacts)} entries`,
    );
    const bytes = yearLogs * logBytes + yearFacts * factBytes;
    say(`  ${(bytes / 1e9).toFixed(0)} GB; photos beside, as many as are taken`);
    const perS = (yearLogs * 2 + yearFacts) / WORKING_S;
    say(
      `  ${perS.toFixed(1)} writes a second over working hours, ${(PEAK * perS).toFixed(0)} at the peak`,
    );
    const rate = await sustained(server.url, client).finally(() => client.end());
    say(
      `one machine (${cpus().length} cores, server, database and what asks on it): ${rate.toFixed(0)} entries a second, each in a request of its own`,
    );
  } finally {
    await server?.stop();
    await postgres.stop();
    rmSync(home, { recursive: true, force: true });
  }
});
