import type { AnyFact, FactStamp } from '@keen-bleed/contract';

type Unstamped<F> = F extends FactStamp ? Omit<F, keyof FactStamp> : never;

/** A fact without its stamp; a correction names the time of what it corrects. */
export type NewFact<F extends AnyFact = AnyFact> = Unstamped<F> & { atMs?: number };
