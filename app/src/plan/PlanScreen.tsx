import type { CheckFact, Unit } from '@keen-bleed/contract';
import {
  partListOf,
  partOfEntry,
  photosOf,
  plumbingOf,
  rigTitle,
  sayEntry,
  unitTitle,
  type PlumbedLine,
  type RigUnderTest,
} from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import type { Level, PlanSymbol } from '@keen-bleed/core/drawing';
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { ScrollView, View } from 'react-native';
import { useMe } from '../account/session';
import { useChecks } from '../air/useChecks';
import { useFound, useYard } from '../data/useRecords';
import { holdsOfRow } from '../data/standingOf';
import { sayDay } from '../data/when';
import { PartSheet } from '../parts/PartSheet';
import { sayPart } from '../parts/sayPart';
import { useWalkRound, type WalkRound } from '../parts/useWalkRound';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Button } from '../ui/Button';
import { HoldsNotice } from '../ui/HoldsNotice';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { Waiting } from '../ui/Waiting';
import { CheckSheet } from './CheckSheet';
import { LineSheet } from './LineSheet';
import { PartCard } from './PartCard';
import { PlanList } from './PlanList';
import { PlanView } from './PlanView';
import { sayAnswer } from './sayAnswer';
import { useBringUp } from './useBringUp';
import { useOpenFailures } from './useOpenFailures';
import { usePlan, useExplained } from './usePlan';
import { useRigOf } from './useRigOf';

/** A unit, or the rig it is coupled in, drawn from above: where parts are confirmed, checked and asked about. */
export function PlanScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const { units, rigId, error } = useRigOf(id);
  if (!units) {
    return (
      <Screen title="Drawing">
        {error ? (
          <Notice manner="trouble" title="This unit cannot be drawn" text={error.message} />
        ) : (
          <Waiting rows={6} />
        )}
      </Screen>
    );
  }
  return <Planned units={units} rigId={rigId} />;
}

const CIRCUITS = [
  { value: 'all', title: 'all' },
  { value: 'supply', title: 'supply' },
  { value: 'service', title: 'service' },
  { value: 'park', title: 'park' },
] as const;

