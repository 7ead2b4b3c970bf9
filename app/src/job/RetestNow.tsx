import {
  readable,
  retestRun,
  shortOf,
  unitTitle,
  type Owed,
  type RetestRun,
  type RigUnderTest,
} from '@keen-bleed/core';
import { checksOfRetest, retestByChecks, type Check } from '@keen-bleed/core/checks';
import { router } from 'expo-router';
import { useMemo } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { checksNow, useChecks } from '../air/useChecks';
import { inDrawing } from '../air/useDrawn';
import { coupled } from '../data/coupled';
import { useRigs, useRuleSets, useUnits } from '../data/useRecords';
import { useWalkRound } from '../parts/useWalkRound';
import { CheckSheet } from '../plan/CheckSheet';
import { sayAnswer } from '../plan/sayAnswer';
import { usePrefs } from '../prefs/prefs';
import { WriteSheet } from '../run/step/WriteSheet';
import { startRun } from '../store/startRun';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { checksMade } from './checksMade';
import type { Tell } from './JobScreen';
import { OwedList } from './OwedList';
import type { SheetNow } from './sheetNow';
import { useExpected } from './useExpected';
import type { LiveJob } from './useJob';

interface RetestNowProps {
  job: LiveJob;
  rig: RigUnderTest;
  tell: Tell | null;
  onSheet: (sheet: SheetNow) => void;
  onTrouble: (text: string | null) => void;
}

