import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Txt } from './Txt';

interface ScreenProps {
  title: string;
  /** Stands at the right of the title. */
  aside?: ReactNode;
  /** One quiet line under the title. */
  lead?: ReactNode;
  children: ReactNode;
  /** Widest the contents get, px. */
  width?: number;
}

/** A screen that scrolls under its title. */
export function Screen({ title, aside, lead, children, width = 1060 }: ScreenProps) {
  const wide = useWide();
  return (
    <ScrollView
      role="main"
      style={{ flex: 1 }}
      contentContainerStyle={{
        padding: wide ? space.wide : space.gap,
        paddingBottom: space.far,
      }}
    >
      <View style={{ width: '100%', maxWidth: width, gap: space.near }}>
        <View
          style={{
            flexDirection: 'row',
            alignItems: 'center',
            justifyContent: 'space-between',
            gap: space.step,
            flexWrap: 'wrap',
          }}
        >
          <Txt as="screenTitle" heading={1}>
            {title}
          </Txt>
          {aside}
        </View>
        {typeof lead === 'string' ? <Txt tone="quiet">{lead}</Txt> : lead}
        {children}
      </View>
    </ScrollView>
  );
}
