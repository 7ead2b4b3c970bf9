import { photoIdOf } from '@keen-bleed/contract/photo-name';
import { database } from '../store/database';

/** Keeps photos on this device with the log they belong to; they are sent before the entry that names them. */
export async function keepPhotos(logId: string, photos: readonly Blob[]): Promise<string[]> {
  const db = await database();
  const ids: string[] = [];
  for (const blob of photos) {
    const id = photoIdOf(logId, new Uint8Array(await blob.arrayBuffer()));
    const known = await db.get('blobs', id);
    await db.put('blobs', { id, logId, blob, sent: known?.sent ?? 0 });
    ids.push(id);
  }
  return ids;
}

/** A photo that this device has; null where only the server does. */
export async function photoHere(id: string): Promise<Blob | null> {
  const found = await (await database()).get('blobs', id);
  return found?.blob ?? null;
}
