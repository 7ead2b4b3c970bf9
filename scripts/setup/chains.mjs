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
