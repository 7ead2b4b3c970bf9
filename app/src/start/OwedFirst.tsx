import { retestRun, unitsOf, type RigUnderTest } from '@keen-bleed/core';
import { router } from 'expo-router';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRuleSets } from '../data/useRecords';
import { useBoard } from '../jobs/useBoard';
import { startRun } from '../store/startRun';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

interface OwedFirstProps {
  rig: RigUnderTest;
  rigId: string | null;
  onTrouble: (text: string) => void;
}

/** What repairs owe on a rig, before a run of it is started: just that can be asked, or everything below. */
export function OwedFirst({ rig, rigId, onTrouble }: OwedFirstProps) {
  const me = useMe();
  const { rows } = useBoard();
  const rules = useRuleSets();
  const ids = new Set(unitsOf(rig).map(({ id }) => id));
  const jobs = (rows ?? []).filter(
    ({ closedAtMs, owed, unitIds }) =>
      closedAtMs === null && owed.length > 0 && unitIds.some((id) => ids.has(id)),
  );
  const owed = [
    ...new Map(jobs.flatMap((job) => job.owed.map((each) => [each.id, each] as const))).values(),
  ];
  const run = rules.data
    ? retestRun(
        rig,
        owed,
        jobs.map(({ id }) => id),
        rules.data,
        jobs.find(({ ruleSetId }) => ruleSetId)?.ruleSetId ?? null,
      )
    : null;
  if (!run) return null;
  const start = async () => {
    try {
      router.replace(`/run/${await startRun(me, { ...run.on, rigId })}`);
    } catch {
      onTrouble('This device cannot keep a run. Free some space on it, then try again.');
    }
  };
  return (
    <View style={{ gap: space.near, marginTop: space.near }}>
      <Rule heavy />
      <Txt as="heading" heading={2}>
        Retest owed
      </Txt>
      <Txt>{owed.map(({ title }) => title).join('; ')}</Txt>
      <Button
        title={`Retest: ${run.minutes} minutes`}
        manner="main"
        size="glove"
        onPress={() => void start()}
        style={{ alignSelf: 'flex-start' }}
      />
      <Txt as="small" tone="quiet">
        Only what is owed. It closes the failures it was owed for; it is no whole test.
      </Txt>
      <Rule heavy />
    </View>
  );
}
