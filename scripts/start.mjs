/* Brings the application up with all it needs, keeps it up, and takes everything down again on Ctrl-C. */
import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { dataFolder, keptSecret } from './setup/dataFolder.mjs';
import { isFree } from './setup/freePort.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { isAlive, startPostgres } from './setup/postgres.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';
import { PortTaken, startServer } from './setup/serverProcess.mjs';
import { ensureValidators, ensureWebBuild } from './setup/webBuild.mjs';

const USUAL_PORT = 4700;
const PORTS_TRIED = 20;

/** The ports that may be taken: the one that is given, or ours and those after it. */
async function portsToTry() {
  if (!process.env.PORT) {
    return Array.from({ length: PORTS_TRIED }, (_, n) => USUAL_PORT + n);
  }
  const port = Number(process.env.PORT);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) {
    throw new Trouble(`PORT must be a number from 1 to 65535; it is "${process.env.PORT}".`);
  }
  // A given port is looked at before anything is started, so that the answer comes at once.
  if (await isFree(port)) return [port];
  throw givenPortBusy(port);
}

const givenPortBusy = (port) =>
  new Trouble(`Port ${port} is busy. Set PORT to another, or leave it unset to have one picked.`);

/** Starts the server on the first port that it gets; one found free may still be taken by another start. */
async function startOnFreePort(ports, env) {
  for (const port of ports) {
    if (!(await isFree(port))) continue;
    try {
      const server = await startServer({ ...env, PORT: String(port) });
      if (ports.length > 1 && port !== USUAL_PORT) {
        say(`port ${USUAL_PORT} is busy, took ${port}`);
      }
      return server;
    } catch (error) {
      if (!(error instanceof PortTaken)) throw error;
    }
  }
  if (ports.length === 1) throw givenPortBusy(ports[0]);
  throw new Trouble(`Ports ${ports[0]} to ${ports.at(-1)} are all busy. Set PORT to a free one.`);
}

/** When a process began, in the kernel's own count: with its number it names one process and no other. */
function beganAt(pid) {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
  } catch {
    return null;
  }
}

function requireAlone(file) {
  if (!existsSync(file)) return;
  let noted;
  try {
    noted = JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    // Cut short by a power loss: nobody runs by it.
    return;
  }
  // A number is given out again after a restart, to this very process even.
  if (noted.pid === process.pid || !isAlive(noted.pid) || beganAt(noted.pid) !== noted.began)
    return;
  throw new Trouble(
    `Keen Bleed is already running from this folder, at ${noted.url} (process ${noted.pid}).`,
  );
}

/** Longest wait between two tries to bring something back, ms. */
const MOST_BETWEEN_TRIES_MS = 3_000;

/** Tries until it works, a little less often each time, and says why it does not. */
async function untilItWorks(what, work, stopped) {
  let waitMs = 200;
  let said = '';
  for (;;) {
    try {
      return await work();
    } catch (error) {
      if (stopped()) return null;
      const why = error instanceof Trouble ? error.message : String(error);
      if (why !== said) say(`${what} does not come back yet: ${why.split('\n')[0]}`);
      said = why;
      await pause(waitMs);
      waitMs = Math.min(2 * waitMs, MOST_BETWEEN_TRIES_MS);
    }
  }
}

await runMain(async () => {
  const withDemo = !process.argv.includes('--empty');
  const demoByName = process.argv.includes('--demo');
  console.log('\nKeen Bleed');
  requireNode();
  const runningFile = join(dataFolder(), 'running.json');
  requireAlone(runningFile);
  const ownDatabase = !process.env.DATABASE_URL;
  if (ownDatabase) await ensurePackages({ browser: false });
  await ensureNodeModules();
  await ensureValidators();
  const webFolder = await ensureWebBuild();
  const ports = await portsToTry();

  const home = join(dataFolder(), 'database');
  let postgres = null;
  let server = null;
  let stopping = null;
  const stopped = () => stopping !== null;
  const stopAll = () => {
    stopping ??= (async () => {
      await server?.stop();
      await postgres?.stop();
      rmSync(runningFile, { force: true });
    })();
    return stopping;
  };
  const onSignal = () => {
    console.log('\n  stopping');
    void stopAll().then(() => process.exit(0));
  };
  process.on('SIGINT', onSignal);
  process.on('SIGTERM', onSignal);
  process.on('SIGHUP', onSignal);

  const environment = () => ({
    DATABASE_URL: process.env.DATABASE_URL || postgres.url,
    SESSION_SECRET: process.env.SESSION_SECRET ?? keptSecret('session.secret'),
    WEB_FOLDER: webFolder,
    DEMO: demoByName ? 'forced' : withDemo ? '1' : '0',
  });
  const note = () => {
    const words = JSON.stringify({
      pid: process.pid,
      began: beganAt(process.pid),
      url: server.url,
      server: server.child.pid,
      database: postgres?.pid ?? null,
    });
    // Renamed into place: a start that comes upon it finds it whole.
    writeFileSync(`${runningFile}.half`, words);
    renameSync(`${runningFile}.half`, runningFile);
  };

  /** Brings the server back whenever it ends by itself, on the port it had. */
  const watchServer = async () => {
    const { port } = new URL(server.url);
    while (!stopped()) {
      const code = await server.ended;
      if (stopped()) return;
      say(`the server ended by itself (${code}): bringing it back`);
      const next = await untilItWorks(
        'the server',
        () => startServer({ ...environment(), PORT: port }),
        stopped,
      );
      if (!next) return;
      server = next;
      note();
      say(`the server is back at ${server.url}`);
    }
  };

  /** Brings the database back whenever it ends by itself; the server finds it again where it was. */
  const watchDatabase = async () => {
    while (!stopped()) {
      await postgres.ended;
      if (stopped()) return;
      say('the database ended by itself: bringing it back');
      const { port } = postgres;
      const next = await untilItWorks('the database', () => startPostgres({ home, port }), stopped);
      if (!next) return;
      postgres = next;
      // On another port than it had, the server has to be told.
      if (next.port !== port) server.child.kill('SIGTERM');
      note();
      say('the database is back');
    }
  };

  try {
    if (ownDatabase) {
      say('starting the database');
      postgres = await startPostgres({ home });
    } else {
      say('using the database of DATABASE_URL');
    }
    say('starting the server');
    server = await startOnFreePort(ports, environment());
    note();
    console.log(`\n  Open        ${server.url}`);
    // Where others can reach it the server makes no demo world, unless it was asked for by name.
    const isOpen =
      process.env.COOKIE_SECURE === '1' ||
      !/^(127(\.\d{1,3}){3}|::1|localhost)?$/.test(process.env.HOST ?? '');
    if (demoByName || (withDemo && !isOpen)) {
      console.log('  Sign in as  maren (lead), idris (technician) or joss (viewer)');
      console.log('  Password    grit-before-snow\n');
    } else {
      console.log('  Without demo data the first visit makes the first lead’s account.\n');
    }
    void watchServer();
    if (postgres) void watchDatabase();
  } catch (error) {
    await stopAll();
    throw error;
  }
});
