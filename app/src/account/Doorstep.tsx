import type { ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import Svg, { Line, Rect } from 'react-native-svg';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';

/** The screens before sign-in: the name, a ladder beside it, and what has to be filled in. */
export function Doorstep({
  title,
  lead,
  children,
}: {
  title: string;
  lead: string;
  children: ReactNode;
}) {
  const palette = usePalette();
  return (
    <ScrollView
      role="main"
      style={{ flex: 1, backgroundColor: palette.ground }}
      contentContainerStyle={{
        flexGrow: 1,
        alignItems: 'center',
        justifyContent: 'center',
        padding: space.gap,
      }}
    >
      <View
        style={{
          width: '100%',
          maxWidth: 420,
          flexDirection: 'row',
          gap: space.wide,
        }}
      >
        <Svg width={44} height={300} aria-hidden>
          <Rect x={4} y={0} width={3} height={300} fill={palette.ink} />
          <Rect x={34} y={0} width={3} height={300} fill={palette.ink} />
          {[20, 85, 150, 215, 280].map((y) => (
            <Line key={y} x1={4} x2={37} y1={y} y2={y} stroke={palette.ink} strokeWidth={2} />
          ))}
          <Rect x={0} y={98} width={44} height={6} fill={palette.accent} />
        </Svg>
        <View style={{ flex: 1, gap: space.gap }}>
          <View style={{ gap: space.hair }}>
            <Txt as="screenTitle" heading={1}>
              {title}
            </Txt>
            <Txt tone="quiet">{lead}</Txt>
          </View>
          {children}
        </View>
      </View>
    </ScrollView>
  );
}
