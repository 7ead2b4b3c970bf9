/* The development loop, at one address: screens that reload as their sources change, and a server that restarts
   when its own do, over our own database. */
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { dataFolder, keptSecret } from './setup/dataFolder.mjs';
import { freePort } from './setup/freePort.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { startPostgres } from './setup/postgres.mjs';
import { root } from './setup/root.mjs';
import { runMain, say } from './setup/say.mjs';
import { startServer } from './setup/serverProcess.mjs';
import { ensureValidators } from './setup/webBuild.mjs';

const PORT = Number(process.env.PORT ?? 4700);

/** The bundler that serves the screens from their sources and tells the page what changed. */
function startBundler(port) {
  // It watches nothing where it takes itself to be on a build machine.
  const surroundings = { ...process.env };
  delete surroundings.CI;
  return spawn('npx', ['--no-install', 'expo', 'start', '--web', '--port', String(port)], {
    cwd: join(root, 'app'),
    // Asked to be quiet about itself; without a terminal it asks nothing and opens no browser.
    env: { ...surroundings, BROWSER: 'none', EXPO_NO_TELEMETRY: '1', EXPO_OFFLINE: '1' },
    stdio: ['ignore', 'inherit', 'inherit'],
  });
}

await runMain(async () => {
  requireNode();
  await ensurePackages({ browser: false });
  await ensureNodeModules();
  await ensureValidators();
  // Known only once the packages are there.
  const { createProxyMiddleware } = await import('http-proxy-middleware');
  const postgres = await startPostgres({ home: join(dataFolder(), 'database') });
  const server = await startServer(
    {
      DATABASE_URL: postgres.url,
      SESSION_SECRET: keptSecret('session.secret'),
      PORT: String(await freePort()),
      DEMO: '1',
      LOG_LEVEL: 'info',
    },
    { watch: true },
  );
  const bundlerPort = await freePort();
  const bundler = startBundler(bundlerPort);
  const ours = createProxyMiddleware({ target: server.url });
  const screens = createProxyMiddleware({ target: `http://127.0.0.1:${bundlerPort}`, ws: true });
  const door = createServer((request, response) => {
    const isOurs = /^\/(api|schema)\//.test(request.url ?? '');
    void (isOurs ? ours : screens)(request, response, () => response.end());
  });
  door.on('upgrade', (request, socket, head) => screens.upgrade(request, socket, head));
  door.listen(PORT, '127.0.0.1');
  await once(door, 'listening');
  say(`http://127.0.0.1:${PORT}: a change under app/src shows at once; server/src and core/src`);
  say('restart the server. Ctrl-C stops all.');
  process.on('SIGINT', () => {
    bundler.kill('SIGINT');
    door.close();
    door.closeAllConnections();
    void server
      .stop()
      .then(postgres.stop)
      .then(() => process.exit(0));
  });
});
