import type { RunFact, RunHeader, Unit } from '@keen-bleed/contract';
import { clockAnswers, correctedMs, outcomeOf, stateOfRun } from '@keen-bleed/core';
import {
  evidenceOfFound,
  evidenceOfRun,
  stillCounts,
  usualOf,
  type Evidence,
} from '@keen-bleed/core/diagnosis';
import { useEffect, useMemo, useState } from 'react';
import { useMe } from '../account/session';
import { useFound, useLogRecord, useUnitRuns } from '../data/useRecords';
import type { WalkRound } from '../parts/useWalkRound';
import { closedRunOf, type KeptLog } from '../store/logs';

/** What is known of a rig for its suspects, and where the run of it is read. */
export interface RigEvidence {
  evidence: readonly Evidence[];
  run: { id: string; atMs: number } | null;
  ready: boolean;
}

const DAY_MS = 86_400_000;
const NONE: readonly Evidence[] = [];

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
  const here = useClosedHere(front?.id ?? '');
  const found = useFoundOfAll(units);
  // A run that the server has not heard of yet counts as well.
  const own = here.run && (!newest || here.run.atMs > newest.startedAtMs) ? here.run : null;
  const kept = own ?? (record.data && newest ? record.data : null);
  const runId = own?.id ?? newest?.id ?? null;
  const runAtMs = own?.atMs ?? newest?.startedAtMs ?? null;
  // Apart from what goes on here: a mark on a walk does not read the whole run again.
  const ofRun = useMemo((): readonly Evidence[] => {
    if (!kept || runAtMs === null) return NONE;
    const { header, facts } = kept as unknown as { header: RunHeader; facts: RunFact[] };
    const state = stateOfRun(header.made, facts);
    const { unit, towed, ruleSet } = header.made;
    const outcome = outcomeOf(state, { unit, towed, ruleSet, sayIn: unit.gauge.unit });
    return evidenceOfRun({
      outcome,
      gauge: state.gauge,
      atMs: runAtMs,
      usual: usualOf(passed, state.gauge),
    });
  }, [kept, passed, runAtMs]);
  return useMemo(() => {
    const evidence: Evidence[] = [...ofRun];
    const entries = walk.state?.entries ?? [];
    const answers = clockAnswers(entries);
    // What was taken back here does not come in again by what the server had of it.
    const inVisit = walk.state?.known ?? new Map<string, unknown>();
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
    evidence.push(...evidenceOfFound(found.all.filter(({ id }) => !inVisit.has(id))));
    units.forEach(({ parts = [] }, unit) => {
      for (const { partId, fittedOn, mendedAtMs } of parts) {
        // A job knows the minute; what was only written down counts to the end of its day.
        const byDay = fittedOn === undefined ? null : Date.parse(fittedOn) + DAY_MS;
        const atMs = mendedAtMs ?? byDay;
        if (atMs === null) continue;
        evidence.push({ kind: 'repair', atMs, unit, part: partId });
      }
    });
    return {
      evidence: stillCounts(evidence, runAtMs, sound?.startedAtMs ?? null),
      run: runId !== null && runAtMs !== null ? { id: runId, atMs: runAtMs } : null,
      ready:
        here.ready &&
        found.ready &&
        (runs.data ?? runs.error) !== undefined &&
        (own !== null || newest === null || (record.data ?? record.error) !== undefined),
    };
  }, [
    found,
    here.ready,
    newest,
    ofRun,
    own,
    record.data,
    record.error,
    runAtMs,
    runId,
    runs.data,
    runs.error,
    sound,
    units,
    walk.state,
  ]);
}

/** The newest closed run of a unit that this device keeps. */
function useClosedHere(unitId: string) {
  const me = useMe();
  const [found, setFound] = useState<{
    ready: boolean;
    run: { id: string; atMs: number; header: unknown; facts: unknown } | null;
  }>({ ready: false, run: null });
  useEffect(() => {
    let isMine = true;
    const show = (kept: KeptLog | null) => {
      if (!isMine) return;
      const run = kept && {
        id: kept.log.id,
        atMs: kept.log.header.startedAtMs - (kept.log.header.offsetMs ?? 0),
        header: kept.log.header,
        facts: kept.rows.map(({ fact }) => fact),
      };
      setFound({ ready: true, run });
    };
    closedRunOf(me, unitId).then(show, () => show(null));
    return () => {
      isMine = false;
    };
  }, [me, unitId]);
  return found;
}

/** What was found at each unit of a rig, as far as it is of the rig as it is coupled now. */
export function useFoundOfAll(units: readonly Unit[]) {
  // No rig has more units than these.
  const first = useFound(units[0]?.id ?? null);
  const second = useFound(units[1]?.id ?? null);
  const third = useFound(units[2]?.id ?? null);
  const fourth = useFound(units[3]?.id ?? null);
  return useMemo(() => {
    const each = [first, second, third, fourth].slice(0, units.length);
    return {
      ready: each.every(({ data, error }) => (data ?? error) !== undefined),
      // A check is called by where its unit stands in the rig: one that was made on a unit alone is of another rig.
      all: each.flatMap(({ data = [] }, at) =>
        data.filter(
          ({ evidence }) => evidence?.kind !== 'check' || evidence.checkId.startsWith(`${at}/`),
        ),
      ),
    };
  }, [first, second, third, fourth, units.length]);
}