function Planned({ units, rigId }: { units: readonly Unit[]; rigId: string | null }) {
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

interface ChosenPartProps {
  rig: RigUnderTest;
  symbol: PlanSymbol;
  walk: WalkRound;
  onLeave: () => void;
}

/** The part that was tapped, with what can be said and done at it. */
function ChosenPart({ rig, symbol, walk, onLeave }: ChosenPartProps) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const [inside, setInside] = useState<string | null>(null);
  const [saying, setSaying] = useState(false);
  const [checking, setChecking] = useState<Check | null>(null);
  const [lining, setLining] = useState<PlumbedLine | null>(null);
  const unit = walk.units[symbol.unit];
  const partId = inside ?? symbol.part;
  const list = useMemo(() => (unit ? partListOf(unit) : []), [unit]);
  const { lines, problems } = useMemo(
    () => (unit ? plumbingOf(unit) : { lines: [], problems: [] }),
    [unit],
  );
  const explained = useExplained(rig, symbol.unit, partId);
  const checks = useChecks(rig);
  const found = useFound(unit?.id ?? null);
  const failures = useOpenFailures(rig);
  const part = list.find(({ id }) => id === partId);
  if (!unit || !part) return null;
  const mayWrite = me.role !== 'viewer' && unit.retiredAtMs === null;
  const own = checks.filter(
    (check) =>
      check.unit === symbol.unit && (check.part === partId || partId.startsWith(`${check.part}.`)),
  );
  const atPart = lines.filter(({ from, to }) => from.part === partId || to.part === partId);
  const at = { unitId: unit.id, partId };
  const here = (walk.state?.entries ?? []).filter((entry) => {
    const of = partOfEntry(entry);
    return of?.unitId === unit.id && of.partId === partId;
  });
  const history = [
    ...here.map((entry) => ({
      id: entry.id,
      when: 'in this visit',
      what: sayEntry(entry),
      photos: [...photosOf(entry)],
    })),
    ...(found.data ?? [])
      .filter((entry) => entry.partId === partId && !here.some(({ id }) => id === entry.id))
      .map((entry) => ({
        id: entry.id,
        when: `${sayDay(entry.atMs)}, ${entry.by}`,
        what: entry.said,
        photos: entry.photos,
      })),
  ];
  const seen = () => {
    const {
      partId: _p,
      foundAtMs: _f,
      standing: _s,
      ...data
    } = part.record ?? { partId: '', foundAtMs: 0, standing: 'fitted' };
    void walk.say({ kind: 'part', at, ...data, standing: 'fitted' });
  };
  return (
    <View style={{ gap: space.step }}>
      <PartCard
        unit={unit}
        part={part}
        sayIn={sayIn}
        state={null}
        now={null}
        explained={explained}
        checks={own}
        onCheck={mayWrite ? setChecking : null}
        problems={problems
          .filter(({ at: where }) => where === partId || atPart.some(({ id }) => id === where))
          .map(({ text }) => text)}
        history={history}
        failures={failures
          .filter(({ keys }) => keys.includes(`${symbol.unit} ${partId}`))
          .map(({ text }) => `Open failure: ${text}`)}
      >
        {mayWrite ? (
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
            {part.record?.standing === 'fitted' ? null : (
              <Button
                title="It is as said"
                manner="main"
                label={`${part.title}: seen, it is fitted`}
                onPress={seen}
              />
            )}
            <Button
              title="Say more"
              label={`${part.title}: say more`}
              onPress={() => setSaying(true)}
            />
            <Button title="Close" manner="quiet" onPress={onLeave} />
          </View>
        ) : (
          <Button
            title="Close"
            manner="quiet"
            onPress={onLeave}
            style={{ alignSelf: 'flex-start' }}
          />
        )}
        {symbol.folded.length > 0 ? (
          <View style={{ gap: space.hair }}>
            <Txt as="bodyBold">{inside ? 'Beside it' : 'With it'}</Txt>
            <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
              {[symbol.part, ...symbol.folded]
                .filter((id) => id !== partId)
                .map((id) => (
                  <Button
                    key={id}
                    title={list.find((each) => each.id === id)?.title ?? id}
                    onPress={() => setInside(id === symbol.part ? null : id)}
                  />
                ))}
            </View>
          </View>
        ) : null}
      </PartCard>
      {mayWrite && atPart.length > 0 ? (
        <View style={{ gap: space.hair }}>
          <Txt as="bodyBold">Lines</Txt>
          <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.near }}>
            {atPart.slice(0, 8).map((line) => (
              <Button
                key={line.id}
                title={line.title}
                label={`Line: ${line.title}`}
                onPress={() => setLining(line)}
              />
            ))}
          </View>
        </View>
      ) : null}
      {walk.visitId ? (
        <LinkTo to={`/visit/${walk.visitId}`}>
          <Txt as="bodyBold" tone="accent">
            The visit in which this is kept
          </Txt>
        </LinkTo>
      ) : null}
      {saying ? (
        <PartSheet
          part={part}
          onDone={(said, photos) => {
            setSaying(false);
            void walk.say({ kind: 'part', at, ...said }, photos);
          }}
          onLeave={() => setSaying(false)}
        />
      ) : null}
      {checking ? (
        <CheckSheet
          check={checking}
          unit={unit}
          onDone={(answer, note, photos) => {
            setChecking(null);
            void walk.say(
              {
                kind: 'check',
                at: { unitId: unit.id, partId: checking.part },
                checkId: checking.id,
                title: checking.title,
                answer: answer as CheckFact['answer'],
                said: sayAnswer(answer, checking.answer, sayIn),
                ...(note === null ? {} : { note }),
              },
              photos,
            );
          }}
          onLeave={() => setChecking(null)}
        />
      ) : null}
      {lining ? (
        <LineSheet
          unit={unit}
          line={lining}
          onDone={(said) => {
            setLining(null);
            void walk.say({ kind: 'line', at: { unitId: unit.id, lineId: lining.id }, ...said });
          }}
          onLeave={() => setLining(null)}
        />
      ) : null}
    </View>
  );
}
