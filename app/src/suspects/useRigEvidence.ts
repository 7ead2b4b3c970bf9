import type { RunFact, RunHeader, Unit } from '@keen-bleed/contract';
import { clockAnswers, correctedMs, outcomeOf, stateOfRun } from '@keen-bleed/core';
import {
  evidenceOfFound,
  evidenceOfRun,
  stillCounts,
  usualOf,
  type Evidence,
} from '@keen-bleed/core/diagnosis';
import { useMemo } from 'react';
import { useFound, useLogRecord, useUnitRuns } from '../data/useRecords';
import type { WalkRound } from '../parts/useWalkRound';

/** What is known of a rig for its suspects, and where the run of it is read. */
export interface RigEvidence {
  evidence: readonly Evidence[];
  run: { id: string; atMs: number } | null;
  ready: boolean;
}

const DAY_MS = 86_400_000;

/** Everything in the log of a rig that speaks for or against a cause: its newest run, what was found since, what was replaced. */
export function useRigEvidence(units: readonly Unit[], walk: WalkRound): RigEvidence {
  const [front] = units;
  const runs = useUnitRuns(front?.id ?? '');
  const closed = (runs.data ?? []).filter((run) => run.closedAtMs !== null);
  const newest = closed[0] ?? null;
  const passed = useMemo(
    () =>
      (runs.data ?? []).filter(
        ({ id, verdict, rigTitle: title, closedAtMs }) =>
          closedAtMs !== null &&
          verdict === 'pass' &&
          id !== newest?.id &&
          title === newest?.rigTitle,
      ),
    [newest, runs.data],
  );
  const sound = passed[0];
  const record = useLogRecord<'run'>(newest?.id ?? null);
  const found = useFound(front?.id ?? null);
  return useMemo(() => {
    const evidence: Evidence[] = [];
    if (record.data && newest) {
      const { header, facts } = record.data as unknown as { header: RunHeader; facts: RunFact[] };
      const state = stateOfRun(header.made, facts);
      const { unit, towed, ruleSet } = header.made;
      const outcome = outcomeOf(state, { unit, towed, ruleSet, sayIn: unit.gauge.unit });
      evidence.push(
        ...evidenceOfRun({
          outcome,
          gauge: state.gauge,
          atMs: newest.startedAtMs,
          usual: usualOf(passed, state.gauge),
        }),
      );
    }
    const entries = walk.state?.entries ?? [];
    const answers = clockAnswers(entries);
    const here = new Set(entries.map(({ id }) => id));
    for (const entry of entries) {
      const atMs = Math.round(correctedMs(entry, answers.get(entry.lane)));
      if (entry.kind === 'check') {
        const { checkId, answer } = entry;
        evidence.push({ kind: 'answer', atMs, checkId, answer });
      } else if (entry.kind === 'complaint') {
        evidence.push({ kind: 'complaint', atMs, complaintId: entry.complaintId });
      } else if (entry.kind === 'named') {
        evidence.push({ kind: 'named', atMs, fault: entry.faultId });
      }
    }
    evidence.push(...evidenceOfFound((found.data ?? []).filter(({ id }) => !here.has(id))));
    units.forEach(({ parts = [] }, unit) => {
      for (const { partId, fittedOn } of parts) {
        if (fittedOn === undefined) continue;
        evidence.push({ kind: 'repair', atMs: Date.parse(fittedOn) + DAY_MS, unit, part: partId });
      }
    });
    return {
      evidence: stillCounts(evidence, newest?.startedAtMs ?? null, sound?.startedAtMs ?? null),
      run: newest && { id: newest.id, atMs: newest.startedAtMs },
      ready:
        (runs.data ?? runs.error) !== undefined &&
        (newest === null || (record.data ?? record.error) !== undefined) &&
        (found.data ?? found.error) !== undefined,
    };
  }, [
    found.data,
    found.error,
    newest,
    passed,
    record.data,
    record.error,
    runs.data,
    runs.error,
    sound,
    units,
    walk.state,
  ]);
}
