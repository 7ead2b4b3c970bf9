import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { speak } from '../ui/speak';
import { Txt } from '../ui/Txt';
import { CALLS } from './pedalWords';
import { useCaller, type Heard } from './useCaller';

const HEARD: Readonly<Record<Exclude<Heard, 'alone'>, string>> = {
  shown: 'The helper’s phone shows it.',
  'on its way': 'On its way to the helper’s phone.',
  lost: 'The helper’s phone has lost touch: call it out.',
};

/** What is called to whoever holds the pedal: aloud, and on the helper's phone where there is one. */
export function HelperCalls({ unitId }: { unitId: string }) {
  const palette = usePalette();
  const { call, heard, say } = useCaller(unitId);
  const [aloud, setAloud] = useState(true);
  const next = call === 'press' ? 'release' : 'press';
  return (
    <View
      style={{ borderWidth: 2, borderColor: palette.edge, padding: space.step, gap: space.near }}
    >
      <Txt as="smallBold">
        {call === 'press' ? 'The pedal is down. When you are done, call:' : 'Call to the cab:'}
      </Txt>
      <Txt as="pad" live="polite">
        {`“${CALLS[next]}.”`}
      </Txt>
      <View style={{ flexDirection: 'row', gap: space.near }}>
        <Button
          size="glove"
          style={{ flex: 1 }}
          title={next === 'press' ? 'Call: press' : 'Call: release'}
          onPress={() => {
            if (aloud) speak(CALLS[next]);
            say(next);
          }}
        />
        <Button
          size="glove"
          title={aloud ? 'Aloud' : 'Silent'}
          label={aloud ? 'Calls are spoken aloud: make them silent' : 'Speak calls aloud'}
          onPress={() => setAloud(!aloud)}
        />
      </View>
      {heard === 'alone' ? (
        <Txt as="small" tone="quiet">
          No helper’s phone listens. On it, open this page and press:
        </Txt>
      ) : (
        <Txt as="smallBold" tone={heard === 'lost' ? 'fail' : 'ink'} live="polite">
          {HEARD[heard]}
        </Txt>
      )}
      <LinkTo to={`/unit/${unitId}/pedal`}>
        <Txt as="bodyBold" tone="accent">
          I am on the pedal
        </Txt>
      </LinkTo>
    </View>
  );
}
