/* Throws the built-in database away, after asking; the next start makes the demo world anew. */
import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { createInterface } from 'node:readline/promises';
import { dataFolder } from './setup/dataFolder.mjs';
import { runMain, say, Trouble } from './setup/say.mjs';

await runMain(async () => {
  if (process.env.DATABASE_URL) {
    throw new Trouble('DATABASE_URL is set: only the built-in database is ever reset.');
  }
  const folder = dataFolder();
  const database = join(folder, 'database');
  if (existsSync(join(database, 'pg/postmaster.pid'))) {
    throw new Trouble(
      'Keen Bleed is running, or was not stopped cleanly: start it, stop it with Ctrl-C, then reset.',
    );
  }
  if (!process.argv.includes('--yes')) {
    const ask = createInterface({
      input: process.stdin,
      output: process.stdout,
    });
    const answer = await ask.question(
      '  Every record of this installation will be deleted. Type "delete" to go on: ',
    );
    ask.close();
    if (answer.trim() !== 'delete') {
      say('nothing was changed');
      return;
    }
  }
  rmSync(database, { recursive: true, force: true });
  say('deleted; `npm start` makes the demo world anew');
});
