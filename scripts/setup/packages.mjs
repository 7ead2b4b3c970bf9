import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { run } from './run.mjs';
import { say, Trouble } from './say.mjs';

/** Folder of PostgreSQL's programs: the one that POSTGRES_PROGRAMS names, or the newest of Debian's; null for none. */
export function postgresPrograms() {
  if (process.env.POSTGRES_PROGRAMS) return process.env.POSTGRES_PROGRAMS;
  const home = '/usr/lib/postgresql';
  const versions = existsSync(home) ? readdirSync(home) : [];
  const newest = versions
    .filter((version) => existsSync(join(home, version, 'bin/initdb')))
    .sort((a, b) => Number(b) - Number(a))[0];
  return newest ? join(home, newest, 'bin') : null;
}

/** Path of Debian's Chromium. */
export const chromiumPath = '/usr/bin/chromium';

/** Installs what is missing of Debian's packages, or says how to. */
export async function ensurePackages({ browser }) {
  const missing = [
    ...(postgresPrograms() ? [] : ['postgresql']),
    ...(browser && !existsSync(chromiumPath) ? ['chromium'] : []),
  ];
  if (missing.length === 0) return;
  const install = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!existsSync('/usr/bin/apt-get')) {
    throw new Trouble(`Missing: ${missing.join(', ')}. Install with your system's own tool.`);
  }
  if (process.getuid() !== 0) {
    throw new Trouble(`Missing: ${missing.join(', ')}. Install with: sudo ${install}`);
  }
  say(`installing Debian's ${missing.join(' and ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  await run('apt-get', ['update'], { env });
  await run('apt-get', ['install', '-y', '--no-install-recommends', ...missing], { env });
}
