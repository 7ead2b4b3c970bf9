import { sha256 } from '@noble/hashes/sha2.js';
import { utf8ToBytes } from '@noble/hashes/utils.js';

/**
 * The id of a photo, by what it shows and the record it belongs to: a UUID of version 8 (RFC 9562, 5.8) whose other 122
 * bits are the first of SHA-256 over the record's id in lower case, a line feed and the photo's bytes. An entry that
 * names a photo thereby says what it showed; a photo changed afterwards no longer has its name.
 */
export function photoIdOf(logId: string, bytes: Uint8Array): string {
  const hash = sha256
    .create()
    .update(utf8ToBytes(`${logId.toLowerCase()}\n`))
    .update(bytes)
    .digest()
    .slice(0, 16);
  hash[6] = (hash[6]! & 0x0f) | 0x80;
  hash[8] = (hash[8]! & 0x3f) | 0x80;
  const hex = Array.from(hash, (byte) => byte.toString(16).padStart(2, '0')).join('');
  return hex.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}

/** Whether a photo's id says what it shows; ids made before that was so do not. */
export const saysWhatItShows = (photoId: string): boolean => photoId[14] === '8';
