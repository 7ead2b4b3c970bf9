import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { chmodSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { prepareDatabase } from './leastRights';
import { TEST_SECRET } from '../test/testShop';

/* The commands of RUNNING beside a database that another process runs, as Keen Bleed does: asked, never signalled. */

const root = join(__dirname, '../../..');
const STARTS = `
  import { startPostgres } from './scripts/setup/postgres.mjs';
  const { url, pid, stop } = await startPostgres({ home: process.env.KEEN_BLEED_DATA + '/database', throwaway: true });
  console.log(JSON.stringify({ url, pid }));
  process.stdin.once('data', () => void stop().then(() => process.exit(0)));
`;

let folder: string;
let runs: ChildProcess;
let database: { url: string; pid: number };
const env = () => ({ ...process.env, DATABASE_URL: '', KEEN_BLEED_DATA: folder });

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'keen-bleed-commands-'));
  // Where it is made as root, PostgreSQL's own user must get through.
  chmodSync(folder, 0o755);
  runs = spawn(process.execPath, ['--input-type=module', '-e', STARTS], {
    cwd: root,
    env: env(),
    stdio: ['pipe', 'pipe', 'inherit'],
  });
  for (let said = ''; !said.includes('{"url"');) {
    const [words] = (await once(runs.stdout!, 'data')) as [Buffer];
    said += words.toString();
    const line = said.split('\n').find((each) => each.startsWith('{"url"'));
    if (line) database = JSON.parse(line) as typeof database;
  }
  await prepareDatabase(database.url, TEST_SECRET);
}, 60_000);
afterAll(async () => {
  runs.stdin?.write('stop');
  await once(runs, 'exit');
  rmSync(folder, { recursive: true });
});

function command(line: string) {
  // Where it does not end, that is what is wrong: this stands far over what it needs.
  const done = spawnSync('sh', ['-c', line], {
    cwd: root,
    env: env(),
    encoding: 'utf8',
    timeout: 45_000,
  });
  return { status: done.status, said: done.stdout + done.stderr };
}

const isAlive = () => process.kill(database.pid, 0);

describe('beside a database that runs', () => {
  it.each(['verify', 'backup', 'recover'])('npm run %s ends, and leaves it running', (name) => {
    expect(command(`node scripts/${name}.mjs`)).toMatchObject({ status: 0 });
    expect(isAlive()).toBe(true);
  });

  it('the nightly line of RUNNING keeps a backup and verifies', () => {
    const text = readFileSync(join(root, 'docs/RUNNING.md'), 'utf8');
    const [, line = ''] = /^ *15 2 \* \* \* (.+)$/m.exec(text) ?? [];
    expect(line).toContain('npm run');
    const to = join(folder, 'nightly');
    const here = line
      .replace('/srv/keen-bleed', root)
      .replaceAll('/var/backups/keen-bleed', to)
      // Cron wants its percent signs escaped; a shell does not.
      .replaceAll('\\%', '%');
    const done = command(here);
    if (done.status !== 0) throw new Error(done.said);
    expect(readdirSync(to)).toEqual([expect.stringMatching(/^\d{4}-\d\d-\d\d\.backup$/)]);
  });

  it('a database that does not answer is left alone, and that is what the exit code says', () => {
    process.kill(database.pid, 'SIGSTOP');
    try {
      const done = command('node scripts/verify.mjs');
      expect(done).toMatchObject({ status: 4 });
      expect(done.said).toContain('does not answer. It was left alone');
    } finally {
      process.kill(database.pid, 'SIGCONT');
    }
    expect(command('node scripts/verify.mjs')).toMatchObject({ status: 0 });
  }, 60_000);

  it('a password is on no command line', () => {
    const programs = join(folder, 'programs');
    const home = '/usr/lib/postgresql';
    const [newest = ''] = readdirSync(home).sort((a, b) => Number(b) - Number(a));
    const seen = join(folder, 'seen');
    spawnSync('mkdir', [programs]);
    for (const each of ['psql', 'pg_dump', 'pg_restore', 'pg_isready', 'postgres', 'initdb']) {
      const real = join(home, newest, 'bin', each);
      const words = `#!/bin/sh\necho "${each} $*" >> ${seen}\nexec ${real} "$@"\n`;
      writeFileSync(join(programs, each), words, { mode: 0o755 });
    }
    expect(command(`POSTGRES_PROGRAMS=${programs} node scripts/backup.mjs`).status).toBe(0);
    const lines = readFileSync(seen, 'utf8');
    expect(lines).toContain('pg_dump ');
    expect(lines).toContain('psql ');
    expect(lines).not.toContain(new URL(database.url).password);
  });
});
