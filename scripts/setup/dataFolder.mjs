import { createHash, randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';

/**
 * Where this checkout keeps its data. As root it lies where the `postgres` user can enter, since a checkout
 * may lie in a private folder; one folder for each checkout, so that two can stand side by side.
 */
export function dataFolder() {
  const folder =
    process.env.KEEN_BLEED_DATA ??
    (process.getuid() === 0
      ? join('/var/lib/keen-bleed', createHash('sha256').update(root).digest('hex').slice(0, 12))
      : join(root, '.data'));
  mkdirSync(folder, { recursive: true, mode: 0o755 });
  return folder;
}

/** A secret that is made once and kept beside the data. */
export function keptSecret(name) {
  const file = join(dataFolder(), name);
  if (!existsSync(file)) {
    writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
    chmodSync(file, 0o600);
  }
  return readFileSync(file, 'utf8');
}
