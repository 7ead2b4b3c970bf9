import { sayClockAhead } from '@keen-bleed/core';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';
import { useClockAhead } from './useMeasuredClock';

/** From here on a device's clock is worth a word to whoever holds it, ms. */
const WORTH_SAYING_MS = 120_000;

/** Says that this device's clock is wrong, above every screen, until it is set right. */
export function ClockNotice() {
  const aheadMs = useClockAhead();
  const palette = usePalette();
  if (aheadMs === null || Math.abs(aheadMs) < WORTH_SAYING_MS) return null;
  return (
    <View
      role="status"
      style={{
        paddingHorizontal: space.gap,
        paddingVertical: space.near,
        borderBottomWidth: 2,
        borderBottomColor: palette.fail,
      }}
    >
      <Txt as="small">
        <Txt as="smallBold">{`This device’s clock is ${sayClockAhead(aheadMs)}. `}</Txt>
        Holds are timed right all the same; set it right before the next run.
      </Txt>
    </View>
  );
}
