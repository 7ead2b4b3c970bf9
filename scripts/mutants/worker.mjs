/* Runs one test file after another, each told by the parent with what it is for (inTheTests.cjs), in one process:
   starting Jest anew for each would take longer than the tests. */
import { createRequire } from 'node:module';
import { join } from 'node:path';

const tree = process.argv[2];
const { runCLI } = createRequire(join(tree, 'package.json'))('jest');

process.on('message', async ({ task, mutant, project, file }) => {
  process.env.MUTANT_TASK = JSON.stringify(task);
  if (mutant === null) delete process.env.__STRYKER_ACTIVE_MUTANT__;
  else process.env.__STRYKER_ACTIVE_MUTANT__ = mutant;
  const { results } = await runCLI(
    {
      $0: 'jest',
      config: join(tree, 'jest.config.mjs'),
      selectProjects: [project],
      runTestsByPath: true,
      testPathPattern: [],
      nonFlagArgs: [],
      _: [file],
      runInBand: true,
      silent: true,
      reporters: [],
      watchman: false,
      passWithNoTests: false,
    },
    [tree],
  );
  process.send({ failed: !results.success });
});
process.send('ready');
