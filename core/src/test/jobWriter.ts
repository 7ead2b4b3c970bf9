import type { FieldProblem, JobFact, JobHeader, JobMade, Unit } from '@keen-bleed/contract';
import type { NewFact } from '../facts/newFact';
import { FoldedLog } from '../log/foldedLog';
import type { JobState } from '../repair/jobState';
import { JOB_VERSION, jobKind } from '../log/kinds/job/jobKind';
import { CORE_VERSION } from '../version';

const OPENED_MS = 1_760_000_000_000;

/** The header of a job on some units, found by hand unless it is said otherwise. */
export function jobHeader(units: readonly Unit[], change: Partial<JobMade> = {}): JobHeader {
  const [front] = units;
  if (!front) throw new Error('a job is on one unit at least');
  return {
    id: '00000000-0000-7000-8000-0000000000f0',
    kind: 'job',
    v: JOB_VERSION,
    subject: { unitId: front.id, rigId: null, partId: null },
    startedAtMs: OPENED_MS,
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: {
      units: [...units],
      foundOn: [front.id],
      bornOf: { kind: 'hand' },
      found: 'Loses air with the pedal down',
      failures: [],
      suspected: null,
      ...change,
    },
  };
}

/** Somebody who writes in a job, in a lane of their own, on what their own device knows. */
export class JobWriter {
  readonly log: FoldedLog<JobHeader, JobFact>;
  private static made = 0;

  constructor(
    header: JobHeader,
    private readonly lane = '00000000-0000-7000-8000-0000000000a1',
    /** How far the device's clock is ahead, which nobody knows. */
    private readonly aheadMs = 0,
  ) {
    this.log = new FoldedLog(jobKind, header) as unknown as FoldedLog<JobHeader, JobFact>;
  }

  get state() {
    return this.log.state as JobState;
  }

  /** What comes in from elsewhere. */
  hear(facts: readonly JobFact[]): void {
    for (const fact of facts) if (!this.log.has(fact.id)) this.log.add(fact);
  }

  /** What is wrong with a fact that is told now, in words; null where it was added. */
  tries(fact: NewFact<JobFact>, atS: number): string | null {
    return this.problemOf(fact, atS)?.message ?? null;
  }

  /** What is wrong with a fact that is told now, and in which field; null where it would be taken. */
  problemOf(fact: NewFact<JobFact>, atS = this.log.facts.length + 1): FieldProblem | null {
    return this.log.admit(this.stamped(fact, atS)) ?? null;
  }

  tell(fact: NewFact<JobFact>, atS = this.log.facts.length + 1): JobFact {
    const whole = this.stamped(fact, atS);
    const problem = this.log.admit(whole);
    if (problem) throw new Error(problem.message);
    this.log.add(whole);
    return whole;
  }

  private stamped(fact: NewFact<JobFact>, atS: number): JobFact {
    return {
      atMs: OPENED_MS + atS * 1000 + this.aheadMs,
      ...fact,
      id: `00000000-0000-7000-8000-${String((JobWriter.made += 1)).padStart(12, '0')}`,
      lane: this.lane,
      seq: this.log.nextSeq(this.lane),
      offsetMs: 0,
      v: JOB_VERSION,
    };
  }
}
