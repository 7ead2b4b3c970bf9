import type { OpenFailure, Unit, YardRow } from '@keen-bleed/contract';
import { sayFailure } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useYard } from '../data/useRecords';
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
import { usePoints } from './usePoints';

/** What has failed on a unit and was not proven right since; a lead may close one with a written reason. */
export function OpenFailures({ unit }: { unit: Unit }) {
  const me = useMe();
  const { data, mutate } = useYard();
  const [closing, setClosing] = useState<OpenFailure | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const failures = failuresOf(data?.find((row) => row.unit.id === unit.id));
  const points = usePoints(
    unit,
    failures.map(({ key }) => key),
  );
  if (failures.length === 0) return null;
  const close = async ({ runId, key }: OpenFailure, reason: string) => {
    setClosing(null);
    try {
      await mutate(await ask<YardRow[]>('POST', '/api/failures/close', { runId, key, reason }), {
        revalidate: false,
      });
      setTrouble(null);
    } catch (error) {
      setTrouble(asProblem(error).message);
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
  onClose: (() => void) | null;
}

function FailureLine({ failure, told, onClose }: FailureLineProps) {
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
