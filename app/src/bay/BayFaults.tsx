import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Pick } from '../ui/Pick';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import type { HowBad } from './bayProtocol';
import type { Bay } from './useBay';

const HOW_BAD = [
  { value: 'slight', title: 'slight' },
  { value: 'plain', title: 'plain' },
  { value: 'bad', title: 'bad' },
] as const;

/** Sets a fault openly, now, as bad as wanted. */
export function BayFaults({ bay }: { bay: Bay }) {
  const titles = bay.rig.faults.map(({ part, title }) => `${part}: ${title}`);
  const [title, setTitle] = useState(titles[0] ?? '');
  const [howBad, setHowBad] = useState<HowBad>('plain');
  const id = bay.rig.faults[titles.indexOf(title)]?.id;
  const isSet = bay.frame.faults.includes(title);
  return (
    <View style={{ gap: space.step }}>
      <Txt as="heading" heading={2}>
        What is wrong with it
      </Txt>
      <View style={{ flexDirection: 'row' }}>
        <Pick label="Fault" options={titles} value={title} onChange={setTitle} />
      </View>
      <View
        style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near, alignItems: 'center' }}
      >
        <Segments label="How bad" options={HOW_BAD} value={howBad} onChange={setHowBad} />
        <Button
          title={isSet ? 'Set' : 'Set it now'}
          disabled={isSet || !id}
          onPress={() => {
            if (id) bay.move({ kind: 'fault', id, howBad });
          }}
        />
      </View>
      <View role="list" aria-label="Faults set">
        {bay.frame.faults.length === 0 ? (
          <Txt tone="quiet">Nothing is wrong with it yet.</Txt>
        ) : (
          bay.frame.faults.map((fault) => (
            <View key={fault} role="listitem">
              <Txt>{fault}</Txt>
            </View>
          ))
        )}
      </View>
    </View>
  );
}
