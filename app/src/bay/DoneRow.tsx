import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

interface DoneRowProps {
  title: string;
  /** What the newest one gave, in words; null where it was not done. */
  said: string | null;
  does: string;
  /** What stands beside the title. */
  aside?: string | null;
  onDo: () => void;
}

/** One thing of a walk in the Bay: what it gave, and the way to do it. */
export function DoneRow({ title, said, does, aside = null, onDo }: DoneRowProps) {
  return (
    <View role="listitem">
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
          <Txt as="body">{title}</Txt>
          {aside ? (
            <Txt as="smallBold" tone="accent">
              {aside}
            </Txt>
          ) : null}
        </View>
        {said === null ? null : <Txt as="bodyBold">{said}</Txt>}
        <Button
          title={said === null ? does : 'Again'}
          label={`${said === null ? does : `${does} again`}: ${title}`}
          onPress={onDo}
        />
      </View>
    </View>
  );
}
