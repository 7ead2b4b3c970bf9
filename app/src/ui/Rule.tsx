import { View } from 'react-native';
import { usePalette } from '../theme/usePalette';

/** A line between things; the heavy one says out of service. */
export function Rule({ heavy = false }: { heavy?: boolean }) {
  const palette = usePalette();
  return (
    <View
      aria-hidden
      style={{
        height: heavy ? 3 : 1,
        backgroundColor: heavy ? palette.fail : palette.rule,
        alignSelf: 'stretch',
      }}
    />
  );
}
