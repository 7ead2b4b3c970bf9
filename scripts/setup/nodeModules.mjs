import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';
import { run } from './run.mjs';
import { say, Trouble } from './say.mjs';

const stampFile = join(root, 'node_modules/.keen-bleed-lock');
const OLDEST_NODE = [20, 19];

/** Stops early, in words, on a Node that is too old. */
export function requireNode() {
  const [major = 0, minor = 0] = process.versions.node.split('.').map(Number);
  if (major < OLDEST_NODE[0] || (major === OLDEST_NODE[0] && minor < OLDEST_NODE[1])) {
    throw new Trouble(
      `Node ${OLDEST_NODE.join('.')} or newer is needed; this is ${process.versions.node}.`,
    );
  }
}

/** Installs the packages of package-lock.json where they are not all there. */
export async function ensureNodeModules() {
  const wanted = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  if (existsSync(stampFile) && readFileSync(stampFile, 'utf8') === wanted) return;
  say('installing packages (npm ci), a minute or two');
  await run('npm', ['ci', '--no-audit', '--no-fund'], { cwd: root });
  writeFileSync(stampFile, wanted);
}
