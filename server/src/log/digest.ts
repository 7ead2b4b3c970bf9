import type { AnyFact, AnyHeader } from '@keen-bleed/contract';
import canonicalizeModule from 'canonicalize';
import { createHash } from 'node:crypto';

/** Its types speak of a default export that is a module; at run time it is the function itself. */
const canonicalize = canonicalizeModule;

const sha256 = (text: string): string => createHash('sha256').update(text, 'utf8').digest('hex');

/**
 * The head of a hash chain over a log: SHA-256 of its header in canonical JSON (RFC 8785), then for each fact SHA-256 of
 * the head so far, a line feed, and the fact in canonical JSON. Facts are taken lane by lane, each lane by its numbers,
 * lanes by their ids, so that everybody who holds the same facts finds the same head. What the server adds on receipt
 * is no part of a fact.
 *
 * @param knew how far each lane is taken
 * @returns 64 hexadecimal digits
 */
export function digestOf(
  header: AnyHeader,
  facts: readonly AnyFact[],
  knew: Readonly<Record<string, number>>,
): string {
  const taken = facts
    .filter(({ lane, seq }) => seq <= (knew[lane] ?? 0))
    .sort((a, b) => (a.lane < b.lane ? -1 : a.lane > b.lane ? 1 : a.seq - b.seq));
  return taken.reduce(
    (head, { receivedAtMs: _receivedAtMs, ...fact }) => {
      return sha256(`${head}\n${canonicalize(fact) ?? ''}`);
    },
    sha256(canonicalize(header) ?? ''),
  );
}
