import { v7 as uuidv7 } from 'uuid';
import { database } from '../store/database';

/** Keeps photos on this device with the log they belong to; they are sent before the entry that names them. */
export async function keepPhotos(logId: string, photos: readonly Blob[]): Promise<string[]> {
  const db = await database();
  const ids: string[] = [];
  for (const blob of photos) {
    const id = uuidv7();
    await db.put('blobs', { id, logId, blob, sent: 0 });
    ids.push(id);
  }
  return ids;
}

/** A photo that this device has; null where only the server does. */
export async function photoHere(id: string): Promise<Blob | null> {
  const found = await (await database()).get('blobs', id);
  return found?.blob ?? null;
}
