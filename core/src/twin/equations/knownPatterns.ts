import { luPattern, type LuPattern } from '../algebra/sparseLu';

/** Patterns kept, so that a shop's whole yard is known. */
const MOST_KNOWN = 64;

/** By structure: rigs that are plumbed alike have the same pattern, whatever their sizes. */
const known = new Map<string, LuPattern>();

/** A structure as a short text: four places to a letter. */
function keyOf(size: number, mayDiffer: readonly boolean[]): string {
  let key = `${size} `;
  for (let i = 0; i < mayDiffer.length; i += 4) {
    const bits =
      (mayDiffer[i] ? 8 : 0) +
      (mayDiffer[i + 1] ? 4 : 0) +
      (mayDiffer[i + 2] ? 2 : 0) +
      (mayDiffer[i + 3] ? 1 : 0);
    key += bits.toString(16);
  }
  return key;
}

function keep(key: string, pattern: LuPattern): void {
  known.delete(key);
  known.set(key, pattern);
  for (const oldest of known.keys()) {
    if (known.size <= MOST_KNOWN) break;
    known.delete(oldest);
  }
}

/** The pattern for a structure: the one known, or worked out now. */
export function patternFor(size: number, mayDiffer: readonly boolean[]): LuPattern {
  const key = keyOf(size, mayDiffer);
  const pattern = known.get(key) ?? luPattern(size, mayDiffer);
  keep(key, pattern);
  return pattern;
}

/** Patterns by structure, as plain data that a message to a worker carries. */
export type KnownPatterns = readonly (readonly [structure: string, pattern: LuPattern])[];

/** Every pattern known here. */
export const knownPatterns = (): KnownPatterns => [...known];

/** Takes in patterns that another thread has worked out. */
export function learnPatterns(patterns: KnownPatterns): void {
  for (const [key, pattern] of patterns) keep(key, pattern);
}