/** What is owed again after the work, and the run or the checks that prove it. */
export function RetestNow({ job, rig, tell, onSheet, onTrouble }: RetestNowProps) {
  const me = useMe();
  const { header, state } = job;
  const rules = useRuleSets();
  const left = state.owed.filter(({ passed }) => !passed);
  const checks = useChecks(rig);
  const expected = useExpected(
    rig,
    state.owed.flatMap((each) => checksOfRetest(checks, each).map(({ id }) => id)),
  );
  /** Opens the first check that a retest asks for; where they are still being made, once they are. */
  const measure = async (owed: Owed) => {
    onTrouble(
      checks.length > 0 ? null : 'The checks of this rig are being made. This one opens by itself.',
    );
    try {
      const made = checks.length > 0 ? checks : await checksNow(rig);
      const [first] = checksOfRetest(made, owed);
      if (first) onSheet({ sheet: 'check', owed, check: first });
      onTrouble(first ? null : `This rig has no check for “${owed.title}”.`);
    } catch {
      onTrouble('The checks of this rig could not be made here: press again.');
    }
  };
  const runOn = (on: RigUnderTest, owed: readonly Owed[]) =>
    rules.data ? retestRun(on, owed, [header.id], rules.data, header.made.ruleSetId ?? null) : null;
  const run = runOn(rig, left);
  // A trailer alone has no pedal: what it owes beside is proved on the rig it is coupled in, if it is.
  const missing = left.filter(
    ({ stepId, title }) => stepId !== null && (run === null || run.missing.includes(title)),
  );
  const rigs = useRigs().data;
  const units = useUnits().data;
  const inRig = rigs?.find(({ unitIds }) => unitIds.includes(rig.unit.id)) ?? null;
  const whole = coupled(inRig, units ?? []);
  const runCoupled = whole && missing.length > 0 ? runOn(whole, missing) : null;
  const stillMissing = runCoupled ? runCoupled.missing : missing.map(({ title }) => title);
  const failed = state.owed.some(
    ({ done }) => done?.verdict === 'fail' || shortOf(done?.readings ?? []).length > 0,
  );
  const start = async ({ on }: RetestRun, rigId: string | null) => {
    try {
      const id = await startRun(me, { ...on, rigId });
      router.push(`/run/${id}`);
    } catch {
      onTrouble('This device cannot keep a run. Free some space on it, then try again.');
    }
  };
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        {left.length === 0 ? 'Retested' : 'Retest owed'}
      </Txt>
      {tell && run ? (
        <Button
          title={`Retest: ${run.minutes} minutes`}
          manner="main"
          size="glove"
          onPress={() => void start(run, header.subject.rigId)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {tell && runCoupled && whole ? (
        <Button
          title={`Retest with ${unitTitle(whole.unit)}: ${runCoupled.minutes} minutes`}
          manner={run ? 'plain' : 'main'}
          size="glove"
          onPress={() => void start(runCoupled, inRig?.id ?? null)}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
      {rigs && units && stillMissing.length > 0 ? (
        <Notice
          manner="trouble"
          title={`Not possible as it stands: ${stillMissing.join(', ')}`}
          text={
            whole
              ? 'The rig it stands in cannot show these: couple it to another tractor, then retest.'
              : 'Couple it to any tractor in the yard, then retest.'
          }
        />
      ) : null}
      <OwedList
        owed={state.owed}
        expected={expected}
        onCheck={tell ? (owed) => void measure(owed) : null}
        onAccept={me.role === 'lead' ? (owed) => onSheet({ sheet: 'accept', owed }) : null}
      />
      {failed && tell ? (
        <Button
          title="It did not do what it should: open it again"
          size="glove"
          onPress={() => onSheet({ sheet: 'reopen' })}
          style={{ alignSelf: 'flex-start' }}
        />
      ) : null}
    </View>
  );
}

interface CheckOwedProps {
  job: LiveJob;
  rig: RigUnderTest;
  owed: Owed;
  check: Check;
  tell: Tell | null;
  /** With the next check that the retest asks for, or null after the last. */
  onDone: (next: Check | null) => void;
}

/** One check of a retest: kept in a visit, and judged with the others once all are made. */
export function CheckOwed({ job, rig, owed, check, tell, onDone }: CheckOwedProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const { header } = job;
  const units = useMemo(() => [rig.unit, ...rig.towed], [rig]);
  const walk = useWalkRound(units, header.subject.rigId, 'Retest');
  const checks = useChecks(rig);
  const asked = useMemo(() => checksOfRetest(checks, owed), [checks, owed]);
  const expected = useExpected(
    rig,
    asked.map(({ id }) => id),
  );
  return (
    <CheckSheet
      check={check}
      unit={units[check.unit]}
      onDone={(answer, note, photos) => {
        void (async () => {
          const kept = await walk.say(
            {
              kind: 'check',
              at: { unitId: units[check.unit]?.id ?? rig.unit.id, partId: check.part },
              checkId: check.id,
              title: check.title,
              answer: answer as never,
              said: sayAnswer(answer, check.answer, sayIn),
              ...(note === null ? {} : { note }),
            },
            photos,
          );
          if (!kept) return;
          const made = await checksMade(me, rig.unit.id, header.subject.rigId);
          const sound = expected ?? (await expectedNow(rig, asked));
          const came = made && retestByChecks(rig, asked, made.checks, owed.workMs, sound.answers);
          if (made && came) {
            await tell?.({ kind: 'retested', owedId: owed.id, logId: made.visitId, ...came });
          }
          onDone(asked[asked.findIndex(({ id }) => id === check.id) + 1] ?? null);
        })();
      }}
      onLeave={() => onDone(null)}
    />
  );
}

const expectedNow = (rig: RigUnderTest, asked: readonly Check[]) =>
  inDrawing((drawing) =>
    drawing.expect(
      rig,
      asked.map(({ id }) => id),
    ),
  );

interface AcceptSheetProps {
  owed: Owed;
  onKeep: (facts: readonly Parameters<Tell>[0][]) => void;
  onLeave: () => void;
}

/** A lead takes what cannot be told as passed, in writing. */
export function AcceptSheet({ owed, onKeep, onLeave }: AcceptSheetProps) {
  const { done } = owed;
  if (!done) return null;
  const { owedId, logId, factId, testedAtMs, verdict, said, readings } = done;
  return (
    <WriteSheet
      title={`Take “${owed.title}” as passed`}
      label="Why it is taken as passed"
      doTitle="Take as passed"
      most={300}
      onDone={(accepted) =>
        onKeep([
          {
            kind: 'retested',
            owedId,
            logId,
            ...(factId === undefined ? {} : { factId }),
            ...(testedAtMs === undefined ? {} : { testedAtMs }),
            verdict,
            said,
            readings,
            accepted: readable(accepted),
          },
        ])
      }
      onLeave={onLeave}
    />
  );
}
