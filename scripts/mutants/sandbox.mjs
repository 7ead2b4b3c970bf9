import { execFileSync } from 'node:child_process';
import { cpSync, existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { root } from '../setup/root.mjs';

/** Made by a command, not in the history, needed by the tests. */
const MADE = 'contract/generated';

const PACKAGES = ['', 'contract/', 'core/', 'server/', 'app/', 'e2e/'].map(
  (room) => `${room}node_modules`,
);

const IN_THE_TESTS = join(dirname(fileURLToPath(import.meta.url)), 'inTheTests.cjs');

const CONFIG = `
import whole from './jest.whole.config.mjs';
export default {
  ...whole,
  projects: whole.projects.map((each) => ({
    ...each,
    setupFilesAfterEnv: [...(each.setupFilesAfterEnv ?? []), '<rootDir>/../mutants.inTheTests.cjs'],
  })),
};
`;

/** A copy of the whole tree with the switches in it, so that nothing here changes while they are tried. */
export async function makeSandbox(files) {
  const home = mkdtempSync(join(tmpdir(), 'keen-bleed-mutants-'));
  const tree = join(home, 'tree');
  const tracked = execFileSync('git', ['ls-files', '-co', '--exclude-standard'], {
    cwd: root,
    encoding: 'utf8',
  })
    .trim()
    .split('\n');
  for (const name of tracked.filter((each) => existsSync(join(root, each))))
    cpSync(join(root, name), join(tree, name), { verbatimSymlinks: true });
  cpSync(join(root, MADE), join(tree, MADE), { recursive: true });
  // Links to the same files where the disk allows it: a copy of all packages takes minutes.
  for (const folder of PACKAGES.filter((each) => existsSync(join(root, each)))) {
    const [from, to] = [join(root, folder), join(tree, folder)];
    try {
      execFileSync('cp', ['-al', from, to], { stdio: 'ignore' });
    } catch {
      rmSync(to, { recursive: true, force: true });
      execFileSync('cp', ['-a', from, to]);
    }
  }
  cpSync(join(tree, 'jest.config.mjs'), join(tree, 'jest.whole.config.mjs'));
  writeFileSync(join(tree, 'jest.config.mjs'), CONFIG);
  cpSync(IN_THE_TESTS, join(tree, 'mutants.inTheTests.cjs'));
  for (const { name, content } of files) writeFileSync(join(tree, name), content);
  return {
    home,
    tree,
    broken: files.map(({ name }) => join(tree, name)),
    remove: () => rmSync(home, { recursive: true, force: true }),
  };
}
