import type { AnyFact, ChainStanding, ExportedChain } from '@keen-bleed/contract';
import canonicalizeModule from 'canonicalize';
import { createHash } from 'node:crypto';

/** Its types speak of a default export that is a module; at run time it is the function itself. */
const canonicalize = canonicalizeModule;

const sha256 = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');

/** SHA-256 of a value in canonical JSON (RFC 8785): 64 hexadecimal digits. */
export const hashOf = (value: unknown): string => sha256(canonicalize(value) ?? '');

/** What a link vouches for: an entry, whose it is, and when it came. */
export interface ChainedFact {
  lane: string;
  seq: number;
  personId: string;
  receivedAtMs: number;
  /** As it was kept, whatever version kept it. */
  fact: Record<string, unknown>;
}

/** A fact with its link; both null where an older version kept it and nobody has chained it yet. */
export interface LinkedFact extends ChainedFact {
  place: number | null;
  link: string | null;
}

/**
 * The next link of a log's chain: SHA-256 of the one before it, a line feed, and in canonical JSON what it vouches for,
 * with the entry by its own SHA-256. The first goes after the SHA-256 of the header.
 */
export function nextLink(
  before: string,
  { lane, seq, personId, receivedAtMs, fact }: ChainedFact,
): string {
  const vouched = { entry: hashOf(fact), lane, personId, receivedAtMs, seq };
  return sha256(`${before}\n${canonicalize(vouched) ?? ''}`);
}

/** Facts in a log's order of receipt, each with its place and link, on top of what is linked already. */
export function linked<F extends ChainedFact>(
  head: { place: number; link: string },
  facts: readonly F[],
): (F & { place: number; link: string })[] {
  let { place, link } = head;
  return facts.map((fact) => {
    place += 1;
    link = nextLink(link, fact);
    return { ...fact, place, link };
  });
}

/** Where a log's chain ends: at its header before the first fact. */
export function headOf(
  header: Record<string, unknown>,
  facts: readonly Pick<LinkedFact, 'place' | 'link'>[],
): { place: number; link: string } {
  let head = { place: 0, link: '' };
  for (const { place, link } of facts) {
    if (place !== null && link !== null && place > head.place) head = { place, link };
  }
  return head.place === 0 ? { place: 0, link: hashOf(header) } : head;
}

/**
 * Finds every link of a log again. What was taken away from its end shows in the count of entries that is kept beside.
 *
 * @param log its header as it was kept, and how many entries it should have
 * @param facts of the log, in any order
 */
export function standingOf(
  { header, factCount }: { header: Record<string, unknown>; factCount: number },
  facts: readonly LinkedFact[],
): ChainStanding {
  const inPlace = inOrderOfReceipt(facts);
  let head = hashOf(header);
  for (const [index, fact] of inPlace.entries()) {
    head = nextLink(head, fact);
    if (fact.place !== index + 1 || fact.link !== head) return { head, brokenAt: index + 1 };
  }
  return { head, brokenAt: facts.length < factCount ? facts.length + 1 : null };
}

const inOrderOfReceipt = (facts: readonly LinkedFact[]) =>
  [...facts].sort((a, b) => (a.place ?? 0) - (b.place ?? 0));

const METHOD =
  'SHA-256 of the link before (first: headerSha256), a line feed, and {"entry","lane","personId","receivedAtMs","seq"} in canonical JSON (RFC 8785); entry is the SHA-256 of the entry as it was recorded, in canonical JSON.';

/**
 * The whole chain of a log, for an export. What an older version recorded goes with it as it was, where the export tells
 * it otherwise.
 *
 * @param told the log as the export tells it
 */
export function exportedChain(
  log: { header: Record<string, unknown>; factCount: number },
  facts: readonly LinkedFact[],
  told: { header: object; facts: readonly AnyFact[] },
): ExportedChain {
  const shown = new Set(told.facts.map(({ receivedAtMs: _receivedAtMs, ...fact }) => hashOf(fact)));
  const headerSha256 = hashOf(log.header);
  return {
    method: METHOD,
    headerSha256,
    ...(hashOf(told.header) === headerSha256 ? {} : { header: log.header }),
    ...standingOf(log, facts),
    links: inOrderOfReceipt(facts).map(
      ({ place, lane, seq, personId, receivedAtMs, fact, link }) => {
        const entrySha256 = hashOf(fact);
        return {
          ...{ lane, seq, personId, receivedAtMs, entrySha256 },
          place: place ?? 0,
          sha256: link ?? '',
          ...(shown.has(entrySha256) ? {} : { entry: fact }),
        };
      },
    ),
  };
}
