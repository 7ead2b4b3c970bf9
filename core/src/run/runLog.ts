import type { RunFact, TakeOverFact } from '@keen-bleed/contract';
import type { Procedure, ProcedureUnit } from '../procedure/procedure';
import { RunFold, type RunState } from './runState';

/** Kinds of facts that count from whoever wrote them, taken over or closed or not. */
const ALWAYS: ReadonlySet<RunFact['kind']> = new Set(['note', 'clock', 'about']);

/**
 * A run that may be written on more than one device. Whoever takes it over says which facts they knew; what another
 * device wrote beyond these is kept and does not count, however late it comes in, and so does what comes after the
 * run was closed. The outcome is the same in whatever order facts arrive.
 */
export class RunLog {
  private readonly facts: RunFact[];
  private takeOvers: readonly TakeOverFact[] = [];
  private aside: RunFact[] = [];
  private fold: RunFold;
  private cached: RunState | null = null;

  /** @param facts in their order */
  constructor(
    private readonly procedure: Procedure,
    private readonly unit: ProcedureUnit,
    facts: readonly RunFact[] = [],
  ) {
    this.facts = [...facts];
    this.fold = this.foldedAnew();
  }

  add(fact: RunFact): void {
    this.facts.push(fact);
    this.cached = null;
    if (fact.kind === 'take-over') this.fold = this.foldedAnew();
    else this.take(this.fold, fact);
  }

  get state(): RunState {
    this.cached ??= {
      ...this.fold.state,
      takeOvers: this.takeOvers,
      setAside: [...this.aside],
    };
    return this.cached;
  }

  private foldedAnew(): RunFold {
    this.takeOvers = inTurn(this.facts.filter((fact) => fact.kind === 'take-over'));
    this.aside = [];
    const fold = new RunFold(this.procedure, this.unit);
    // Whoever took over went on after what they knew, whatever the clocks say.
    const turns = this.facts.map((fact) => ({ fact, turn: turnOf(this.takeOvers, fact) }));
    turns.sort((a, b) => a.turn - b.turn);
    for (const { fact } of turns) this.take(fold, fact);
    return fold;
  }

  private take(fold: RunFold, fact: RunFact): void {
    const counts = ALWAYS.has(fact.kind) || (!isOvertaken(this.takeOvers, fact) && !fold.isClosed);
    if (counts) fold.add(fact);
    else if (fact.kind !== 'take-over') this.aside.push(fact);
  }
}

/** Whoever knew of another's taking over took over after it; where neither knew, it goes by time. */
function inTurn(takeOvers: readonly TakeOverFact[]): TakeOverFact[] {
  const turns: TakeOverFact[] = [];
  for (const each of takeOvers) {
    const knewOfIt = turns.findIndex((other) => (other.knew[each.lane] ?? 0) >= each.seq);
    turns.splice(knewOfIt < 0 ? turns.length : knewOfIt, 0, each);
  }
  return turns;
}

/** After how many takings over a fact was written, as its own lane goes. */
function turnOf(takeOvers: readonly TakeOverFact[], { lane, seq }: RunFact): number {
  return 1 + takeOvers.findLastIndex((each) => each.lane === lane && seq >= each.seq);
}

/**
 * Whether another device had taken the run over without knowing of a fact, and its own device has not taken it back
 * before it.
 *
 * @param takeOvers in their order
 */
export function isOvertaken(
  takeOvers: readonly TakeOverFact[],
  { lane, seq }: Pick<RunFact, 'lane' | 'seq'>,
): boolean {
  let overtaken = false;
  for (const each of takeOvers) {
    if (each.lane !== lane) overtaken ||= seq > (each.knew[lane] ?? 0);
    else if (seq >= each.seq) overtaken = false;
  }
  return overtaken;
}

/**
 * Whether a fact of a run is still taken once the run is closed: it would not change what the run came to. Taking over
 * would: by what it did not know it would open a closed run again, and with it take back a verdict.
 */
export const comesLate = (state: RunState, fact: RunFact): boolean =>
  ALWAYS.has(fact.kind) || (fact.kind !== 'take-over' && isOvertaken(state.takeOvers, fact));
