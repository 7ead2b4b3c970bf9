import { View } from 'react-native';
import { space } from '../theme/space';
import { Choice } from '../ui/Choice';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import { cabControls } from './cabControls';
import type { Bay } from './useBay';

/** Key, throttle, pedal, hand valve, dash controls and lamps. */
export function BayControls({ bay }: { bay: Bay }) {
  const { frame, rig } = bay;
  return (
    <>
      {cabControls(bay).map((control) => (
        <Choice key={control.label} {...control} />
      ))}
      {rig.hasEngine ? (
        <View role="status" style={{ gap: space.hair }}>
          <Lamp on={frame.warning} title="low-air warning" otherwise="no warning" />
          <Lamp on={frame.stopLamp} title="stop lamps on" otherwise="stop lamps off" />
          <Lamp on={frame.purging} title="dryer blows" otherwise="dryer quiet" />
        </View>
      ) : null}
    </>
  );
}

function Lamp({ on, title, otherwise }: { on: boolean; title: string; otherwise: string }) {
  return (
    <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near, minHeight: 24 }}>
      <View style={{ width: 18 }}>{on ? <VerdictShape verdict="fail" /> : null}</View>
      <Txt as={on ? 'bodyBold' : 'body'} tone={on ? 'ink' : 'quiet'}>
        {on ? title : otherwise}
      </Txt>
    </View>
  );
}
