import { createRequire } from 'node:module';
import { fileURLToPath, pathToFileURL } from 'node:url';
import { rigKey, type RigUnderTest } from '@keen-bleed/core';
import type { CheckAnswer } from '@keen-bleed/core/checks';
import { Piscina } from 'piscina';

/** What was worked out is kept for so many rigs and checks. */
const MOST_KEPT = 200;
const IDLE_MS = 60_000;
const MOST_MEMORY_MB = 512;
const LONGEST_MS = 60_000;
const LOADER = pathToFileURL(createRequire(import.meta.url).resolve('tsx')).href;

export type ExpectedAnswers = Readonly<Record<string, CheckAnswer>>;

let pool: Piscina | null = null;
const kept = new Map<string, Promise<ExpectedAnswers>>();

const opened = (): Piscina => {
  pool ??= new Piscina({
    filename: fileURLToPath(new URL('./expectWorker.ts', import.meta.url)),
    execArgv: ['--import', LOADER],
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: IDLE_MS,
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY_MB },
  });
  return pool;
};

/**
 * What a good rig of this description answers to some checks, by its twin, in a thread of its own: a phone’s word is
 * not taken. The same rig is worked out once.
 */
export function expectedAnswers(
  rig: RigUnderTest,
  checkIds: readonly string[],
): Promise<ExpectedAnswers> {
  const key = `${[...checkIds].sort().join(' ')} ${rigKey(rig)}`;
  const known = kept.get(key);
  if (known) return known;
  const [oldest] = kept.keys();
  if (kept.size >= MOST_KEPT && oldest !== undefined) kept.delete(oldest);
  const made = opened().run(
    { rig, checkIds: [...checkIds] },
    { signal: AbortSignal.timeout(LONGEST_MS) },
  ) as Promise<ExpectedAnswers>;
  kept.set(key, made);
  made.catch(() => kept.delete(key));
  return made;
}

/** Ends the thread. */
export async function stopExpecting(): Promise<void> {
  await pool?.destroy();
  pool = null;
  kept.clear();
}
