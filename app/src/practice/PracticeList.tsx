import { router } from 'expo-router';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayMinute } from '../data/when';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { deletePractice, usePracticeVisits } from './practiceVisits';

/** Practice visits shown: the newest. */
const SHOWN = 5;

/** What was practised on this device, to be read again or deleted. */
export function PracticeList() {
  const visits = usePracticeVisits(useMe().personId);
  if (visits.length === 0) return null;
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Practice
      </Txt>
      <Txt tone="quiet">Kept on this device only. Nothing of it is sent.</Txt>
      <View role="list" aria-label="Practice">
        {visits.slice(0, SHOWN).map(({ header, title, facts, ending }) => (
          <View key={header.id} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                gap: space.near,
                paddingVertical: space.hair,
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt as="bodyBold">{title}</Txt>
                <Txt as="small" tone="quiet">
                  {[
                    sayMinute(header.startedAtMs),
                    `${facts.length} ${facts.length === 1 ? 'check' : 'checks'}`,
                    ending,
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </Txt>
              </View>
              <Button
                title="Read"
                label={`Read the practice on ${title}`}
                onPress={() => router.push(`/practice/${header.id}`)}
              />
              <Button
                title="Delete"
                manner="danger"
                label={`Delete the practice on ${title}`}
                onPress={() => deletePractice(header.id)}
              />
            </View>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
