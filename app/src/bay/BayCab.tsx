import type { RunHeader } from '@keen-bleed/contract';
import { rigTitle, ruleSetFor } from '@keen-bleed/core';
import { useState } from 'react';
import { ScrollView, View } from 'react-native';
import { DeviceKey } from '../air/DeviceSign';
import { SeeThrough } from '../air/SeeThrough';
import { usePractice } from '../practice/usePractice';
import { useRuleSets } from '../data/useRecords';
import { sayClock } from '../data/when';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { BayChecks } from './BayChecks';
import { BayControls } from './BayControls';
import { BayEnding } from './BayEnding';
import { BayFaults } from './BayFaults';
import type { BaySetup } from './bayProtocol';
import { BayRun } from './BayRun';
import { useBayClock } from './useBayClock';
import { timeControl } from './cabControls';
import { NeedleLadder } from './NeedleLadder';
import { PlaceNote } from './PlaceNote';
import { useAirSound } from './useAirSound';
import { runHeaderOf } from '../store/startRun';
import { useBay, type Bay } from './useBay';

const LADDER = { phone: 172, wide: 210, height: 420 };

interface BayCabProps {
  setup: BaySetup;
  onLeave: () => void;
}

/** At the wheel of a rig in the Bay, or in a run that is made in it. */
export function BayCab({ setup, onLeave }: BayCabProps) {
  const { bay, trouble } = useBay(setup);
  const rules = useRuleSets();
  const wide = useWide();
  const [header, setHeader] = useState<RunHeader | null>(null);
  const [running, setRunning] = useState(false);
  const clock = useBayClock(bay);
  const practice = usePractice(header, clock);
  const start = () => {
    if (!rules.data) return;
    const { unit, towed } = setup.rig;
    const ruleSet = ruleSetFor(unit, rules.data.sets, rules.data.defaultId);
    const started = { unit, towed: [...towed], rigId: null, ruleSet, leftOut: ['drain'] };
    setHeader(runHeaderOf(started, clock()));
    setRunning(true);
  };
  if (running && practice && bay) {
    return <BayRun practice={practice} bay={bay} onLeave={() => setRunning(false)} />;
  }
  return (
    <ScrollView
      role="main"
      style={{ flex: 1 }}
      contentContainerStyle={{ padding: space.gap, paddingBottom: space.far, gap: space.gap }}
    >
      <View
        style={{
          flexDirection: wide ? 'row' : 'column',
          justifyContent: 'space-between',
          gap: space.step,
        }}
      >
        <View style={{ flexShrink: 1 }}>
          <Txt as="heading" heading={1}>
            {rigTitle(setup.rig)}
          </Txt>
          <Txt as="small" tone="quiet">
            {bay ? `in the Bay, ${sayClock(bay.frame.timeS * 1000)}` : 'in the Bay'}
          </Txt>
        </View>
        <View style={{ flexDirection: 'row', justifyContent: 'space-between', gap: space.near }}>
          {header ? (
            <Button title="Back to the run" onPress={() => setRunning(true)} />
          ) : (
            <Button
              title="Run by the book"
              label="Make a run by the book on it"
              disabled={!bay || !rules.data}
              onPress={start}
            />
          )}
          <Button title="Leave" manner="quiet" onPress={onLeave} />
        </View>
      </View>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {bay ? <Cab bay={bay} setup={setup} onLeave={onLeave} /> : <Waiting rows={5} />}
    </ScrollView>
  );
}

function Cab({ bay, setup, onLeave }: { bay: Bay; setup: BaySetup; onLeave: () => void }) {
  const wide = useWide();
  const [seeing, setSeeing] = useState(false);
  const [sounding, setSounding] = useState(false);
  const [chosen, setChosen] = useState<string | null>(null);
  const listenClose = useAirSound(bay, sounding);
  const { frame } = bay;
  const { gauge, ports } = setup.rig.unit;
  const cab = (
    <View style={{ flexDirection: 'row', gap: space.gap }}>
      <NeedleLadder
        gauge={gauge}
        needles={frame.needles}
        width={wide ? LADDER.wide : LADDER.phone}
        height={LADDER.height}
      />
      <View style={{ flex: 1, gap: space.step }}>
        <BayControls bay={bay} unit={gauge.unit} />
      </View>
    </View>
  );
  const under = (
    <View style={{ gap: space.gap, flex: wide ? 1 : undefined }}>
      <Choice {...timeControl(bay)} />
      <Toggle label="Sound of the air" value={sounding} onChange={setSounding} />
      <BayChecks bay={bay} onListen={listenClose} />
      {setup.hidden === null ? (
        <BayFaults bay={bay} />
      ) : (
        <BayEnding bay={bay} setup={setup} onLeave={onLeave} />
      )}
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
            <DeviceKey />
            <SeeThrough
              rig={bay.rig}
              frame={frame}
              unit={gauge.unit}
              ports={ports}
              chosen={chosen}
              onChoose={setChosen}
            />
            <View
              role="list"
              aria-label="Valves"
              style={{ flexDirection: 'row', flexWrap: 'wrap' }}
            >
              {frame.devices.map(({ id, name, state }) => (
                <View key={id} role="listitem" style={{ width: 230, maxWidth: '100%' }}>
                  <Txt as="small">{`${name}: ${state}`}</Txt>
                </View>
              ))}
            </View>
          </>
        ) : null}
      </View>
    </>
  );
}
