import { spawn } from 'node:child_process';
import { setTimeout as pause } from 'node:timers/promises';
import { root } from './root.mjs';
import { Trouble } from './say.mjs';

/** The exit code by which the server says that somebody else took its port; `server/src/main` has it too. */
const PORT_TAKEN = 98;

/** The port was taken between being found free and being listened on: another start was quicker. */
export class PortTaken extends Trouble {}

/** Waits until a server answers on a port. */
async function answers(port) {
  for (;;) {
    try {
      if ((await fetch(`http://127.0.0.1:${port}/api/health`)).ok) return;
    } catch {
      // Not yet.
    }
    await pause(200);
  }
}

/**
 * Starts the server as a child.
 *
 * @param env what it is told, on top of the surroundings
 * @returns its address, its process, and how to stop it
 * @throws PortTaken where its port is busy, Trouble where it does not come up for another reason
 */
export function startServer(env, { watch = false } = {}) {
  const args = [
    ...(watch ? ['--watch-path=server/src', '--watch-path=core/src'] : []),
    '--import',
    'tsx',
    'server/src/main.ts',
  ];
  const child = spawn(process.execPath, args, {
    cwd: root,
    env: { ...process.env, ...env },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    // A Ctrl-C is for us; the server is then stopped in its turn.
    detached: true,
  });
  const ended = new Promise((resolve) => child.once('exit', resolve));
  const stop = async () => {
    if (child.exitCode === null && child.signalCode === null) child.kill('SIGTERM');
    await ended;
  };
  return new Promise((resolve, reject) => {
    child.once('exit', (code) =>
      reject(
        code === PORT_TAKEN
          ? new PortTaken(`Port ${env.PORT} is busy.`)
          : new Trouble(`The server ended with ${code} before it was up.`),
      ),
    );
    const up = (port) => resolve({ url: `http://127.0.0.1:${port}`, child, stop, ended });
    child.once('message', ({ listening }) => up(listening));
    // One that is watched is a child of our child: its word does not come through, so it is asked.
    if (watch) void answers(env.PORT).then(() => up(env.PORT));
  });
}
