import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';

/** Rows that are on their way, in the place they will take. */
export function Waiting({ rows = 5 }: { rows?: number }) {
  const palette = usePalette();
  return (
    <View
      role="progressbar"
      aria-label="Loading"
      style={{ gap: space.gap, paddingVertical: space.gap }}
    >
      {Array.from({ length: rows }, (_, row) => (
        <View key={row} style={{ gap: space.near }}>
          <View
            style={{
              height: 18,
              width: `${46 - (row % 3) * 6}%`,
              backgroundColor: palette.raised,
            }}
          />
          <View
            style={{
              height: 14,
              width: `${74 - (row % 2) * 14}%`,
              backgroundColor: palette.raised,
            }}
          />
        </View>
      ))}
    </View>
  );
}
