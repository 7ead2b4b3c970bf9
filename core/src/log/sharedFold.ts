import type { FactStamp } from '@keen-bleed/contract';
import type { LogFold } from './logKind';

/**
 * The facts of a log that everybody of the shop writes in. What a new fact is asked by is kept as facts come; the state
 * is worked out only when somebody looks at it, so that taking many in costs what they are and not what is there.
 */
export class SharedFold<H, F extends FactStamp & { kind: string }, S> implements LogFold<F, S> {
  private readonly facts: F[] = [];
  private readonly ends = new Map<string, F>();
  private readonly byId = new Map<string, F>();
  private cached: S | null = null;

  /** @param facts in their order */
  constructor(
    readonly header: H,
    facts: readonly F[],
    private readonly stateOf: (header: H, facts: readonly F[]) => S,
  ) {
    for (const fact of facts) this.add(fact);
  }

  add(fact: F): void {
    this.facts.push(fact);
    this.byId.set(fact.id, fact);
    if (fact.seq > (this.ends.get(fact.lane)?.seq ?? 0)) this.ends.set(fact.lane, fact);
    this.cached = null;
  }

  get state(): S {
    return (this.cached ??= this.stateOf(this.header, [...this.facts]));
  }

  /** The fact of an id, taken back or not. */
  factOf(id: string): F | undefined {
    return this.byId.get(id);
  }

  /** The last fact of a lane. */
  endOf(lane: string): F | undefined {
    return this.ends.get(lane);
  }
}
