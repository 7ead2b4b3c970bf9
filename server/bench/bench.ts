/* Speed of the API beside a bare handler doing the same queries in the same process and the same run, so that
   the ratio holds whatever the machine. Needs DATABASE_URL of a database that may be filled. */
import type { Unit } from '@keen-bleed/contract';
import { unitTitle } from '@keen-bleed/core';
import autocannon from 'autocannon';
import { PgDialect } from 'drizzle-orm/pg-core';
import express from 'express';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { performance } from 'node:perf_hooks';
import pino from 'pino';
import { v7 as uuidv7 } from 'uuid';
import { migrateDatabase, openDatabase } from '../src/db/database';
import { SuspectTables } from '../src/suspects/suspectTables';
import { workOutApart } from '../src/suspects/workOut';
import { makeApp } from '../src/app';
import { yardQuery, yardRows } from '../src/units/yardRows';
import { runHeader } from '../src/test/testShop';
import { addingBench } from './adding';
import { fillJobs, JOBS } from './fillJobs';
import { jobRows } from '../src/jobs/jobRows';
import { fillYard, PASSWORD, RUNS_PER_UNIT, UNITS } from './fillYard';

const SECONDS = 5;
const CONNECTIONS = 8;

async function listening(server: Server): Promise<string> {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
}

/** Requests a second, in turns of the two, so that a drift of the machine meets both. */
async function pair(ours: autocannon.Options, bare: autocannon.Options): Promise<[number, number]> {
  const rate = async (options: autocannon.Options) => {
    const result = await autocannon({ ...options, connections: CONNECTIONS, duration: SECONDS });
    if (result.non2xx > 0 || result.errors > 0)
      throw new Error(`${result.non2xx} refused, ${result.errors} errors`);
    return result.requests.average;
  };
  const rounds: [number, number][] = [];
  for (let round = 0; round < 3; round += 1) rounds.push([await rate(ours), await rate(bare)]);
  const median = (values: number[]) => values.sort((a, b) => a - b)[1] ?? 0;
  return [median(rounds.map(([a]) => a)), median(rounds.map(([, b]) => b))];
}

