import { spawn } from 'node:child_process';
import { Trouble } from './say.mjs';

const LINES_SHOWN = 14;

/** The first and last lines a failed command printed: its reason stands at one end or the other. */
function shortened(output) {
  const lines = output.trim().split('\n');
  if (lines.length <= 2 * LINES_SHOWN) return lines.join('\n  ');
  return [...lines.slice(0, LINES_SHOWN), '…', ...lines.slice(-LINES_SHOWN)].join('\n  ');
}

/**
 * Runs a command to its end and gives back what it printed.
 *
 * @throws Trouble with the command's first and last lines where it fails
 */
export function run(command, args, { show = false, ...options } = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      ...options,
      stdio: ['ignore', show ? 'inherit' : 'pipe', show ? 'inherit' : 'pipe'],
    });
    let output = '';
    const keep = (chunk) => {
      output += chunk;
    };
    child.stdout?.on('data', keep);
    child.stderr?.on('data', keep);
    child.on('error', (error) => reject(new Trouble(`${command} cannot be run: ${error.message}`)));
    child.on('close', (code) => {
      if (code === 0) resolve(output);
      else
        reject(
          new Trouble(`${command} ${args.join(' ')} ended with ${code}.\n  ${shortened(output)}`),
        );
    });
  });
}
