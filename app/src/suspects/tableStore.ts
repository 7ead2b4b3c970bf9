import { CORE_VERSION } from '@keen-bleed/core';
import type { KeptTable } from '@keen-bleed/core/diagnosis';
import { openDB, type DBSchema } from 'idb';

interface Tables extends DBSchema {
  tables: { key: string; value: { key: string; usedAtMs: number; table: KeptTable } };
}

/** Rigs whose tables are kept on this device: the oldest make room. */
const MOST = 6;

const open = () =>
  openDB<Tables>('keen-bleed-suspects', 1, {
    upgrade: (db) => void db.createObjectStore('tables', { keyPath: 'key' }),
  });

const keyOf = (rigKey: string) => `${CORE_VERSION} ${rigKey}`;

/** What was worked out of a rig before by this version; null where nothing was, or nothing can be kept here. */
export async function keptTable(rigKey: string): Promise<KeptTable | null> {
  try {
    const db = await open();
    const kept = await db.get('tables', keyOf(rigKey));
    db.close();
    return kept?.table ?? null;
  } catch {
    return null;
  }
}

/** Keeps what was worked out of a rig; a full device works it out anew the next time. */
export async function keepTable(rigKey: string, table: KeptTable, nowMs: number): Promise<void> {
  try {
    const db = await open();
    await db.put('tables', { key: keyOf(rigKey), usedAtMs: nowMs, table });
    const all = await db.getAll('tables');
    const old = all.sort((a, b) => b.usedAtMs - a.usedAtMs).slice(MOST);
    for (const { key } of old) await db.delete('tables', key);
    db.close();
  } catch {
    // Nothing is lost but the time to work it out.
  }
}
