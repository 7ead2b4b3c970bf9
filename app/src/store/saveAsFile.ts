import { toWrite } from './database';
import { droppedFacts, keptLog } from './logs';

/** A record that waits, as a file somebody can keep: all of it, with what was dropped and why it was refused. */
export async function fileOf(logId: string): Promise<{ name: string; text: string } | null> {
  const kept = await keptLog(logId);
  if (!kept) return null;
  const { log, rows } = kept;
  const body = {
    format: 'keen-bleed/unsent/1',
    header: log.header,
    refused: log.refused,
    facts: rows
      .sort((a, b) => (a.lane < b.lane ? -1 : a.lane > b.lane ? 1 : a.seq - b.seq))
      .map(({ fact, sent }) => ({ ...fact, sent: sent === 1 })),
    dropped: (await droppedFacts(logId)).map(({ fact, why, atMs }) => ({ fact, why, atMs })),
  };
  return {
    name: `${log.kind}-${log.id}.json`,
    text: `${JSON.stringify(body, null, 2)}\n`,
  };
}

/** Saves a record that waits as a file. */
export async function saveAsFile(logId: string): Promise<void> {
  const file = await fileOf(logId);
  if (!file) return;
  const url = URL.createObjectURL(new Blob([file.text], { type: 'application/json' }));
  const link = document.createElement('a');
  link.href = url;
  link.download = file.name;
  link.click();
  URL.revokeObjectURL(url);
}

/** Saves a record as a file and takes it off the device. Only its owner does this, by hand. */
export async function takeOffDevice(logId: string): Promise<void> {
  await saveAsFile(logId);
  const tx = await toWrite(['logs', 'facts', 'blobs', 'dropped']);
  for (const name of ['facts', 'blobs', 'dropped'] as const) {
    const store = tx.objectStore(name);
    for (const key of await store.index('by-log').getAllKeys(logId)) await store.delete(key);
  }
  await tx.objectStore('logs').delete(logId);
  await tx.done;
}
