import { View } from 'react-native';
import Svg, { G, Path, Rect } from 'react-native-svg';
import type { DeviceState } from '@keen-bleed/core/twin';
import { usePalette } from '../theme/usePalette';
import { Txt } from '../ui/Txt';

export type { DeviceState };

/** A valve on its line: full where it is on, hollow where it is off, barred where it holds. */
export function DeviceSign({ x, y, state }: { x: number; y: number; state: DeviceState }) {
  const palette = usePalette();
  return (
    <G>
      <Rect
        x={x - 5}
        y={y - 5}
        width={10}
        height={10}
        fill={state === 'on' ? palette.ink : palette.ground}
        stroke={palette.ink}
        strokeWidth={1.5}
      />
      {state === 'hold' ? (
        <Path d={`M${x - 5} ${y}h10`} stroke={palette.ink} strokeWidth={3} />
      ) : null}
    </G>
  );
}

const STATES = [
  { state: 'on', says: 'open, or applying' },
  { state: 'off', says: 'shut, or letting go' },
  { state: 'hold', says: 'holding' },
] as const;

/** What the signs of valves mean. */
export function DeviceKey() {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', columnGap: 16 }}>
      {STATES.map(({ state, says }) => (
        <View key={state} style={{ flexDirection: 'row', alignItems: 'center', gap: 8 }}>
          <Svg width={14} height={14} aria-hidden>
            <DeviceSign x={7} y={7} state={state} />
          </Svg>
          <Txt as="small" tone="quiet">
            {says}
          </Txt>
        </View>
      ))}
    </View>
  );
}
