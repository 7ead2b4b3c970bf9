/*
 * Gives a lead who is locked out a new password, at the server's own console: `npm run recover -- NAME`. Their codes are
 * turned off and all their devices signed out. Without a name it lists who there is.
 */
import { runMain, say, Trouble } from './setup/say.mjs';
import { ensureNodeModules } from './setup/nodeModules.mjs';
import { run } from './setup/run.mjs';
import { root } from './setup/root.mjs';
import { withDatabaseUrl } from './setup/withDatabase.mjs';

await runMain(async () => {
  await ensureNodeModules();
  await withDatabaseUrl(async (url) => {
    try {
      await run(
        process.execPath,
        ['--import', 'tsx', 'server/tools/recover.ts', ...process.argv.slice(2)],
        {
          cwd: root,
          show: true,
          env: { ...process.env, DATABASE_URL: url },
        },
      );
    } catch (error) {
      if (error instanceof Trouble) throw new Trouble('Nothing was changed.');
      throw error;
    }
  });
  say('done');
});
