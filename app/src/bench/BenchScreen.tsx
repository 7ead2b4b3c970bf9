import type { CheckFact, Unit } from '@keen-bleed/contract';
import { rigTitle, type RigUnderTest } from '@keen-bleed/core';
import type { Check, CheckAnswer, Valve } from '@keen-bleed/core/checks';
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useWalkRound } from '../parts/useWalkRound';
import { ItsVisit, WalkPage } from '../parts/WalkPage';
import { CheckSheet } from '../plan/CheckSheet';
import { OfRig } from '../plan/OfRig';
import { sayAnswer } from '../plan/sayAnswer';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { useBench } from './useBench';
import { ValveList } from './ValveList';
import { ValvePane } from './ValvePane';

/** Every valve of a rig: what was read at its ports, what that comes to, and what it is held to. */
export function BenchScreen() {
  return <OfRig title="Bench">{(units, rigId) => <OnBench units={units} rigId={rigId} />}</OfRig>;
}

const addressOf = ({ unit, part }: Pick<Valve, 'unit' | 'part'>) => `${unit}.${part}`;

function OnBench({ units, rigId }: { units: readonly Unit[]; rigId: string | null }) {
  const { valve: asked } = useLocalSearchParams<{ valve?: string }>();
  const me = useMe();
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const walk = useWalkRound(units, rigId, 'Bench');
  const rig = useMemo((): RigUnderTest => {
    const [unit, ...towed] = walk.units;
    return { unit: unit!, towed };
  }, [walk.units]);
  const bench = useBench(walk.units, rig, walk);
  const [reading, setReading] = useState<Check | null>(null);
  const mayWrite = me.role !== 'viewer' && rig.unit.retiredAtMs === null;
  const open =
    bench.valves.find((each) => addressOf(each) === asked) ??
    // There is room for one beside the list: the one that was read last says most.
    (wide
      ? (bench.valves.find((each) => isRead(each, bench.readings)) ?? bench.valves[0])
      : null) ??
    null;
  const home = `/unit/${rig.unit.id}/bench`;
  const keep = (check: Check, given: CheckAnswer, note: string | null, photos: readonly Blob[]) => {
    setReading(null);
    void walk.say(
      {
        kind: 'check',
        at: { unitId: walk.units[check.unit]?.id ?? rig.unit.id, partId: check.part },
        checkId: check.id,
        title: check.title,
        answer: given as CheckFact['answer'],
        said: sayAnswer(given, check.answer, sayIn),
        ...(note === null ? {} : { note }),
      },
      photos,
    );
  };
  const pane = open ? (
    <ValvePane
      rig={rig}
      units={walk.units}
      bench={bench}
      valve={open}
      mayWrite={mayWrite}
      onRead={setReading}
    />
  ) : null;
  const onPhone = !wide && open !== null;
  return (
    <WalkPage
      walk={walk}
      mayWrite={mayWrite}
      sideWidth={620}
      head={
        <View style={{ gap: space.hair }}>
          <Txt as="screenTitle" heading={1}>
            Bench
          </Txt>
          <Txt tone="quiet">{rigTitle(rig)}</Txt>
          {onPhone ? (
            <LinkTo to={home}>
              <Txt as="bodyBold" tone="accent">
                All valves
              </Txt>
            </LinkTo>
          ) : null}
          {walk.trouble ? <Notice manner="trouble" title={walk.trouble} /> : null}
        </View>
      }
      list={
        onPhone ? (
          <View style={{ gap: space.step }}>
            {pane}
            <ItsVisit visitId={walk.visitId} />
          </View>
        ) : (
          <View style={{ gap: space.step }}>
            <Txt as="small" tone="quiet">
              Tee a gauge into two ports of a valve, and read what one does to the other. Set points
              and bubbles are read here as well.
            </Txt>
            {bench.valves.length === 0 ? <Waiting rows={8} /> : null}
            <ValveList
              units={walk.units}
              bench={bench}
              open={wide ? open : null}
              linkOf={(valve) => `${home}?valve=${addressOf(valve)}`}
            />
            <ItsVisit visitId={walk.visitId} />
          </View>
        )
      }
      side={wide ? pane : null}
      sheets={
        reading ? (
          <CheckSheet
            check={reading}
            unit={walk.units[reading.unit]}
            onDone={(given, note, photos) => keep(reading, given, note, photos)}
            onLeave={() => setReading(null)}
          />
        ) : null
      }
    />
  );
}

const isRead = ({ checks }: Valve, readings: ReadonlyMap<string, unknown>) =>
  checks.some(({ id }) => readings.has(id));
