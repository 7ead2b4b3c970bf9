import type { PressureUnit } from '@keen-bleed/contract';
import { View } from 'react-native';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Choice } from '../ui/Choice';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import { cabControls } from './cabControls';
import type { Bay } from './useBay';

/** Pedal, hand valve, dash controls and lamps: what stands beside the ladder. The first control has a row of its own. */
export function BayControls({ bay, unit }: { bay: Bay; unit: PressureUnit }) {
  const { frame, rig } = bay;
  return (
    <>
      {cabControls(bay, unit)
        .slice(1)
        .map((control) => (
          <Choice key={control.label} {...control} />
        ))}
      {rig.hasShopAir ? null : (
        <View role="status" style={{ gap: space.hair }}>
          <Lamp on={frame.warning} alarm title="low-air warning" otherwise="no warning" />
          <Lamp on={frame.stopLamp} title="stop lamps on" otherwise="stop lamps off" />
          <Lamp on={frame.purging} title="dryer blows" otherwise="dryer quiet" />
        </View>
      )}
    </>
  );
}

interface LampProps {
  on: boolean;
  /** It says that something is wrong. */
  alarm?: boolean;
  title: string;
  otherwise: string;
}

function Lamp({ on, alarm = false, title, otherwise }: LampProps) {
  const palette = usePalette();
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near, minHeight: 24 }}>
      <View style={{ width: 18 }}>
        {!on ? null : alarm ? (
          <VerdictShape verdict="fail" />
        ) : (
          <View style={{ width: 12, height: 12, borderRadius: 6, backgroundColor: palette.ink }} />
        )}
      </View>
      <Txt as={on ? 'bodyBold' : 'body'} tone={on ? 'ink' : 'quiet'}>
        {on ? title : otherwise}
      </Txt>
    </View>
  );
}
