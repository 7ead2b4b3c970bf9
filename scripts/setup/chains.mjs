import { createHash } from 'node:crypto';

/** Canonical JSON: keys in order; numbers and strings are what ECMAScript writes, as RFC 8785 asks. */
export const canonical = (value) =>
  Array.isArray(value)
    ? `[${value.map(canonical).join(',')}]`
    : typeof value === 'object' && value !== null
      ? `{${Object.keys(value)
          .sort()
          .map((key) => `${JSON.stringify(key)}:${canonical(value[key])}`)
          .join(',')}}`
      : JSON.stringify(value);
export const sha256 = (text) => createHash('sha256').update(text, 'utf8').digest('hex');
export const hashOf = (value) => sha256(canonical(value));

export const linkAfter = (before, { entrySha256: entry, lane, personId, receivedAtMs, seq }) =>
  sha256(`${before}\n${canonical({ entry, lane, personId, receivedAtMs, seq })}`);

/** What is wrong with a chain, in words; null where nothing is. */
export function wrongIn(headerSha256, links, count = links.length) {
  let head = headerSha256;
  for (const [index, link] of links.entries()) {
    head = linkAfter(head, link);
    if (link.place !== index + 1) return `entry ${index + 1} is missing`;
    if (link.sha256 !== head) return `entry ${index + 1} is not what was recorded`;
  }
  return links.length < count ? `entry ${links.length + 1} is missing` : null;
}

/** The id of a photo of a record: a UUID of version 8 (RFC 9562) of SHA-256 over the record's id, a line feed, its bytes. */
export function photoIdOf(logId, bytes) {
  const hash = createHash('sha256').update(`${logId}\n`).update(bytes).digest().subarray(0, 16);
  hash[6] = (hash[6] & 0x0f) | 0x80;
  hash[8] = (hash[8] & 0x3f) | 0x80;
  return hash.toString('hex').replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5');
}
