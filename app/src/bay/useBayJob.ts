import type { JobFact, JobHeader } from '@keen-bleed/contract';
import {
  CORE_VERSION,
  FoldedLog,
  JOB_VERSION,
  jobKind,
  unitsOf,
  type JobState,
  type NewFact,
  type Owed,
} from '@keen-bleed/core';
import { checksOfRetest, checksOfStep, judgeAnswer, type Check } from '@keen-bleed/core/checks';
import { useRef, useState } from 'react';
import { v7 as uuidv7 } from 'uuid';
import { stamped } from '../store/recordFact';
import type { SuspectShown } from '../suspects/suspecting';
import type { BaySetup } from './bayProtocol';
import type { Bay } from './useBay';
import type { PracticeLog } from './usePracticeLog';

type Log = FoldedLog<JobHeader, JobFact, JobState>;

/** A practice job: like a real one, kept for as long as the rig stands in the Bay. */
export interface BayJob {
  state: JobState | null;
  /** Opens it for a suspect, which is taken as proven. */
  open: (suspect: SuspectShown, by: string) => void;
  /** Fits a sound part. */
  fit: () => Promise<void>;
  /** Checks that a retest is made by on this rig; none where it wants a road or a person. */
  checksFor: (owed: Owed) => readonly Check[];
  retest: (owed: Owed) => Promise<void>;
  /** What was fitted did not do it: the suspects are weighed again. */
  reopen: (because: string) => void;
  /** A lead's word, for practice. */
  release: () => void;
  /** Parts that were changed, each with how many checks had been made by then. */
  repairs: readonly { unit: number; part: string; after: number }[];
}

/** The way from a suspect to a proven repair, practised on the rig in the Bay. */
export function useBayJob(setup: BaySetup, bay: Bay | null, practice: PracticeLog): BayJob {
  const log = useRef<Log | null>(null);
  const [state, setState] = useState<JobState | null>(null);
  const [repairs, setRepairs] = useState<BayJob['repairs']>([]);
  const units = unitsOf(setup.rig);
  const tell = (fact: NewFact<JobFact>) => {
    const kept = log.current;
    if (!kept) return;
    const writing = { log: kept as never, lane: kept.header.id };
    kept.add(stamped(writing, fact, Date.now(), 0) as unknown as JobFact);
    setState(kept.state);
  };
  const checksFor = (owed: Owed): readonly Check[] => {
    const all = bay?.rig.checks ?? [];
    return owed.stepId === null ? checksOfRetest(all, owed) : checksOfStep(all, owed.stepId);
  };
  return {
    state,
    repairs,
    checksFor,
    open: (suspect, by) => {
      const [first] = suspect.faults;
      const unit = units[first?.unit ?? 0];
      if (!first || !unit) return;
      const title = `${first.part}: ${first.title}`;
      const kept = (log.current ??= new FoldedLog<JobHeader, JobFact, JobState>(jobKind, {
        id: uuidv7(),
        kind: 'job',
        v: JOB_VERSION,
        subject: { unitId: setup.rig.unit.id, rigId: null, partId: null },
        startedAtMs: Date.now(),
        offsetMs: null,
        coreVersion: CORE_VERSION,
        made: {
          units: [...units],
          foundOn: [unit.id],
          bornOf: { kind: 'suspect', faultIds: [first.id], chance: suspect.chance },
          found: title,
          failures: [],
          suspected: { unitId: unit.id, partId: first.partId, chance: suspect.chance },
        },
      }));
      const before = kept.state.proven;
      tell({
        kind: 'proven',
        at: { unitId: unit.id, partId: first.partId },
        faultId: first.id,
        text: first.title,
        by,
        ...(before ? { supersedes: before.id, because: 'The retest did not pass' } : {}),
      });
    },
    fit: async () => {
      const at = log.current?.state.proven?.at;
      const unit = units.findIndex(({ id }) => id === at?.unitId);
      if (!at || unit < 0 || !bay) return;
      await bay.mend(unit, at.partId);
      setRepairs((before) => [...before, { unit, part: at.partId, after: practice.done.length }]);
      tell({ kind: 'fitted', at, repair: 'replaced', was: {}, now: {} });
    },
    retest: async (owed) => {
      const kept = log.current;
      const asked = checksFor(owed);
      if (!kept || !bay || asked.length === 0) return;
      const sound = await bay.sound(asked.map(({ id }) => id));
      const came = [];
      for (const check of asked) {
        const answer = await bay.check(check.id, true);
        const expected = sound[check.id];
        if (!answer || !expected) continue;
        practice.add(check, answer);
        came.push(judgeAnswer(check, answer, expected));
      }
      const worst = came.find(({ verdict }) => verdict !== 'pass') ?? came[0];
      if (!worst) return;
      tell({
        kind: 'retested',
        owedId: owed.id,
        logId: kept.header.id,
        verdict: worst.verdict,
        said: worst.said,
        readings: came.flatMap(({ readings }) => readings).slice(0, 12),
      });
    },
    reopen: (because) => {
      tell({ kind: 'reopened', because });
    },
    release: () => tell({ kind: 'ask-release' }),
  };
}
