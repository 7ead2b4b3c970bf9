import type { Unit } from '@keen-bleed/contract';
import { partListOf, plumbingOf, rigTitle, unitTitle, type RigUnderTest } from '@keen-bleed/core';
import type { Level, PlanSymbol } from '@keen-bleed/core/drawing';
import { router, useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import type { LosesAir } from '../air/drawing';
import { useLosesAir } from '../air/useLosesAir';
import { useYard } from '../data/useRecords';
import { holdsOfRow } from '../data/standingOf';
import { sayPart } from '../parts/sayPart';
import { useWalkRound } from '../parts/useWalkRound';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { HoldsNotice } from '../ui/HoldsNotice';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { Waiting } from '../ui/Waiting';
import { ChosenPart } from './ChosenPart';
import { OfRig } from './OfRig';
import { PlanList } from './PlanList';
import { PlanView } from './PlanView';
import { useBringUp } from './useBringUp';
import { useOpenFailures } from './useOpenFailures';
import { usePlan } from './usePlan';

/** A unit, or the rig it is coupled in, drawn from above: where parts are confirmed, checked and asked about. */
export function PlanScreen() {
  return <OfRig title="Drawing">{(units, rigId) => <Planned units={units} rigId={rigId} />}</OfRig>;
}

const CIRCUITS = [
  { value: 'all', title: 'all' },
  { value: 'supply', title: 'supply' },
  { value: 'service', title: 'service' },
  { value: 'park', title: 'park' },
] as const;

function Planned({ units, rigId }: { units: readonly Unit[]; rigId: string | null }) {
  const { capped } = useLocalSearchParams<{ capped?: string }>();
  const wide = useWide();
  const walk = useWalkRound(units, rigId, 'Parts');
  const [front] = walk.units;
  const rig = useMemo((): RigUnderTest => {
    const [unit, ...towed] = walk.units;
    return { unit: unit!, towed };
  }, [walk.units]);
  const [circuit, setCircuit] = useState<(typeof CIRCUITS)[number]['value']>('all');
  const [shown, setShown] = useState('rig');
  const [asList, setAsList] = useState(false);
  const [chosen, setChosen] = useState<PlanSymbol | null>(null);
  const level: Level = shown === 'rig' ? { show: 'rig' } : { show: 'unit', unit: Number(shown) };
  const { bound, failed, again } = usePlan(rig, wide ? 'left' : 'up', level);
  const [box, onBox] = useBoxSize();
  const { scroller, onDrawing, bringUp } = useBringUp();
  const choose = (symbol: PlanSymbol) => {
    setChosen(symbol);
    bringUp(symbol, bound ? Math.min(1, box.width / bound.plan.width) : 1);
  };
  const { unit: sayIn } = usePrefs();
  const problems = useMemo(() => walk.units.map((unit) => plumbingOf(unit).problems), [walk.units]);
  const failures = useOpenFailures(rig);
  const yard = useYard();
  const holds = walk.units.flatMap(({ id }) =>
    holdsOfRow(yard.data?.find((row) => row.unit.id === id)),
  );
  const marked = useMemo(
    () =>
      new Set([
        ...problems.flatMap((some, n) => some.map(({ at }) => `${n} ${at}`)),
        ...failures.flatMap(({ keys }) => keys),
      ]),
    [failures, problems],
  );
  const { names, lost, capped: closed } = useLosesAir(rig, capped ?? null);
  const only = useMemo(
    () => (closed && lost.length > 0 ? new Set([closed, ...lost].map(keyOfLost)) : null),
    [closed, lost],
  );
  const lists = useMemo(() => walk.units.map((unit) => partListOf(unit)), [walk.units]);
  const all = lists.flat();
  const confirmed = all.filter(({ record }) => record !== null).length;
  const levels = [
    { value: 'rig', title: walk.units.length > 1 ? 'Whole rig' : 'Large parts' },
    ...walk.units.map((unit, n) => ({
      value: String(n),
      title: walk.units.length > 1 ? unit.number : 'Every part',
    })),
  ];
  const say = ({ unit, part }: PlanSymbol) =>
    sayPart(lists[unit]?.find(({ id }) => id === part)?.record ?? null, sayIn);
  const drawing = (
    <View
      onLayout={(event) => {
        onBox(event);
        onDrawing(event);
      }}
      style={{ width: '100%' }}
    >
      {!bound ? (
        failed ? (
          <Notice
            manner="trouble"
            title="This unit could not be drawn"
            text="Its drawing is made on this device, and that went wrong."
            action={{ title: 'Draw it again', onPress: again }}
          />
        ) : (
          <Waiting rows={6} />
        )
      ) : asList ? (
        <PlanList
          symbols={bound.plan.symbols}
          chosen={chosen?.key ?? null}
          onChoose={choose}
          say={say}
        />
      ) : box.width > 0 ? (
        <View
          role="group"
          aria-label={`${rigTitle(rig)} from above`}
          style={{ alignItems: wide ? 'flex-start' : 'center' }}
        >
          <PlanView
            bound={bound}
            frame={null}
            unit={sayIn}
            circuit={circuit === 'all' ? null : circuit}
            chosen={chosen?.key ?? null}
            onChoose={choose}
            marked={marked}
            only={only}
            fit={box.width}
          />
        </View>
      ) : null}
    </View>
  );
  const head = (
    <View style={{ gap: space.near, padding: wide ? 0 : space.step }}>
      <Txt as="screenTitle" heading={1}>
        {rigTitle(rig)}
      </Txt>
      <Txt tone="quiet">{`Seen from above, front ${wide ? 'left' : 'up'} · ${confirmed} of ${all.length} parts confirmed`}</Txt>
      <HoldsNotice holds={holds} />
      {walk.trouble ? <Notice manner="trouble" title={walk.trouble} /> : null}
      {capped && names ? (
        <Notice
          manner={names.length > 0 ? 'trouble' : 'plain'}
          title={
            names.length > 0
              ? `What is not faded has no air once the ${capped.replace(/^#\d+ /, '')} is capped`
              : 'Nothing else loses its air by that'
          }
          text={names.length > 0 ? `${names.join(', ')}.` : ''}
          action={{ title: 'Show it all', onPress: () => router.setParams({ capped: '' }) }}
        />
      ) : null}
      <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
        <Segments label="Circuit" options={CIRCUITS} value={circuit} onChange={setCircuit} />
        <Segments label="How much is drawn" options={levels} value={shown} onChange={setShown} />
        <Segments
          label="Drawing or list"
          options={[
            { value: 'drawing', title: 'drawing' },
            { value: 'list', title: 'list' },
          ]}
          value={asList ? 'list' : 'drawing'}
          onChange={(value) => setAsList(value === 'list')}
        />
      </View>
      {problems.flat().length > 0 ? (
        <View role="list" aria-label="What cannot be as it was said">
          {problems
            .flat()
            .slice(0, 4)
            .map(({ at, text }) => (
              <View key={at + text} role="listitem">
                <Txt as="bodyBold" tone="fail">
                  {text}
                </Txt>
              </View>
            ))}
        </View>
      ) : null}
    </View>
  );
  const card = chosen ? (
    <ChosenPart rig={rig} symbol={chosen} walk={walk} onLeave={() => setChosen(null)} />
  ) : (
    <View style={{ gap: space.near }}>
      <Txt tone="quiet">
        Red is supply, blue dashes are service, yellow dots are park. Tap a part to see what it
        does, confirm it, and check it.
      </Txt>
      <LinkTo to={`/unit/${front?.id ?? ''}/parts`}>
        <Txt as="bodyBold" tone="accent">
          All parts as a list
        </Txt>
      </LinkTo>
      <LinkTo to={`/unit/${front?.id ?? ''}`}>
        <Txt as="bodyBold" tone="accent">{`Rig sheet of ${front ? unitTitle(front) : ''}`}</Txt>
      </LinkTo>
    </View>
  );
  return (
    <View role="main" style={{ flex: 1 }}>
      <ScrollView
        ref={scroller}
        style={{ flex: 1 }}
        contentContainerStyle={{
          padding: wide ? space.gap : 0,
          paddingBottom: space.wide,
          gap: space.step,
        }}
      >
        {head}
        {drawing}
        {chosen ? null : <View style={{ padding: wide ? 0 : space.step }}>{card}</View>}
      </ScrollView>
      {chosen ? <Panel>{card}</Panel> : null}
    </View>
  );
}

const keyOfLost = ({ unit, part }: LosesAir) => `${unit} ${part ?? ''}`;

/** Under the drawing, so that what is told of and what is told stand together. */
function Panel({ children }: { children: React.ReactNode }) {
  const palette = usePalette();
  const wide = useWide();
  return (
    <ScrollView
      style={{
        maxHeight: wide ? '46%' : '52%',
        flexGrow: 0,
        borderTopWidth: 2,
        borderColor: palette.ink,
        backgroundColor: palette.ground,
      }}
      contentContainerStyle={{ padding: wide ? space.gap : space.step, gap: space.step }}
    >
      {children}
    </ScrollView>
  );
}
