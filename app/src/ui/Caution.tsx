import { View } from 'react-native';
import Svg, { Path } from 'react-native-svg';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from './Txt';

/** A danger, before the step that brings it: ink turned ground, so that nothing else on a screen looks so. */
export function Caution({ lines, narrow = false }: { lines: readonly string[]; narrow?: boolean }) {
  const palette = usePalette();
  if (lines.length === 0) return null;
  return (
    <View
      role="note"
      aria-label="Caution"
      style={{
        backgroundColor: palette.ink,
        padding: space.step,
        flexDirection: narrow ? 'column' : 'row',
        gap: narrow ? space.near : space.step,
      }}
    >
      <Svg width={26} height={26} viewBox="0 0 24 24" aria-hidden>
        <Path
          d="M12 2 23 21H1z"
          fill="none"
          stroke={palette.ground}
          strokeWidth={2.4}
          strokeLinejoin="round"
        />
        <Path d="M12 8.5v6" stroke={palette.ground} strokeWidth={2.6} />
        <Path d="M12 16.6v2.2" stroke={palette.ground} strokeWidth={2.6} />
      </Svg>
      <View style={{ flexShrink: 1, gap: space.near }}>
        {lines.map((line) => (
          <Txt key={line} as="bodyBold" tone="ground">
            {line}
          </Txt>
        ))}
      </View>
    </View>
  );
}
