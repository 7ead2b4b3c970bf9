/*
 * Which tests run when. Everything runs in `npm test -- --all`, which is what the build machine calls; `npm test` keeps
 * to twelve minutes on two cores, `npm run test:quick` to one.
 */
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './root.mjs';
import { Trouble } from './say.mjs';

/** Many worlds, rigs or documents one after the other: only among all. */
const LONG = [
  'core/src/diagnosis/tradeRows.test.ts',
  'core/src/checks/checks.test.ts',
  'core/src/diagnosis/asItStands.test.ts',
  'core/src/drawing/drawing.test.ts',
  'core/src/rig/asItStands.test.ts',
  'server/src/docs/faultsDoc.test.ts',
  'server/src/db/twinShops.test.ts',
];

/** Left out of the quick ones as well: each takes some seconds. */
const SLOW = [
  'app/src/bay/bayWorker.test.ts',
  'app/src/suspects/suspecting.test.ts',
  'app/src/store/facts.test.ts',
  'app/src/store/keptCache.test.ts',
  'app/src/store/outbox.test.ts',
  'app/src/ui/ui.test.tsx',
  'core/src/checks/asItStands.test.ts',
  'core/src/checks/valves.test.ts',
  'core/src/diagnosis/suspects.test.ts',
  'core/src/diagnosis/symptoms.test.ts',
  'core/src/hunt/hunt.test.ts',
  'core/src/linked/asItStands.test.ts',
  'core/src/reading/verdicts.test.ts',
  'core/src/repair/job.test.ts',
  'core/src/twin/reference.test.ts',
  'core/src/twin/twin.test.ts',
  'core/src/twin/solver/airRun.test.ts',
  'core/src/twin/faults/faults.test.ts',
  'core/src/twin/faults/twinWith.test.ts',
  'core/src/twin/spread/spread.test.ts',
];

const LEFT_OUT = { quick: [...LONG, ...SLOW], usual: LONG, all: [] };

/** The browser tests of the main jobs carry this tag; all others run among all. */
const MAIN = '@main';

/** @returns the size asked for on the command line */
export const sizeAsked = (args) =>
  args.includes('--quick') ? 'quick' : args.includes('--all') ? 'all' : 'usual';

/**
 * @returns what Jest is told to leave out
 * @throws Trouble where a file of the lists is not there any more
 */
export function leftOut(size) {
  const gone = [...LONG, ...SLOW].filter((name) => !existsSync(join(root, name)));
  if (gone.length > 0) throw new Trouble(`testSizes.mjs names ${gone.join(', ')}, which is gone.`);
  return LEFT_OUT[size].flatMap((name) => [
    '--testPathIgnorePatterns',
    `/${name.replaceAll('.', '\\.')}$`,
  ]);
}

/** @returns what Playwright is told to keep to */
export const keptTo = (size) => (size === 'all' ? [] : ['--grep', MAIN]);
