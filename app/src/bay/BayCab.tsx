import { rigTitle } from '@keen-bleed/core';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { SeeThrough } from '../air/SeeThrough';
import { sayClock } from '../data/when';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { BayChecks } from './BayChecks';
import { BayControls } from './BayControls';
import { BayEnding } from './BayEnding';
import type { BaySetup } from './bayProtocol';
import { NeedleLadder } from './NeedleLadder';
import { PlaceNote } from './PlaceNote';
import { useBay, type Bay } from './useBay';

const LADDER = { phone: 172, wide: 210, height: 420 };
const SPEEDS = [
  { value: '1', title: '× 1' },
  { value: '4', title: '× 4' },
  { value: '16', title: '× 16' },
] as const;

interface BayCabProps {
  setup: BaySetup;
  onLeave: () => void;
}

/** At the wheel of a rig in the Bay. */
export function BayCab({ setup, onLeave }: BayCabProps) {
  const { bay, trouble } = useBay(setup);
  return (
    <ScrollView
      role="main"
      style={{ flex: 1 }}
      contentContainerStyle={{ padding: space.gap, paddingBottom: space.far, gap: space.gap }}
    >
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: space.step }}>
        <View style={{ flexShrink: 1 }}>
          <Txt as="heading" heading={1}>
            {rigTitle(setup.rig)}
          </Txt>
          <Txt as="small" tone="quiet">
            {bay ? `in the Bay, ${sayClock(bay.frame.timeS * 1000)}` : 'in the Bay'}
          </Txt>
        </View>
        <Button title="Leave" manner="quiet" onPress={onLeave} />
      </View>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {bay ? <Cab bay={bay} setup={setup} onLeave={onLeave} /> : <Waiting rows={5} />}
    </ScrollView>
  );
}

function Cab({ bay, setup, onLeave }: { bay: Bay; setup: BaySetup; onLeave: () => void }) {
  const wide = useWide();
  const [speed, setSpeed] = useState<(typeof SPEEDS)[number]['value']>('1');
  const [seeing, setSeeing] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const { frame } = bay;
  const { gauge } = setup.rig.unit;
  const needles = [
    ...(frame.needles.primary === null
      ? []
      : [
          {
            title: setup.rig.unit.circuits === 'dual' ? 'prim.' : 'tank',
            psi: frame.needles.primary,
          },
        ]),
    ...(frame.needles.secondary === null ? [] : [{ title: 'sec.', psi: frame.needles.secondary }]),
  ];
  const cab = (
    <View style={{ flexDirection: 'row', gap: space.gap }}>
      {needles.length > 0 ? (
        <NeedleLadder
          gauge={gauge}
          needles={needles}
          width={wide ? LADDER.wide : LADDER.phone}
          height={LADDER.height}
        />
      ) : null}
      <View style={{ flex: 1, gap: space.step }}>
        <BayControls bay={bay} />
      </View>
    </View>
  );
  const under = (
    <View style={{ gap: space.gap, flex: wide ? 1 : undefined }}>
      <View style={{ gap: space.hair }}>
        <Txt as="smallBold">Time</Txt>
        <Segments
          label="Time"
          options={SPEEDS}
          value={speed}
          onChange={(value) => {
            setSpeed(value);
            bay.move({ kind: 'speed', times: Number(value) });
          }}
        />
      </View>
      <BayChecks bay={bay} />
      <BayEnding bay={bay} setup={setup} onLeave={onLeave} />
    </View>
  );
  return (
    <>
      <View style={{ flexDirection: wide ? 'row' : 'column', gap: space.wide }}>
        <View style={{ flex: wide ? 1 : undefined }}>{cab}</View>
        {under}
      </View>
      <View style={{ gap: space.step }}>
        <Button
          title={seeing ? 'Only what the cab shows' : 'See through the rig'}
          onPress={() => setSeeing(!seeing)}
          style={{ alignSelf: 'flex-start' }}
        />
        {seeing ? (
          <>
            {chosen ? <PlaceNote place={chosen} bay={bay} unit={gauge.unit} /> : null}
            <SeeThrough
              rig={bay.rig}
              frame={frame}
              unit={gauge.unit}
              chosen={chosen}
              onChoose={setChosen}
            />
          </>
        ) : null}
      </View>
    </>
  );
}
