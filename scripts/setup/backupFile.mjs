import { createHash } from 'node:crypto';
import { createReadStream, closeSync, openSync, readSync, statSync } from 'node:fs';
import { Transform } from 'node:stream';
import { finished } from 'node:stream/promises';

/*
 * A backup is one file: a line that says so, PostgreSQL's own archive, and at the end what it holds, with the archive's
 * length and SHA-256, as JSON; its length in bytes stands in the last sixteen.
 */
const FIRST = Buffer.from('keen-bleed/backup/1\n');
const LAST = 16;
/** An archive of PostgreSQL's as earlier versions kept it, without a list. */
const PLAIN = 'PGDMP';

/** Passes an archive through, counted and hashed. */
export function sealing() {
  const hash = createHash('sha256');
  let bytes = 0;
  const through = new Transform({
    transform(chunk, _, next) {
      hash.update(chunk);
      bytes += chunk.length;
      next(null, chunk);
    },
  });
  return { through, seal: () => ({ bytes, sha256: hash.digest('hex') }) };
}

export const begin = () => FIRST;

/** What stands after the archive. */
export function closing(list) {
  const text = Buffer.from(JSON.stringify(list));
  return Buffer.concat([text, Buffer.from(String(text.length).padStart(LAST, '0'))]);
}

function bytesAt(file, from, length) {
  const open = openSync(file, 'r');
  try {
    const bytes = Buffer.alloc(Math.max(0, length));
    return bytes.subarray(0, readSync(open, bytes, 0, bytes.length, from));
  } finally {
    closeSync(open);
  }
}

/**
 * Looks at a file.
 *
 * @returns where its archive begins and how long it is, and its list; null for a list that it does not carry; null for
 * a file that is no backup or is not whole
 */
export async function readBackup(file) {
  const { size } = statSync(file);
  if (bytesAt(file, 0, PLAIN.length).toString() === PLAIN)
    return { from: 0, bytes: size, list: null };
  if (!bytesAt(file, 0, FIRST.length).equals(FIRST)) return null;
  const length = Number(bytesAt(file, size - LAST, LAST).toString());
  if (!Number.isInteger(length) || length <= 0 || length > size) return null;
  let list;
  try {
    list = JSON.parse(bytesAt(file, size - LAST - length, length).toString());
  } catch {
    return null;
  }
  const from = FIRST.length;
  if (size !== from + list.bytes + length + LAST) return null;
  const { through, seal } = sealing();
  createReadStream(file, { start: from, end: from + list.bytes - 1 })
    .pipe(through)
    .resume();
  await finished(through);
  return seal().sha256 === list.sha256 ? { from, bytes: list.bytes, list } : null;
}
