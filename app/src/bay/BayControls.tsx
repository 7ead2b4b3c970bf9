import { useState } from 'react';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';
import type { Bay } from './useBay';

const ENGINE = [
  { value: '0', title: 'off' },
  { value: '650', title: 'idle' },
  { value: '1400', title: '1,400' },
  { value: '2100', title: '2,100' },
] as const;
const PEDAL = [
  { value: '0', title: 'up' },
  { value: '20', title: '20' },
  { value: '60', title: '60' },
  { value: '150', title: 'full' },
] as const;
const KNOB = [
  { value: 'in', title: 'in' },
  { value: 'out', title: 'out' },
] as const;
const HAND = [
  { value: '0', title: 'off' },
  { value: '40', title: '40' },
  { value: '150', title: 'full' },
] as const;

/** Key, throttle, pedal, hand valve, dash controls and lamps. */
export function BayControls({ bay }: { bay: Bay }) {
  const { frame, rig, move } = bay;
  const [pedal, setPedal] = useState<(typeof PEDAL)[number]['value']>('0');
  const [hand, setHand] = useState<(typeof HAND)[number]['value']>('0');
  const [shop, setShop] = useState<'in' | 'out'>('out');
  const engine = ENGINE.find(({ value }) => Number(value) === frame.rpm)?.value ?? '0';
  return (
    <>
      {rig.hasEngine ? (
        <Control
          label="Engine"
          options={ENGINE}
          value={engine}
          onChange={(value) => move({ kind: 'engine', rpm: Number(value) })}
        />
      ) : (
        <Control
          label="Shop air"
          options={[
            { value: 'in', title: 'on' },
            { value: 'out', title: 'off' },
          ]}
          value={shop}
          onChange={(value) => {
            setShop(value);
            move({ kind: 'open', way: 'shop valve', share: value === 'in' ? 1 : 0 });
          }}
        />
      )}
      {rig.hasEngine ? (
        <Control
          label="Pedal, psi asked"
          options={PEDAL}
          value={pedal}
          onChange={(value) => {
            setPedal(value);
            move({ kind: 'pedal', psi: Number(value) });
          }}
        />
      ) : null}
      {rig.hasPark ? (
        <Control
          label="Park, yellow"
          options={KNOB}
          value={frame.parkIn ? 'in' : 'out'}
          onChange={(value) => move({ kind: 'park', isIn: value === 'in' })}
        />
      ) : null}
      {rig.hasTrailer ? (
        <>
          <Control
            label="Trailer supply, red"
            options={KNOB}
            value={frame.trailerIn ? 'in' : 'out'}
            onChange={(value) => move({ kind: 'trailer', isIn: value === 'in' })}
          />
          <Control
            label="Hand valve, psi asked"
            options={HAND}
            value={hand}
            onChange={(value) => {
              setHand(value);
              move({ kind: 'hand', psi: Number(value) });
            }}
          />
        </>
      ) : null}
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

function Control<T extends string>({
  label,
  ...segments
}: {
  label: string;
  options: readonly { value: T; title: string }[];
  value: T;
  onChange: (value: T) => void;
}) {
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="smallBold">{label}</Txt>
      <Segments label={label} {...segments} />
    </View>
  );
}
