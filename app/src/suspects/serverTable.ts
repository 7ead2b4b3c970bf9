import type { SuspectTable } from '@keen-bleed/contract';
import { CORE_VERSION, unitsOf, type RigUnderTest } from '@keen-bleed/core';
import type { KeptTable } from '@keen-bleed/core/diagnosis';
import { ask } from '../wire/api';

/** What the shop's server has of a rig: its table, not yet, or nothing that helps here. */
export type FromServer = KeptTable | 'not yet' | 'none';

/**
 * Asks the shop's server for what it has worked out of a rig. Only a table of this very rig, by this very version, helps:
 * what was found on this device and is not sent yet makes it another rig.
 */
export async function tableFromServer(rig: RigUnderTest, rigKey: string): Promise<FromServer> {
  let answer: SuspectTable;
  try {
    const unitIds = unitsOf(rig).map(({ id }) => id);
    answer = await ask('POST', '/api/v1/suspects/table', { unitIds });
  } catch {
    // Without the server it only takes longer.
    return 'none';
  }
  switch (answer.standing) {
    case 'working':
    case 'waiting':
      return 'not yet';
    case 'failed':
      return 'none';
    case 'ready':
      return answer.rigKey === rigKey && answer.coreVersion === CORE_VERSION
        ? (answer.table as unknown as KeptTable)
        : 'none';
  }
}