async function main(): Promise<void> {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL must be set; `npm run bench` sets it');
  const database = openDatabase(url, () => undefined);
  await migrateDatabase(database);
  const { shopId, personId, unitIds } = await fillYard(database);

  const timesMs: number[] = [];
  for (let n = 0; n < 30; n += 1) {
    const startMs = performance.now();
    await yardRows(database.db, shopId);
    timesMs.push(performance.now() - startMs);
  }
  timesMs.sort((a, b) => a - b);

  const app = createServer(
    makeApp({
      tables: new SuspectTables(workOutApart),
      database,
      log: pino({ level: 'silent' }),
      sessionSecret: 'bench',
      secureCookie: false,
      trustedProxies: null,
      signInTries: 1000,
      webFolder: null,
    }),
  );
  const ourUrl = await listening(app);
  const signIn = await fetch(`${ourUrl}/api/sign-in`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ signInName: 'bench', password: PASSWORD }),
  });
  const cookie =
    signIn.headers
      .getSetCookie()
      .find((each) => each.startsWith('kb.sid='))
      ?.split(';')[0] ?? '';
  const headers = { cookie, 'Content-Type': 'application/json' };

  // The bare side: the same statements over the same pool, with no session, no checks and no judgement.
  const bareApp = express().use(express.json());
  const { sql: text, params: values } = new PgDialect().sqlToQuery(yardQuery(shopId));
  bareApp.get('/yard', async (_request, response) => {
    response.json((await database.pool.query({ text, values })).rows);
  });
  bareApp.get('/unit', async (_request, response) => {
    const found = await database.pool.query('select * from units where shop_id = $1 and id = $2', [
      shopId,
      unitIds[0],
    ]);
    response.json(found.rows[0]);
  });
  // Who asks is read, too, as a server that keeps sessions has to: the same rows, in one transaction.
  const whoAsks = async (client: {
    query: (text: string, values?: unknown[]) => Promise<unknown>;
  }) => {
    await client.query('select * from sessions where person_id = $1 limit 1', [personId]);
    await client.query('select * from people where shop_id = $1 and id = $2', [shopId, personId]);
    await client.query('select * from shops where id = $1', [shopId]);
  };
  bareApp.get('/unit-for-somebody', async (_request, response) => {
    const client = await database.pool.connect();
    try {
      await client.query('begin');
      await whoAsks(client);
      const found = await client.query('select * from units where shop_id = $1 and id = $2', [
        shopId,
        unitIds[0],
      ]);
      await client.query('commit');
      response.json(found.rows[0]);
    } finally {
      client.release();
    }
  });
  bareApp.post('/runs{/:for}', async (request, response) => {
    const body = request.body as { id: string; unit: object; ruleSet: object };
    const client = await database.pool.connect();
    try {
      await client.query('begin');
      if (request.params.for) {
        await whoAsks(client);
        await client.query(
          'select * from unit_revisions where shop_id = $1 and unit_id = $2 and revision = 1',
          [shopId, unitIds[0]],
        );
      }
      await client.query(
        `insert into logs (shop_id, id, kind, unit_id, person_id, header, title, started_at_ms, last_at_ms)
         values ($1, $2, 'run', $3, $4, $5, 'x', 1, 1) on conflict do nothing`,
        [shopId, body.id, unitIds[0], personId, body],
      );
      await client.query(
        `insert into log_units (shop_id, unit_id, log_id, kind, started_at_ms) values ($1, $2, $3, 'run', 1)`,
        [shopId, unitIds[0], body.id],
      );
      await client.query('commit');
    } finally {
      client.release();
    }
    response.json({ held: 0 });
  });
  const bare = createServer(bareApp);
  const bareUrl = await listening(bare);

  const unit = (await (
    await fetch(`${ourUrl}/api/units/${unitIds[0]}`, { headers })
  ).json()) as Unit;
  const opening = (requests: string): Partial<autocannon.Options> => ({
    requests: [
      {
        method: 'POST',
        path: requests,
        setupRequest: (request) => ({
          ...request,
          body: JSON.stringify({ ...runHeader(unit), id: uuidv7() }),
        }),
      },
    ],
  });
  const allUnits = (await (await fetch(`${ourUrl}/api/units`, { headers })).json()) as Unit[];
  await fillJobs(database, { shopId, personId }, allUnits);
  const timed = async (does: () => Promise<unknown>): Promise<number[]> => {
    const took: number[] = [];
    for (let n = 0; n < 30; n += 1) {
      const startMs = performance.now();
      await does();
      took.push(performance.now() - startMs);
    }
    return took.sort((a, b) => a - b);
  };
  const boardMs = await timed(() => jobRows(database.db, shopId));
  const oneRowMs = await timed(() => database.pool.query('select 1'));

  const rows: [string, [number, number]][] = [
    [
      'read one unit',
      await pair({ url: `${ourUrl}/api/units/${unitIds[0]}`, headers }, { url: `${bareUrl}/unit` }),
    ],
    [
      'the same rows',
      await pair(
        { url: `${ourUrl}/api/units/${unitIds[0]}`, headers },
        { url: `${bareUrl}/unit-for-somebody` },
      ),
    ],
    [
      'save: open a run',
      await pair(
        { url: ourUrl, headers, ...opening('/api/logs') },
        { url: bareUrl, headers, ...opening('/runs') },
      ),
    ],
    [
      'the same rows',
      await pair(
        { url: ourUrl, headers, ...opening('/api/logs') },
        { url: bareUrl, headers, ...opening('/runs/somebody') },
      ),
    ],
    [
      'list: yard of 500',
      await pair({ url: `${ourUrl}/api/yard`, headers }, { url: `${bareUrl}/yard` }),
    ],
  ];

  console.log(
    `board of ${JOBS} open jobs at the server: median ${boardMs[15]!.toFixed(1)} ms, worst of 30 ${boardMs.at(-1)!.toFixed(1)} ms (50 asked; an empty query ${oneRowMs[15]!.toFixed(2)} ms)`,
  );
  console.log(
    `API beside a bare Express + pg handler (${unitTitle(unit)}), requests/s, median of 3 turns`,
  );
  console.log('  what                  ours     bare   ours/bare');
  for (const [name, [a, b]] of rows) {
    console.log(
      `  ${name.padEnd(18)} ${a.toFixed(0).padStart(7)} ${b.toFixed(0).padStart(8)} ${(a / b).toFixed(2).padStart(11)}`,
    );
  }
  const at = (share: number) => (timesMs[Math.floor(share * (timesMs.length - 1))] ?? 0).toFixed(1);
  console.log(
    `Yard of ${UNITS} units and ${UNITS * RUNS_PER_UNIT} runs at the server: median ${at(0.5)} ms, slowest of 30 ${at(1)} ms`,
  );
  await addingBench(database, { url: ourUrl, headers }, { shopId, personId, unit });
  app.close();
  bare.close();
  app.closeAllConnections();
  bare.closeAllConnections();
  await database.close();
}

await main();
