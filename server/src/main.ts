import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import pino from 'pino';
import { setUpCodeOf } from './accounts/setUpCode';
import { PostgresBus } from './bus/bus';
import { openDatabase } from './db/database';
import { prepareDatabase } from './db/leastRights';
import { chainOlderFacts } from './log/chainOlderFacts';
import { fillFailures } from './failures/refreshFailures';
import { quotasFrom } from './http/quotas';
import { isDatabaseAway } from './http/errorHandler';
import { httpServer } from './http/httpServer';
import { InFlight } from './http/inFlight';
import { makeApp } from './app';
import { stopPrinting } from './report/print';
import { stopExpecting } from './retests/expectedAnswers';
import { SuspectTables } from './suspects/suspectTables';
import { DEMO_IS_PUBLIC, demoWanted } from './demo/demoWanted';
import { workOutApart } from './suspects/workOut';

const DEFAULT_SIGN_IN_TRIES = 10;

/** Answers that are under way as the server is told to stop have so long, ms. */
const DRAINS_MS = 10_000;

/** Exit code that says the port is taken, so that a start can go on to the next one. */
const PORT_TAKEN = 98;

/** Reads the surroundings once, starts the server, and stops it when asked to. */
async function main(): Promise<void> {
  const { DATABASE_URL, SESSION_SECRET, PORT = '4700', HOST = '127.0.0.1' } = process.env;
  if (!DATABASE_URL || !SESSION_SECRET) {
    throw new Error('DATABASE_URL and SESSION_SECRET must be set; `npm start` sets both.');
  }
  const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' });
  // As the owner only as long as tables are brought up; a server that is given another owner works as it is told.
  const { OWNER_DATABASE_URL } = process.env;
  const prepared = await prepareDatabase(
    OWNER_DATABASE_URL ?? DATABASE_URL,
    SESSION_SECRET,
    chainOlderFacts,
    OWNER_DATABASE_URL === undefined,
  );
  const url = OWNER_DATABASE_URL === undefined ? prepared : DATABASE_URL;
  delete process.env.DATABASE_URL;
  delete process.env.OWNER_DATABASE_URL;
  const database = openDatabase(url, (error) =>
    log.warn({ message: error.message }, 'an idle database connection broke'),
  );
  const wanted = demoWanted(process.env);
  if (wanted === 'public') console.log(`  ${DEMO_IS_PUBLIC}`);
  if (wanted === 'yes') {
    // The demo world is loaded only where it is wanted: nothing of the product rests on it.
    const { seedDemo } = await import('./demo/seedDemo');
    const seeded = await seedDemo(database.db, { todayMs: demoToday() });
    if (seeded) console.log(`  demo world made: ${seeded.units} units, ${seeded.runs} runs`);
  }
  await fillFailures(database.db);
  const tables = new SuspectTables(workOutApart);
  const inFlight = new InFlight();
  const bus = new PostgresBus(url, database.pool, (error) =>
    log.warn({ message: error.message }, 'the connection that listens broke'),
  );
  await bus.start();
  const setUpCode = setUpCodeOf(SESSION_SECRET);
  if (!(await database.pool.query('select from shops limit 1')).rowCount) {
    console.log(`  Set-up code ${setUpCode}: the first visit is asked for it`);
  }
  const app = makeApp({
    database,
    bus,
    setUpCode,
    metricsToken: process.env.METRICS_TOKEN ?? null,
    inFlight,
    tables,
    log,
    sessionSecret: SESSION_SECRET,
    secureCookie: process.env.COOKIE_SECURE === '1',
    trustedProxies: trustedProxies(process.env),
    signInTries: Number(process.env.SIGN_IN_TRIES ?? DEFAULT_SIGN_IN_TRIES),
    quotas: quotasFrom(process.env),
    webFolder: process.env.WEB_FOLDER ?? null,
    // Pictures are taken on a fixed day: then the server tells that day's time.
    ...(process.env.DEMO_TODAY ? { nowMs: fixedDay(demoToday()) } : {}),
  });
  const server = httpServer(app);
  server.listen(Number(PORT), HOST);
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  process.send?.({ listening: port });

  let stopping = false;
  const stop = () => {
    if (stopping) return;
    stopping = true;
    tables.stop();
    void inFlight
      .drain(server, DRAINS_MS)
      .then(() => Promise.all([bus.stop(), stopPrinting(), stopExpecting()]))
      .then(() => database.close())
      .then(() => process.exit(0));
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('disconnect', stop);
}

/** Behind HTTPS the proxy stands on this machine, unless it is said where it stands. */
const trustedProxies = ({ TRUSTED_PROXIES, COOKIE_SECURE }: NodeJS.ProcessEnv): string | null =>
  TRUSTED_PROXIES ?? (COOKIE_SECURE === '1' ? 'loopback' : null);

/** A clock that goes on from a given moment. */
function fixedDay(fromMs: number): () => number {
  const startedMs = Date.now();
  return () => fromMs + Date.now() - startedMs;
}

/** The day the demo world ends on; fixed from outside where pictures must come out the same. */
function demoToday(): number {
  const given = process.env.DEMO_TODAY;
  return given ? Date.parse(given) : Date.now();
}

main().catch((error: unknown) => {
  if ((error as NodeJS.ErrnoException | null)?.code === 'EADDRINUSE') process.exit(PORT_TAKEN);
  if (isDatabaseAway(error)) {
    console.error(
      'The database cannot be reached. Check DATABASE_URL, or leave it unset to use one of our own.',
    );
  } else {
    console.error(error instanceof Error ? error.message : error);
  }
  process.exit(1);
});
