/*
 * Finds the hashes of records again.
 *
 *   npm run verify -- run.json    an exported run, visit, job or whole shop, with nothing but Node
 *   npm run verify                every record of this installation, in its database
 *
 * A chain begins with the SHA-256 of the record's header. Each link is the SHA-256 of the link before, a line feed, and
 * {entry, lane, personId, receivedAtMs, seq} in canonical JSON (RFC 8785), where entry is the SHA-256 of the entry as it
 * was recorded. A job's release carries a digest of its own, over what it knew: SHA-256 of the header, then for every
 * entry SHA-256 of the head so far, a line feed, and the entry; lane by lane, lanes by their ids, each by its numbers.
 */
import { closeSync, createReadStream, existsSync, openSync, readFileSync, readSync } from 'node:fs';
import { createInterface } from 'node:readline';
import { canonical, hashOf, photoIdOf, sha256, wrongIn } from './setup/chains.mjs';
import { ENDED, runMain, say, Trouble } from './setup/say.mjs';

const RELEASES_KNOW = 'keen-bleed/job/1';
const FORMATS = ['keen-bleed/run/2', 'keen-bleed/visit/1', RELEASES_KNOW];

/** The head over what was known of each lane of a job. */
function digestOf({ header, facts }, knew) {
  const taken = facts
    .filter(({ lane, seq }) => seq <= (knew[lane] ?? 0))
    .sort((a, b) => (a.lane < b.lane ? -1 : a.lane > b.lane ? 1 : a.seq - b.seq));
  return taken.reduce(
    (head, fact) => sha256(`${head}\n${canonical(fact)}`),
    sha256(canonical(header)),
  );
}

/** A fact without what the server adds on receipt. */
function asRecorded(fact) {
  const { ...plain } = fact;
  delete plain.receivedAtMs;
  return plain;
}

/** Holds what an export tells to the chain it carries. */
function verifyChain({ header, facts, chain }) {
  const { headerSha256, links } = chain;
  const isHeader = hashOf(chain.header ?? header) === headerSha256;
  const told = new Map(facts.map((fact) => [`${fact.lane} ${fact.seq}`, asRecorded(fact)]));
  const other = links.find(
    ({ lane, seq, entry, entrySha256 }) =>
      hashOf(entry ?? told.get(`${lane} ${seq}`) ?? null) !== entrySha256,
  );
  const older = links.filter(({ entry }) => entry !== undefined).length;
  const alone = facts.length - links.length;
  return [
    ['the chain of its entries', wrongIn(headerSha256, links)],
    ['its header', isHeader ? null : 'is not what was recorded'],
    [
      `its ${facts.length} entries`,
      other
        ? `entry ${other.place} is not what was recorded`
        : alone > 0
          ? `${alone} are in no link`
          : null,
      older > 0 ? `${older} of an older version, told in today's words` : '',
    ],
  ];
}

/** Holds every record of a shop's export to its chain. */
async function verifyShop(file) {
  const logs = new Map();
  let lines = 0;
  let end = null;
  for await (const text of createInterface({ input: createReadStream(file) })) {
    lines += 1;
    const { line, ...row } = JSON.parse(text);
    if (line === 'log') logs.set(row.id, { ...row, links: [] });
    if (line === 'fact') {
      const { logId, fact, ...link } = row;
      logs.get(logId)?.links.push({ ...link, entrySha256: hashOf(fact) });
    }
    if (line === 'end') end = row.lines;
  }
  const wrong = [...logs.values()].flatMap(({ id, kind, title, header, factCount, links }) => {
    const found = wrongIn(hashOf(header), links, factCount);
    return found ? [[`${kind} ${id} (${title})`, found]] : [];
  });
  say(`${logs.size} records looked at`);
  return [
    ['the file', end === lines ? null : 'is cut short'],
    ...(wrong.length > 0 ? wrong : [['every record', null]]),
  ];
}

