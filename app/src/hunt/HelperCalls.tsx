import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Txt } from '../ui/Txt';

/** What is called to whoever sits in the cab: the words, and whether the pedal is down now. */
export function HelperCalls() {
  const palette = usePalette();
  const [down, setDown] = useState(false);
  return (
    <View
      style={{ borderWidth: 2, borderColor: palette.edge, padding: space.step, gap: space.near }}
    >
      <Txt as="smallBold">
        {down ? 'The pedal is down. When you are done, call:' : 'Call to the cab:'}
      </Txt>
      <Txt as="pad" live="polite">
        {down ? '“Release.”' : '“Press and hold.”'}
      </Txt>
      <Button
        size="glove"
        title={down ? 'Called: it is up' : 'Called: it is down'}
        onPress={() => setDown(!down)}
      />
    </View>
  );
}
