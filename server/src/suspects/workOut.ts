import type { RigUnderTest } from '@keen-bleed/core';
import type { KeptTable } from '@keen-bleed/core/diagnosis';
import { fork } from 'node:child_process';
import { createRequire } from 'node:module';
import { fileURLToPath, pathToFileURL } from 'node:url';
import type { Said } from './tableProcess';

/** A rig that is being worked out. */
export interface Working {
  table: Promise<KeptTable>;
  stop: () => void;
}

export type WorkOut = (rig: RigUnderTest, onShare: (share: number) => void) => Working;

const MOST_MEMORY_MB = 512;
/** Found from here, wherever the server was started. */
const LOADER = pathToFileURL(createRequire(import.meta.url).resolve('tsx')).href;

/** Works a rig out in a process of its own, so that no request waits for it. */
export const workOutApart: WorkOut = (rig, onShare) => {
  const child = fork(fileURLToPath(new URL('./tableProcess.ts', import.meta.url)), [], {
    execArgv: ['--import', LOADER, `--max-old-space-size=${MOST_MEMORY_MB}`],
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
  });
  const table = new Promise<KeptTable>((done, fail) => {
    child.on('message', (said: Said) => {
      if ('table' in said) done(said.table);
      else onShare(said.share);
    });
    child.once('error', fail);
    child.once('exit', (code) => fail(new Error(`working a rig out ended with ${String(code)}`)));
    child.send(rig, (error) => {
      if (error) fail(error);
    });
  });
  return { table, stop: () => void child.kill() };
};
