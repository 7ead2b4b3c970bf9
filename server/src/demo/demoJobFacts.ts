import type { AnyFact, JobFact, JobHeader, JobMade, Outcome, Unit } from '@keen-bleed/contract';
import {
  CORE_VERSION,
  FoldedLog,
  JOB_VERSION,
  jobKind,
  retestOutcome,
  type NewFact,
} from '@keen-bleed/core';
import type { logs } from '../db/schema';
import { digestOf } from '../log/digest';
import type { SeededRandom } from '../random/seededRandom';
import type { DemoJob } from './demoJobs';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;

interface Around {
  kept: ReadonlyMap<string, Unit>;
  staff: readonly { id: string; signInName: string }[];
  random: SeededRandom;
  todayMs: number;
  /** Runs that were made so far. */
  runs: readonly (typeof logs.$inferInsert)[];
}

/** A made-up job as it would have come in: each person by a lane of their own, releases by the server. */
export function demoJobFacts(
  demo: DemoJob,
  { kept, staff, random, todayMs, runs }: Around,
): { header: JobHeader; made: JobFact[]; people: (fact: AnyFact | null) => string } {
  const unit = kept.get(demo.number);
  if (!unit) throw new Error(`a demo job names unit ${demo.number}, which is not there`);
  const personOf = (name: string): string => {
    const person = staff.find((each) => each.signInName === name);
    if (!person) throw new Error(`a demo job names ${name}, who is not there`);
    return person.id;
  };
  const midnightMs = Math.floor(todayMs / DAY_MS) * DAY_MS;
  const momentOf = (daysAgo: number, hour: number) =>
    Math.round(midnightMs - daysAgo * DAY_MS + hour * HOUR_MS);
  const ofUnit = runs
    // A run of the unit alone: what a rig shows is another story.
    .filter(
      ({ unitId, rigId, closedAtMs }) =>
        unitId === unit.id && rigId === null && closedAtMs !== null,
    )
    .sort((a, b) => (a.startedAtMs ?? 0) - (b.startedAtMs ?? 0));
  const last = ofUnit.at(-1);
  const openedMs = momentOf(demo.daysAgo, demo.hour);
  const failures = (demo.failures ?? []).map(({ key, title, critical }) => ({
    runId: last?.id ?? '',
    key,
    title,
    value:
      (last?.result as Outcome | null)?.figures.find(({ id }) => `figure:${id}` === key)?.value ??
      null,
    critical,
  }));
  const bornOf: JobMade['bornOf'] =
    demo.bornOf === 'failure' && failures[0]
      ? { kind: 'failure', runId: failures[0].runId, key: failures[0].key }
      : demo.bornOf === 'suspect' && demo.suspected
        ? {
            kind: 'suspect',
            faultIds: [demo.suspected.partId],
            chance: demo.suspected.chance,
          }
        : { kind: 'hand' };
  const header: JobHeader = {
    id: random.uuid(openedMs),
    kind: 'job',
    v: JOB_VERSION,
    subject: { unitId: unit.id, rigId: null, partId: null },
    startedAtMs: openedMs,
    offsetMs: 0,
    coreVersion: CORE_VERSION,
    made: {
      units: [unit],
      foundOn: [unit.id],
      bornOf,
      found: demo.found,
      failures,
      suspected: demo.suspected ? { unitId: unit.id, ...demo.suspected } : null,
    },
  };
  const log = new FoldedLog(jobKind, header);
  const lanes = new Map<string, { lane: string; personId: string }>();
  const laneOf = (by: string) => {
    const found = lanes.get(by) ?? { lane: random.uuid(openedMs), personId: personOf(by) };
    lanes.set(by, found);
    return found.lane;
  };
  const add = (by: string, atMs: number, fact: NewFact<JobFact>, lane = laneOf(by)): JobFact => {
    const whole = {
      ...fact,
      id: random.uuid(atMs),
      lane,
      seq: log.nextSeq(lane),
      atMs,
      offsetMs: 0,
      v: JOB_VERSION,
    } as JobFact;
    log.add(whole);
    return whole;
  };
  const at = (partId: string) => ({ unitId: unit.id, partId });
  const lastOf = (kind: JobFact['kind']) =>
    log.facts.findLast((fact) => fact.kind === kind)?.id ?? '';

  for (const { by, daysAgo, hour, does } of demo.steps) {
    const atMs = momentOf(daysAgo, hour);
    if ('fact' in does) {
      const fact = does.fact(at, lastOf);
      add(by, atMs, fact.kind === 'owner' ? { ...fact, personId: personOf(fact.personId) } : fact);
    } else if ('retest' in does) {
      const fittedMs = log.facts.findLast(({ kind }) => kind === 'fitted')?.atMs ?? 0;
      const run = ofUnit.find(({ startedAtMs = 0 }) => startedAtMs > fittedMs);
      const came =
        run &&
        retestOutcome(
          run.result as Outcome,
          does.retest,
          beforeOf(ofUnit, fittedMs),
          {},
          unit.gauge.unit,
        );
      if (!run || !came) throw new Error(`no run of ${demo.number} retests ${does.retest}`);
      add(by, atMs, { kind: 'retested', owedId: `step:${does.retest}`, logId: run.id, ...came });
    } else {
      const ask = add(by, atMs, { kind: 'ask-release' });
      const knew = log.lanes;
      const lane = random.uuid(atMs);
      lanes.set(`released by ${by}`, { lane, personId: personOf(by) });
      const digest = digestOf(header, log.facts, knew);
      const release = { kind: 'released', askId: ask.id, knew, digest, atServerMs: atMs } as const;
      add(by, atMs, release, lane);
    }
  }
  const personOfLane = new Map([...lanes.values()].map(({ lane, personId }) => [lane, personId]));
  return {
    header,
    made: [...log.facts],
    people: (fact) => (fact && personOfLane.get(fact.lane)) ?? personOf(demo.openedBy),
  };
}

/** Figures of the newest run before a repair. */
const beforeOf = (runs: readonly (typeof logs.$inferInsert)[], fittedMs: number) =>
  (runs.findLast(({ startedAtMs = 0 }) => startedAtMs < fittedMs)?.result as Outcome | null)
    ?.figures ?? [];
