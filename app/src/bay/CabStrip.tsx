import { ScrollView, View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Choice } from '../ui/Choice';
import { Txt } from '../ui/Txt';
import type { CabControl } from './cabControls';

interface CabStripProps {
  label?: string;
  controls: readonly CabControl[];
  /** What the cab tells beside the needle, now. */
  told: readonly string[];
}

/** The cab in one row, over a run that is made in it: it moves sideways where there is no room. */
export function CabStrip({ label = 'The cab', controls, told }: CabStripProps) {
  const palette = usePalette();
  return (
    <View
      role="region"
      aria-label={label}
      style={{ borderBottomWidth: 1, borderBottomColor: palette.edge }}
    >
      <ScrollView
        horizontal
        tabIndex={0}
        contentContainerStyle={{
          gap: space.gap,
          paddingHorizontal: space.gap,
          paddingVertical: space.near,
          alignItems: 'flex-end',
        }}
      >
        {controls.map((control) => (
          <Choice key={control.label} {...control} />
        ))}
      </ScrollView>
      <View role="status" style={{ paddingHorizontal: space.gap, paddingBottom: space.hair }}>
        <Txt as="small" tone="quiet" lines={1}>
          {told.length > 0 ? told.join(' · ') : 'no warning'}
        </Txt>
      </View>
    </View>
  );
}
