import { spawn } from 'node:child_process';
import { root } from './root.mjs';
import { Trouble } from './say.mjs';

/** The exit code by which the server says that somebody else took its port; `server/src/main` has it too. */
const PORT_TAKEN = 98;

/** The port was taken between being found free and being listened on: another start was quicker. */
export class PortTaken extends Trouble {}

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
    child.once('message', ({ listening }) =>
      resolve({ url: `http://127.0.0.1:${listening}`, child, stop, ended }),
    );
  });
}