/** The first line of a file. */
function firstLine(file) {
  const head = Buffer.alloc(4096);
  const open = openSync(file, 'r');
  const length = readSync(open, head, 0, head.length, 0);
  closeSync(open);
  return head.toString('utf8', 0, length).split('\n')[0];
}

/** Holds an export to its hashes. */
function verifyExport(file) {
  if (!existsSync(file)) throw new Trouble(`There is no file ${file}.`, ENDED.asked);
  if (firstLine(file).startsWith('{"format":"keen-bleed/shop/1"')) return verifyShop(file);
  const record = JSON.parse(readFileSync(file, 'utf8'));
  if (!FORMATS.includes(record.format)) {
    throw new Trouble(`${file} is no exported record: its format should be one of ${FORMATS}.`);
  }
  const results = [];
  if (record.chain) {
    results.push(...verifyChain(record));
  } else say('an export of an earlier version: it carries no chain');
  if (record.format === RELEASES_KNOW) {
    const digests = [
      ['the digest of the whole', record.digest.sha256, digestOf(record, record.digest.knew)],
      ...record.facts
        .filter(({ kind }) => kind === 'released')
        .map((release) => [
          'the digest of its release',
          release.digest,
          digestOf(record, release.knew),
        ]),
    ];
    for (const [what, said, found] of digests) {
      results.push([what, said === found ? null : `says ${said}, is ${found}`]);
    }
  }
  return results;
}

/** What is wrong with the photos that a record's entries name: absent, or other than their id says. */
async function wrongPhotos(client, { shop_id: shopId, id }, facts) {
  const named = facts.flatMap(({ fact }) => fact.photos ?? []);
  if (named.length === 0) return [];
  const { rows } = await client.query(
    'select id, bytes from blobs where shop_id = $1 and log_id = $2',
    [shopId, id],
  );
  const held = new Map(rows.map((row) => [row.id, row.bytes]));
  return named.flatMap((photo) => {
    const bytes = held.get(photo.toLowerCase());
    if (!bytes) return [`photo ${photo} is gone`];
    // Only ids of version 8 say what a photo shows.
    if (photo[14] !== '8' || photoIdOf(id, bytes) === photo) return [];
    return [`photo ${photo} is not the one that was sent`];
  });
}

/** Holds every record of the database to its chain. */
async function verifyDatabase() {
  const { withDatabase } = await import('./setup/withDatabase.mjs');
  return withDatabase(async (client) => {
    const { rows: logs } = await client.query(
      'select shop_id, id, kind, title, header, fact_count from logs order by shop_id, id',
    );
    const results = [];
    for (const log of logs) {
      const { rows } = await client.query(
        `select lane, seq, person_id as "personId", received_at_ms::float8 as "receivedAtMs", fact, place, link as sha256
         from facts where shop_id = $1 and log_id = $2 order by place nulls last`,
        [log.shop_id, log.id],
      );
      const links = rows.map(({ fact, ...link }) => ({ ...link, entrySha256: hashOf(fact) }));
      const wrong = wrongIn(hashOf(log.header), links, log.fact_count);
      const title = `${log.kind} ${log.id} (${log.title})`;
      if (wrong) results.push([title, wrong]);
      for (const each of await wrongPhotos(client, log, rows)) results.push([title, each]);
    }
    say(`${logs.length} records looked at`);
    return results.length > 0 ? results : [['every record', null]];
  });
}

await runMain(async () => {
  const file = process.argv[2];
  const results = await (file ? verifyExport(file) : verifyDatabase());
  for (const [what, wrong, note] of results) {
    console.log(
      `${wrong ? 'WRONG' : 'right'}  ${what}${wrong ? `: ${wrong}` : ''}${note ? ` (${note})` : ''}`,
    );
  }
  if (results.some(([, wrong]) => wrong)) process.exitCode = ENDED.wrong;
});
