import type { OpenFailure, Unit, YardRow } from '@keen-bleed/contract';
import { sayFailure } from '@keen-bleed/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRigs, useUnits, useYard } from '../data/useRecords';
import { sayDay } from '../data/when';
import { usePrefs } from '../prefs/prefs';
import { WriteSheet } from '../run/step/WriteSheet';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import { ask, asProblem } from '../wire/api';
import type { Told } from '../air/drawing';
import { failuresOf } from './failuresOf';
import { jobOfFailure } from '../store/newJob';
import { startJob } from '../store/startJob';
import { usePoints } from './usePoints';

/** What has failed on a unit and was not proven right since; a lead may close one with a written reason. */
export function OpenFailures({ unit }: { unit: Unit }) {
  const me = useMe();
  const units = useUnits();
  const rigs = useRigs();
  const { data, mutate } = useYard();
  const [closing, setClosing] = useState<OpenFailure | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const row = data?.find((each) => each.unit.id === unit.id);
  const failures = failuresOf(row);
  const jobFor = (key: string) =>
    (row as Partial<YardRow> | undefined)?.jobs?.find(({ covers }) => covers.includes(key)) ?? null;
  const points = usePoints(
    unit,
    failures.map(({ key }) => key),
  );
  if (failures.length === 0) return null;
  const close = async ({ runId, key }: OpenFailure, reason: string) => {
    setClosing(null);
    try {
      await mutate(await ask('POST', '/api/v1/failures/close', { runId, key, reason }), {
        revalidate: false,
      });
      setTrouble(null);
    } catch (error) {
      setTrouble(asProblem(error).message);
    }
  };
  const open = async (failure: OpenFailure) => {
    // What it was found on with others is opened on all of them; it may be traced to any.
    const rig = rigs.data?.find(
      ({ unitIds }) =>
        unitIds.length === failure.unitIds.length &&
        unitIds.every((id, at) => failure.unitIds[at] === id),
    );
    const coupled = failure.unitIds.flatMap(
      (id) => units.data?.find((each) => each.id === id) ?? [],
    );
    const on = rig && coupled.length === failure.unitIds.length ? coupled : [unit];
    try {
      const [front, ...towed] = on;
      const job = jobOfFailure(failure, [front ?? unit, ...towed], rig?.id ?? null);
      router.push(`/job/${await startJob(me, job)}`);
    } catch {
      setTrouble('This device cannot keep a job. Free some space on it, then try again.');
    }
  };
  return (
    <View style={{ marginTop: space.gap, gap: space.near }}>
      <Txt as="heading" heading={2}>
        Open failures
      </Txt>
      <Txt tone="quiet">
        Each stays until the same thing is tested again in the same state and passes.
      </Txt>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View role="list" aria-label="Open failures">
        {failures.map((failure) => (
          <FailureLine
            key={`${failure.runId} ${failure.key}`}
            failure={failure}
            told={points.get(failure.key) ?? null}
            where={whereFound(failure.key, unit.id)}
            jobId={jobFor(failure.key)?.id ?? null}
            onJob={me.role === 'viewer' ? null : () => void open(failure)}
            onClose={me.role === 'lead' ? () => setClosing(failure) : null}
          />
        ))}
        <Rule />
      </View>
      {closing ? (
        <WriteSheet
          title={`Close “${closing.title}”`}
          label="Why it is no failure"
          doTitle="Close it"
          most={300}
          onDone={(reason) => void close(closing, reason)}
          onLeave={() => setClosing(null)}
        />
      ) : null}
    </View>
  );
}

/** What a leak hunt finds, what is read on the bench, and what the drains tell. */
const LEAK = 'leak';
const WATER = /water|moist|drain/;
const BENCH =
  /cut-in|cut-out|governor|pop-out|park-stays|warning|stop-lamp|anti-compounding|tractor-protection|safety-valve|fail-(primary|secondary|supply)/;

/** Where hands, ears and eyes find what a failure comes from; null where none of the three does. */
function whereFound(key: string, unitId: string): FailureLineProps['where'] {
  if (key.includes(LEAK)) return { to: `/unit/${unitId}/hunt`, title: 'Hunt it' };
  if (WATER.test(key)) return { to: `/unit/${unitId}/water`, title: 'See the drains' };
  return BENCH.test(key) ? { to: `/unit/${unitId}/bench`, title: 'On the bench' } : null;
}

/** Suspects named; the rest are counted. */
const NAMED = 3;

/** What the trade’s table says of a failure, in a line or two. */
function sayTold({ suspects, check }: Told): string {
  const rest = suspects.length - NAMED;
  const named = suspects.slice(0, NAMED).join('; ');
  return `May be: ${named}${rest > 0 ? `; ${rest} more` : ''}. To tell them apart: ${check}`;
}

interface FailureLineProps {
  failure: OpenFailure;
  told: Told | null;
  /** The hunt, the drains or the bench; null where none of them finds it. */
  where: { to: string; title: string } | null;
  /** The job that is to close it, if one is open. */
  jobId: string | null;
  onJob: (() => void) | null;
  onClose: (() => void) | null;
}

function FailureLine({ failure, told, where, jobId, onJob, onClose }: FailureLineProps) {
  const { unit: sayIn } = usePrefs();
  return (
    <View role="listitem">
      <Rule heavy />
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          flexWrap: 'wrap',
          gap: space.step,
          paddingVertical: space.near,
        }}
      >
        <VerdictShape verdict="fail" />
        <View style={{ flex: 1, minWidth: 180 }}>
          <LinkTo to={`/run/${failure.runId}`}>
            <Txt as="bodyBold">{sayFailure(failure, sayIn)}</Txt>
          </LinkTo>
          <Txt as="small" tone="quiet">
            {`since ${sayDay(failure.sinceMs)}${failure.unitIds.length > 1 ? ', found on the coupled rig' : ''}`}
          </Txt>
          {told && told.suspects.length > 0 ? <Txt as="small">{sayTold(told)}</Txt> : null}
        </View>
        {where ? (
          <LinkTo to={where.to} label={`${where.title}: ${failure.title}`}>
            <Txt as="bodyBold" tone="accent">
              {where.title}
            </Txt>
          </LinkTo>
        ) : null}
        {jobId ? (
          <LinkTo to={`/job/${jobId}`} label={`The job for ${failure.title}`}>
            <Txt as="bodyBold" tone="accent">
              Its job
            </Txt>
          </LinkTo>
        ) : onJob ? (
          <Button title="Start a job" label={`Start a job for ${failure.title}`} onPress={onJob} />
        ) : null}
        {onClose ? (
          <Button
            title="Close"
            manner="quiet"
            label={`Close ${failure.title} with a reason`}
            onPress={onClose}
          />
        ) : null}
      </View>
    </View>
  );
}
