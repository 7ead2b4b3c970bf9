import { entryTitles, entryWords, visitKind } from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayMinute } from '../data/when';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { deletePractice, usePracticeVisits } from './practiceVisits';

/** A visit on a rig in the Bay, as it was done. */
export function PracticeVisitScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const visit = usePracticeVisits(useMe().personId).find(({ header }) => header.id === id);
  if (!visit) {
    return (
      <Screen title="Practice">
        <Notice
          title="This practice is not on this device"
          text="It was made on another device, or deleted."
          action={{ title: 'To the Bay', onPress: () => router.push('/bay') }}
        />
      </Screen>
    );
  }
  const { entries } = visitKind.fold(visit.header, visit.facts).state;
  return (
    <Screen
      title={visit.title}
      lead={`Practice in the Bay, ${sayMinute(visit.header.startedAtMs)} · kept on this device only`}
    >
      {visit.ending ? <Txt as="bodyBold">{visit.ending}</Txt> : null}
      <View role="list" aria-label="What was done">
        {entries.map((entry) => (
          <View key={entry.id} role="listitem">
            <Rule />
            <View style={{ paddingVertical: space.near }}>
              <Txt as="bodyBold">
                {entry.kind === 'check'
                  ? entry.title
                  : entryTitles[entry.kind === 'seen' ? 'note' : entry.kind]}
              </Txt>
              <Txt>{entryWords(entry)}</Txt>
            </View>
          </View>
        ))}
        <Rule />
      </View>
      <View style={{ flexDirection: 'row', gap: space.near }}>
        <Button title="To the Bay" manner="main" onPress={() => router.push('/bay')} />
        <Button
          title="Delete"
          manner="danger"
          onPress={() => {
            deletePractice(visit.header.id);
            router.push('/bay');
          }}
        />
      </View>
    </Screen>
  );
}
