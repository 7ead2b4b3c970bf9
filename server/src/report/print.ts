import { createRequire } from 'node:module';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { Piscina } from 'piscina';
import { ApiError } from '../http/apiError';
import type { Made, PageName, PageOf } from './pages';

/** Pages that wait for their turn; more than a shop asks for at once. */
const MOST_WAITING = 40;
/** A thread that nobody needs ends after this, ms. */
const IDLE_MS = 60_000;
const MOST_MEMORY_MB = 512;
/** A page that takes longer is given up, ms. */
const LONGEST_MS = 30_000;
/** Found from here, wherever the server was started. */
const LOADER = pathToFileURL(createRequire(import.meta.url).resolve('tsx')).href;

let pool: Piscina | null = null;

const opened = (): Piscina => {
  pool ??= new Piscina({
    filename: fileURLToPath(new URL('./printWorker.ts', import.meta.url)),
    execArgv: ['--import', LOADER],
    minThreads: 0,
    maxThreads: 1,
    maxQueue: MOST_WAITING,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  });
  return pool;
};

/**
 * Makes a page in a thread of its own, so that no other request waits for it.
 *
 * @throws ApiError `too-many-tries` where too many wait already
 */
export async function print<N extends PageName>(name: N, page: PageOf<N>): Promise<Made<N>> {
  const threads = opened();
  if (threads.queueSize >= MOST_WAITING) {
    throw new ApiError('too-many-tries', 'Many reports are being made: try again in a minute.');
  }
  const made: unknown = await threads.run(
    { name, page },
    { signal: AbortSignal.timeout(LONGEST_MS) },
  );
  // Bytes come over as a plain array of them.
  return (made instanceof Uint8Array ? Buffer.from(made) : made) as Made<N>;
}

/** Ends the threads. */
export async function stopPrinting(): Promise<void> {
  await pool?.destroy();
  pool = null;
}
