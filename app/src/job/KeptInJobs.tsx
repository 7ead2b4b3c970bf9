import type { Outcome, RunHeader, YardRow } from '@keen-bleed/contract';
import {
  correctedMs,
  hasWorkedOn,
  isAfterWork,
  provesItsSteps,
  retestOutcome,
  rigTitle,
  unitsOf,
  type JobState,
  type Owed,
  type RetestOutcome,
} from '@keen-bleed/core';
import { useEffect, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { jobsOf } from '../data/standingOf';
import { useUnitRuns, useYard } from '../data/useRecords';
import type { Writer } from '../store/kept';
import { recordIn } from '../store/recordIn';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import { BeforeAfter } from './BeforeAfter';
import { useExpected } from './useExpected';
import { useJob } from './useJob';

interface KeptInJobsProps {
  header: RunHeader;
  outcome: Outcome;
  /** It is closed, and by whoever looks. */
  mayKeep: boolean;
}

/** What a run proves of repairs: each job that owed one of its steps, and the way to keep it there. */
export function KeptInJobs({ header, outcome, mayKeep }: KeptInJobsProps) {
  const yard = useYard();
  const units = unitsOf(header.made);
  const owing = units.flatMap(({ id }) =>
    jobsOf(yard.data?.find((row: YardRow) => row.unit.id === id)).filter(({ owed }) =>
      owed.some((owedId) => header.made.steps.some((step) => `step:${step.id}` === owedId)),
    ),
  );
  const ids = [...new Set([...(header.made.retestOf ?? []), ...owing.map(({ id }) => id)])];
  return (
    <>
      {ids.map((id) => (
        <KeptIn
          key={id}
          jobId={id}
          header={header}
          outcome={outcome}
          mayKeep={mayKeep}
          atOnce={header.made.retestOf?.includes(id) ?? false}
        />
      ))}
    </>
  );
}

interface KeptInProps extends KeptInJobsProps {
  jobId: string;
  /** The run was started as the retest of this job: what it came to is kept without being asked. */
  atOnce: boolean;
}

function KeptIn({ jobId, header, outcome, mayKeep, atOnce }: KeptInProps) {
  const me = useMe();
  const { job } = useJob(jobId);
  const live = job === 'loading' || job === 'elsewhere' ? null : job;
  const runs = useUnitRuns(header.made.unit.id);
  const rig = useMemo(() => ({ unit: header.made.unit, towed: header.made.towed }), [header.made]);
  const expected = useExpected(live ? rig : null, []);
  const [trouble, setTrouble] = useState<string | null>(null);
  const proven = useMemo(
    () => (live ? provenBy(live.state, header, outcome, runs.data ?? [], expected?.figures) : []),
    [expected, header, live, outcome, runs.data],
  );
  // What was kept once is not kept again because somebody looks at an older run, and an ended job is left alone.
  const open = useMemo(
    () =>
      live === null || live.state.closed
        ? []
        : proven.filter(
            ({ owed }) =>
              !live.facts.some(
                (fact) =>
                  fact.kind === 'retested' && fact.logId === header.id && fact.owedId === owed.id,
              ),
          ),
    [header.id, live, proven],
  );
  const keep = useRef(oneAtOnce());
  const who = useMemo(() => ({ shopId: me.shopId, personId: me.personId }), [me]);
  // What is foretold goes with the reading, so it is waited for.
  const isReady =
    mayKeep && atOnce && open.length > 0 && expected !== null && runs.data !== undefined;
  useEffect(() => {
    if (isReady)
      void keep.current(who, jobId, header.id, startedByServer(header), open).then(setTrouble);
  }, [header, isReady, jobId, open, who]);
  if (!live || proven.length === 0) return null;
  const failed = proven.some(({ came }) => came.verdict === 'fail');
  return (
    <View>
      <Rule heavy={failed} />
      <View style={{ gap: space.near, paddingVertical: space.near }}>
        <LinkTo to={`/job/${jobId}`}>
          <Txt as="bodyBold">{`Retest for the job: ${live.header.made.found}`}</Txt>
        </LinkTo>
        <View role="list" aria-label="Retests">
          {proven.map(({ owed, came }) => (
            <View
              key={owed.id}
              role="listitem"
              style={{ flexDirection: 'row', alignItems: 'center', gap: space.step }}
            >
              <VerdictShape verdict={came.verdict} />
              <Txt style={{ flex: 1 }}>{`${owed.title}: ${came.said}`}</Txt>
            </View>
          ))}
        </View>
        <BeforeAfter readings={proven.flatMap(({ came }) => came.readings)} />
        {trouble ? <Notice manner="trouble" title={trouble} /> : null}
        {open.length > 0 && mayKeep && !atOnce ? (
          <Button
            title="Keep it in the job"
            onPress={() =>
              void keep
                .current(who, jobId, header.id, startedByServer(header), open)
                .then(setTrouble)
            }
            style={{ alignSelf: 'flex-start' }}
          />
        ) : open.length === 0 ? (
          <Txt as="small" tone="quiet">
            Kept in the job.
          </Txt>
        ) : null}
      </View>
    </View>
  );
}

/** When a run was begun, by the server’s clock as far as its device had measured it. */
const startedByServer = ({ startedAtMs, offsetMs }: RunHeader): number =>
  correctedMs({ atMs: startedAtMs, offsetMs });

interface Proven {
  owed: Owed;
  came: RetestOutcome;
}

/** Keeps retests in their job, each once, however often it is asked; gives what is wrong, or null. */
function oneAtOnce() {
  let isKeeping = false;
  // The screen hears of an entry a moment after it is kept: what it still takes for open then is not kept again.
  const kept = new Set<string>();
  return async (
    who: Writer,
    jobId: string,
    runId: string,
    testedAtMs: number,
    open: readonly Proven[],
  ): Promise<string | null> => {
    if (isKeeping) return null;
    isKeeping = true;
    try {
      for (const { owed, came } of open) {
        if (kept.has(owed.id)) continue;
        const problem = await recordIn(who, jobId, {
          kind: 'retested',
          owedId: owed.id,
          logId: runId,
          testedAtMs,
          verdict: came.verdict,
          said: came.said.slice(0, 300),
          readings: came.readings,
        });
        if (problem) return problem;
        kept.add(owed.id);
      }
      return null;
    } catch {
      return 'This device could not keep that. Free some space on it, then try again.';
    } finally {
      isKeeping = false;
    }
  };
}

/** The retests of a job that a run made after the work was done, each with what it came to. */
function provenBy(
  state: JobState,
  header: RunHeader,
  outcome: Outcome,
  runs: readonly {
    id: string;
    rigTitle: string;
    startedAtMs: number;
    figures: readonly { id: string; value: number | null }[];
  }[],
  expected: Parameters<typeof retestOutcome>[3],
): Proven[] {
  if (!provesItsSteps(header.made, outcome)) return [];
  const testedMs = startedByServer(header);
  const firstWorkMs = Math.min(...state.owed.map(({ workMs }) => workMs));
  const before = runs
    // What a rig lost is no measure of its unit alone.
    .filter(
      ({ id, startedAtMs, rigTitle: of }) =>
        id !== header.id && startedAtMs < firstWorkMs && of === rigTitle(header.made),
    )
    .flatMap(({ figures }) => figures) as Parameters<typeof retestOutcome>[2];
  const tested = unitsOf(header.made).map(({ id }) => id);
  return state.owed.flatMap((owed) => {
    const came =
      owed.stepId === null ||
      !isAfterWork(owed.workMs, testedMs) ||
      !hasWorkedOn(owed.workedOn, tested)
        ? null
        : retestOutcome(outcome, owed.stepId, before, expected ?? {}, header.made.unit.gauge.unit);
    return came ? [{ owed, came }] : [];
  });
}
