import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from './Button';
import { Txt } from './Txt';

interface NoticeProps {
  title: string;
  text?: string;
  /** `trouble` asks for something to be done. */
  manner?: 'plain' | 'trouble';
  action?: { title: string; onPress: () => void };
}

/** Something the screen has to say of itself: nothing here yet, not reachable, not sent. */
export function Notice({ title, text, manner = 'plain', action }: NoticeProps) {
  const palette = usePalette();
  return (
    <View
      role={manner === 'trouble' ? 'alert' : 'status'}
      style={{
        borderLeftWidth: 4,
        borderLeftColor: manner === 'trouble' ? palette.fail : palette.edge,
        paddingLeft: space.step,
        paddingVertical: space.hair,
        gap: space.near,
        alignItems: 'flex-start',
      }}
    >
      <Txt as="bodyBold">{title}</Txt>
      {text ? <Txt tone="quiet">{text}</Txt> : null}
      {action ? <Button title={action.title} onPress={action.onPress} /> : null}
    </View>
  );
}
