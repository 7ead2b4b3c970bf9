/** A server tells each open stream this often that it is there, ms. */
export const ALIVE_EVERY_MS = 15_000;

/** A page that hears of nobody for so long asks anew, ms: a word or two may be late, not three. */
export const ALIVE_WITHIN_MS = 3 * ALIVE_EVERY_MS;
