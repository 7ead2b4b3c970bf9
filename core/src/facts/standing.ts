import type { FactStamp } from '@keen-bleed/contract';

type Any = FactStamp & { kind: string };

/** The facts that stand: neither taken back nor corrected by one that stands. */
export function standing<F extends Any>(facts: readonly F[]): F[] {
  const takenBack = new Set(
    facts.flatMap((fact) => (fact.kind === 'retract' && 'target' in fact ? [fact.target] : [])),
  );
  const live = facts.filter((fact) => fact.kind !== 'retract' && !takenBack.has(fact.id));
  const corrected = new Set(
    live.flatMap((fact) => ('supersedes' in fact && fact.supersedes ? [fact.supersedes] : [])),
  );
  return live.filter((fact) => !corrected.has(fact.id));
}
