import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';
import { run } from './run.mjs';
import { say } from './say.mjs';

const left = new Set(['node_modules', 'dist', '.expo', 'generated']);

function* filesUnder(folder) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (left.has(entry.name) || entry.name.startsWith('dist.half')) continue;
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* filesUnder(path);
    else yield path;
  }
}

function sourceHash(folders) {
  const hash = createHash('sha256');
  for (const folder of folders) {
    for (const file of [...filesUnder(join(root, folder))].sort()) {
      if (/\.(test|bench)\.tsx?$/.test(file)) continue;
      hash.update(file.slice(root.length)).update(readFileSync(file));
    }
  }
  return hash.update(readFileSync(join(root, 'package-lock.json'))).digest('hex');
}

/** Whether the stamp in `file` is that of today's sources; an old or half-made result has another or none. */
const isCurrent = (file, stamp) => existsSync(file) && readFileSync(file, 'utf8') === stamp;

/** Compiles the schemas' validators where the schemas have changed. */
export async function ensureValidators() {
  const stampFile = join(root, 'contract/generated/.stamp');
  const stamp = sourceHash(['contract']);
  if (isCurrent(stampFile, stamp) && existsSync(join(root, 'contract/generated/validators.cjs')))
    return;
  say('compiling the validators');
  await run(process.execPath, ['--import', 'tsx', 'contract/scripts/compile-validators.ts'], {
    cwd: root,
  });
  writeFileSync(stampFile, stamp);
}

/** Folder of the built web application, built anew where the sources have changed. */
export async function ensureWebBuild() {
  const folder = join(root, 'app/dist');
  const stampFile = join(folder, '.stamp');
  const stamp = sourceHash(['app', 'core/src', 'contract/src', 'scripts/setup']);
  if (isCurrent(stampFile, stamp)) return folder;
  say('building the web application, about a minute');
  // Two starts of one checkout may build at the same time: each in a folder of its own.
  const name = `dist.half-${process.pid}`;
  const half = join(root, 'app', name);
  for (const left of readdirSync(join(root, 'app'))) {
    const maker = /^dist\.half-(\d+)$/.exec(left)?.[1];
    // What a build left that was killed; one that is still at work keeps its folder.
    if (maker && !existsSync(`/proc/${maker}`))
      rmSync(join(root, 'app', left), { recursive: true });
  }
  await run('npx', ['expo', 'export', '-p', 'web', '--output-dir', name], {
    cwd: join(root, 'app'),
    env: {
      ...process.env,
      EXPO_NO_TELEMETRY: '1',
      EXPO_OFFLINE: '1',
      CI: '1',
      NODE_ENV: 'production',
    },
  });
  await run(process.execPath, ['scripts/service-worker.mjs', half], {
    cwd: root,
  });
  writeFileSync(join(half, '.stamp'), stamp);
  rmSync(folder, { recursive: true, force: true });
  renameSync(half, folder);
  return folder;
}
