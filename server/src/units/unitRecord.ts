import type { Unit } from '@keen-bleed/contract';
import type { units } from '../db/schema';

/** A unit as the contract has it, from its row. */
export function unitRecord(row: typeof units.$inferSelect): Unit {
  return {
    id: row.id,
    revision: row.revision,
    retiredAtMs: row.retiredAt ? row.retiredAt.getTime() : null,
    ...row.draft,
  };
}
