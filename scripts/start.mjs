/* Brings the application up with all it needs, and takes everything down again on Ctrl-C. */
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataFolder, keptSecret } from './setup/dataFolder.mjs';
import { isFree } from './setup/freePort.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { startPostgres } from './setup/postgres.mjs';
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

function requireAlone(file) {
  if (!existsSync(file)) return;
  try {
    const { pid, url } = JSON.parse(readFileSync(file, 'utf8'));
    if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('start.mjs')) {
      throw new Trouble(
        `Keen Bleed is already running from this folder, at ${url} (process ${pid}).`,
      );
    }
  } catch (error) {
    if (error instanceof Trouble) throw error;
  }
}

await runMain(async () => {
  const withDemo = !process.argv.includes('--empty');
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

  const stops = [];
  let stopping = null;
  const stopAll = () => {
    stopping ??= (async () => {
      for (const stop of stops.reverse()) await stop();
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

  try {
    let databaseUrl = process.env.DATABASE_URL;
    if (ownDatabase) {
      say('starting the database');
      const postgres = await startPostgres({
        home: join(dataFolder(), 'database'),
      });
      stops.push(postgres.stop);
      databaseUrl = postgres.url;
    } else {
      say('using the database of DATABASE_URL');
    }
    say('starting the server');
    const server = await startOnFreePort(ports, {
      DATABASE_URL: databaseUrl,
      SESSION_SECRET: process.env.SESSION_SECRET ?? keptSecret('session.secret'),
      WEB_FOLDER: webFolder,
      DEMO: withDemo ? '1' : '0',
    });
    stops.push(server.stop);
    writeFileSync(runningFile, JSON.stringify({ pid: process.pid, url: server.url }));
    console.log(`\n  Open        ${server.url}`);
    if (withDemo) {
      console.log('  Sign in as  maren (lead), idris (technician) or joss (viewer)');
      console.log('  Password    grit-before-snow\n');
    } else {
      console.log('  Without demo data the first visit makes the first lead’s account.\n');
    }
    void server.ended.then(async (code) => {
      if (stopping) return;
      console.error(`  The server ended by itself (${code}).`);
      await stopAll();
      process.exit(1);
    });
  } catch (error) {
    await stopAll();
    throw error;
  }
});
