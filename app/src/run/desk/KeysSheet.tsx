import { View } from 'react-native';
import { space } from '../../theme/space';
import { Button } from '../../ui/Button';
import { Sheet } from '../../ui/Sheet';
import { Txt } from '../../ui/Txt';
import { keyHelp } from './useRunKeys';

/** The keys of a run, listed. */
export function KeysSheet({ onLeave }: { onLeave: () => void }) {
  return (
    <Sheet title="Keys" at="middle" onLeave={onLeave}>
      <View style={{ gap: space.near }}>
        {keyHelp.map(([key, does]) => (
          <View key={key} style={{ flexDirection: 'row', gap: space.gap }}>
            <Txt as="bodyBold" style={{ width: 160 }}>
              {key}
            </Txt>
            <Txt tone="quiet" style={{ flex: 1 }}>
              {does}
            </Txt>
          </View>
        ))}
      </View>
      <Button title="Back" onPress={onLeave} />
    </Sheet>
  );
}
