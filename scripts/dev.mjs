/* The development loop: our own database, and a server over the built screens that restarts when its
   sources change. */
import { join } from 'node:path';
import { dataFolder, keptSecret } from './setup/dataFolder.mjs';
import { ensureNodeModules, requireNode } from './setup/nodeModules.mjs';
import { ensurePackages } from './setup/packages.mjs';
import { startPostgres } from './setup/postgres.mjs';
import { runMain, say } from './setup/say.mjs';
import { startServer } from './setup/serverProcess.mjs';
import { ensureValidators, ensureWebBuild } from './setup/webBuild.mjs';

await runMain(async () => {
  requireNode();
  await ensurePackages({ browser: false });
  await ensureNodeModules();
  await ensureValidators();
  const webFolder = await ensureWebBuild();
  const postgres = await startPostgres({
    home: join(dataFolder(), 'database'),
  });
  const server = await startServer(
    {
      DATABASE_URL: postgres.url,
      SESSION_SECRET: keptSecret('session.secret'),
      PORT: '4700',
      WEB_FOLDER: webFolder,
      DEMO: '1',
      LOG_LEVEL: 'info',
    },
    { watch: true },
  );
  say(`server at ${server.url}; it restarts when server/src or core/src change. Ctrl-C stops all.`);
  say('run this again after a change of app/src: it builds what changed.');
  process.on('SIGINT', () => {
    void server
      .stop()
      .then(postgres.stop)
      .then(() => process.exit(0));
  });
});
