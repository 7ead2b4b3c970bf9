import type { Rig, Senses, Unit } from '@keen-bleed/contract';
import { rigTitle, unitsOf, type RigUnderTest } from '@keen-bleed/core';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { PERFECT_SENSES, USUAL_SENSES } from '@keen-bleed/core/checks';
import { useMe } from '../account/session';
import { useRigs, useUnits } from '../data/useRecords';
import { PracticeList } from '../practice/PracticeList';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Waiting } from '../ui/Waiting';
import { BayCab } from './BayCab';
import type { BaySetup } from './bayProtocol';
import { RigFinder } from './RigFinder';

const WEATHER = [
  { value: '-15', title: '−15 °C' },
  { value: '5', title: '5 °C' },
  { value: '20', title: '20 °C' },
  { value: '38', title: '38 °C' },
] as const;
const HEIGHTS = [
  { value: '0', title: 'sea' },
  { value: '800', title: '800 m' },
  { value: '2000', title: '2,000 m' },
] as const;
const FAULTS = [
  { value: '0', title: 'none' },
  { value: '1', title: 'one hidden' },
  { value: '2', title: 'two hidden' },
  { value: 'open', title: 'set openly' },
] as const;

const SENSES_NOTE = {
  usual:
    'They miss and mistake as often as the shop says: one hiss in ten, unless it says otherwise.',
  never: 'What is there is heard and seen, and nothing else.',
  noisy: 'Twice as many mistakes, and only loud air is heard.',
} as const;

const LOADS = [
  { value: '0', title: 'empty' },
  { value: '0.5', title: 'half' },
  { value: '1', title: 'laden' },
] as const;

/** Twice as many mistakes, and only loud air is heard. */
const noisy = (usual: Senses): Senses => ({
  missed: Math.min(0.9, 2 * usual.missed),
  imagined: Math.min(0.9, 2 * usual.imagined),
  soapMisses: Math.min(0.9, 2 * usual.soapMisses),
  soapOff: Math.min(0.9, 2 * usual.soapOff),
  lookWrong: Math.min(0.9, 2 * usual.lookWrong),
  heardQuietScfm: 3 * usual.heardQuietScfm,
  heardRunningScfm: 3 * usual.heardRunningScfm,
});
/** How often ear, soap and eye err: as the shop has it, never, or twice as often. */
const sensesOf = (usual: Senses) => ({ usual, never: PERFECT_SENSES, noisy: noisy(usual) });
const EARS = [
  { value: 'usual', title: 'as usual' },
  { value: 'never', title: 'never wrong' },
  { value: 'noisy', title: 'a noisy yard' },
] as const;

/** Everything that can stand in the Bay: what is coupled, then each unit alone. */
function choices(units: readonly Unit[], rigs: readonly Rig[]): RigUnderTest[] {
  const coupled = rigs.flatMap((rig): RigUnderTest[] => {
    const [unit, ...towed] = rig.unitIds.flatMap(
      (id) => units.find((each) => each.id === id) ?? [],
    );
    return unit && towed.length === rig.unitIds.length - 1 ? [{ unit, towed }] : [];
  });
  return [
    ...coupled,
    ...units
      .filter((unit) => unit.retiredAtMs === null && unit.kind !== 'dolly')
      .map((unit) => ({ unit, towed: [] })),
  ];
}

/** The Bay: a rig that does not exist, driven like one that does. */
export function BayScreen() {
  const units = useUnits();
  const rigs = useRigs();
  const [setup, setSetup] = useState<BaySetup | null>(null);
  if (setup) return <BayCab setup={setup} onLeave={() => setSetup(null)} />;
  if (!units.data) {
    return (
      <Screen title="Bay">
        {units.error ? (
          <Notice manner="trouble" title="The rigs cannot be shown" text={units.error.message} />
        ) : (
          <Waiting />
        )}
      </Screen>
    );
  }
  return <Choosing units={units.data} rigs={rigs.data ?? []} onOpen={setSetup} />;
}

interface ChoosingProps {
  units: readonly Unit[];
  rigs: readonly Rig[];
  onOpen: (setup: BaySetup) => void;
}

function Choosing({ units, rigs, onOpen }: ChoosingProps) {
  const me = useMe();
  const wide = useWide();
  const all = useMemo(() => choices(units, rigs), [units, rigs]);
  const titles = all.map(rigTitle);
  const [title, setTitle] = useState<string | null>(null);
  const [outside, setOutside] = useState<(typeof WEATHER)[number]['value']>('20');
  const [height, setHeight] = useState<(typeof HEIGHTS)[number]['value']>('0');
  const [hidden, setHidden] = useState<(typeof FAULTS)[number]['value']>('1');
  const [ears, setEars] = useState<(typeof EARS)[number]['value']>('usual');
  const [load, setLoad] = useState<(typeof LOADS)[number]['value']>('1');
  const chosen = title ?? titles[0] ?? '';
  const rig = all[titles.indexOf(chosen)];
  if (!rig) {
    return (
      <Screen title="Bay">
        <Notice
          title="There is no unit yet"
          text="The Bay runs the units of the yard: add one there first."
        />
      </Screen>
    );
  }
  const sensesLoad = unitsOf(rig).some(({ chambers }) =>
    chambers.some((group) => group.loadSensing),
  );
  return (
    <Screen
      title="Bay"
      lead="A made-up day with one of your rigs. Nothing of it is kept in its records."
      width={720}
    >
      <View style={{ gap: space.gap, marginTop: space.step }}>
        <RigFinder rigs={all} chosen={chosen} onChoose={setTitle} />
        <Choice
          label="Outside"
          size="glove"
          options={WEATHER}
          value={outside}
          onChange={setOutside}
        />
        <Choice label="Height" size="glove" options={HEIGHTS} value={height} onChange={setHeight} />
        {sensesLoad ? (
          <Choice label="Load" size="glove" options={LOADS} value={load} onChange={setLoad} />
        ) : null}
        <Choice label="Faults" size="glove" options={FAULTS} value={hidden} onChange={setHidden} />
        <Choice
          label="Ears, soap and eyes"
          note={SENSES_NOTE[ears]}
          size="glove"
          options={EARS}
          value={ears}
          onChange={setEars}
        />
        <Button
          title="Start"
          manner="main"
          size="glove"
          onPress={() =>
            onOpen({
              rig,
              outsideC: Number(outside),
              heightM: Number(height),
              load: sensesLoad ? Number(load) : 1,
              hidden: hidden === 'open' ? null : Number(hidden),
              senses: sensesOf(me.senses ?? USUAL_SENSES)[ears],
              seed: Math.floor(Math.random() * 2 ** 31),
            })
          }
          style={wide ? { minWidth: 220, alignSelf: 'flex-start' } : { width: '100%' }}
        />
        <PracticeList />
      </View>
    </Screen>
  );
}
