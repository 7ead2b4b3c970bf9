import { RigModel, type KeptTable } from '@keen-bleed/core/diagnosis';
import type { RigUnderTest } from '@keen-bleed/core';
import { setPriority } from 'node:os';

/* A process of its own: it is handed one rig, works it out by the code that phones run, hands the table back, and ends. */

/** What it says as it goes. */
export type Said = { share: number } | { table: KeptTable };

const SAYS_EVERY_MS = 300;
/** Requests go first, and whatever else the machine has to do. */
const LOW_PRIORITY = 19;

process.once('message', (rig: RigUnderTest) => void workOut(rig));

async function workOut(rig: RigUnderTest): Promise<void> {
  setPriority(LOW_PRIORITY);
  const say = (said: Said, then?: () => void) => process.send?.(said, undefined, undefined, then);
  const model = new RigModel(rig);
  let saidMs = Date.now();
  for (const { done, of } of model.prepare('everything')) {
    if (Date.now() - saidMs < SAYS_EVERY_MS) continue;
    say({ share: done / of });
    // Here it hears that whoever asked is gone.
    await new Promise(setImmediate);
    saidMs = Date.now();
  }
  say({ table: model.table() }, () => process.disconnect());
}
// Whoever asked is gone: nobody waits for it any more.
process.once('disconnect', () => process.exit(0));
