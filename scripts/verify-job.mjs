/*
 * Finds the digest of an exported job again, with nothing but Node: `npm run verify -- job.json`.
 *
 * The head of a chain: SHA-256 of the header in canonical JSON (RFC 8785), then for every entry SHA-256 of the head so
 * far, a line feed, and the entry in canonical JSON. Entries go lane by lane, lanes by their ids, each by its numbers.
 */
import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';

const file = process.argv[2];
if (!file) {
  console.error('Name the file: npm run verify -- job.json');
  process.exit(2);
}

/** Keys in order; numbers and strings are what ECMAScript writes, as RFC 8785 asks. */
const canonical = (value) =>
  Array.isArray(value)
    ? `[${value.map(canonical).join(',')}]`
    : typeof value === 'object' && value !== null
      ? `{${Object.keys(value)
          .sort()
          .map((key) => `${JSON.stringify(key)}:${canonical(value[key])}`)
          .join(',')}}`
      : JSON.stringify(value);
const sha256 = (text) => createHash('sha256').update(text, 'utf8').digest('hex');

/** The head over what was known of each lane. */
function headOf({ header, facts }, knew) {
  const taken = facts
    .filter(({ lane, seq }) => seq <= (knew[lane] ?? 0))
    .sort((a, b) => (a.lane < b.lane ? -1 : a.lane > b.lane ? 1 : a.seq - b.seq));
  return taken.reduce(
    (head, fact) => sha256(`${head}\n${canonical(fact)}`),
    sha256(canonical(header)),
  );
}

const job = JSON.parse(readFileSync(file, 'utf8'));
if (job.format !== 'keen-bleed/job/1') {
  console.error('This is no exported job: its format should be keen-bleed/job/1.');
  process.exit(2);
}
const checks = [
  ['the whole record', job.digest.sha256, headOf(job, job.digest.knew)],
  ...job.facts
    .filter(({ kind }) => kind === 'released')
    .map((release) => ['its release', release.digest, headOf(job, release.knew)]),
];
for (const [what, said, found] of checks) {
  console.log(`${said === found ? 'right' : 'WRONG'}  ${what}: ${found}`);
}
process.exitCode = checks.every(([, said, found]) => said === found) ? 0 : 1;
