import type { HeldNeedle, HeldState, JointSide, Unit } from '@keen-bleed/contract';
import { rigTitle, unitTitle, type RigUnderTest } from '@keen-bleed/core';
import type { Check } from '@keen-bleed/core/checks';
import { passes, type Joint, type Pass } from '@keen-bleed/core/hunt';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { SignInDue } from '../account/SignInDue';
import { usePutsSignInOff } from '../account/signInPutOff';
import { useLosesAir } from '../air/useLosesAir';
import { useWalkRound } from '../parts/useWalkRound';
import { ItsVisit, WalkPage } from '../parts/WalkPage';
import { CheckSheet } from '../plan/CheckSheet';
import { sayAnswer } from '../plan/sayAnswer';
import { OfRig } from '../plan/OfRig';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { AsideSheet } from './AsideSheet';
import { BudgetRails } from './BudgetRails';
import { HelperCalls } from './HelperCalls';
import { HoldSheet } from './HoldSheet';
import { HuntStanding } from './HuntStanding';
import { JointMendSheet } from './JointMendSheet';
import { JointRow } from './JointRow';
import {
  ASIDES,
  ISOLATES,
  MENDS,
  NEEDLE_NUMBERS,
  NEEDLE_TITLES,
  PASS_HOW,
  PASS_TITLES,
  sayHeld,
  SHOP_AIR,
} from './huntWords';
import { useBegun } from './useBegun';
import { useHunt } from './useHunt';
import { deviceMs } from '../wire/serverClock';

/** Every joint of a rig, wetted in walking order, and a budget of what it lost against what was found. */
export function HuntScreen() {
  return (
    <OfRig title="Leak hunt">{(units, rigId) => <Hunted units={units} rigId={rigId} />}</OfRig>
  );
}

/** A joint this likely to leak is pointed at. */
const LIKELY = 0.12;

function Hunted({ units, rigId }: { units: readonly Unit[]; rigId: string | null }) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const walk = useWalkRound(units, rigId, 'Leak hunt');
  const rig = useMemo((): RigUnderTest => {
    const [unit, ...towed] = walk.units;
    return { unit: unit!, towed };
  }, [walk.units]);
  const [nowMs] = useState(() => deviceMs());
  const hunt = useHunt(walk.units, rig, walk, nowMs);
  const [pass, setPass] = useState<Pass>('parked');
  const [holding, setHolding] = useState<{ state: HeldState; needle: HeldNeedle } | null>(null);
  const [begun, setBegun] = useBegun(rig.unit.id);
  usePutsSignInOff(begun !== null);
  const [mending, setMending] = useState<Joint | null>(null);
  const [more, setMore] = useState<Check | null>(null);
  const [aside, setAside] = useState(false);
  const mayWrite = me.role !== 'viewer' && rig.unit.retiredAtMs === null;
  const school = rig.unit.ports;
  const needleTitles = school === 'numbers' ? NEEDLE_NUMBERS : NEEDLE_TITLES;
  const titleOf = useCallback(
    ({ unit, title }: Joint) =>
      walk.units.length > 1 ? `${title} · ${walk.units[unit]?.number ?? ''}` : title,
    [walk.units],
  );
  const atOf = (joint: { unit: number; part: string }) => ({
    unitId: walk.units[joint.unit]?.id ?? rig.unit.id,
    partId: joint.part,
  });
  const sides = useMemo(() => {
    const of = new Map<string, JointSide>();
    for (const entry of walk.state?.entries ?? []) {
      if (entry.kind === 'check' && entry.side) of.set(entry.checkId, entry.side);
    }
    return of;
  }, [walk.state]);

  const wet = (joint: Joint, grade: string, side: JointSide | null) =>
    walk.say({
      kind: 'check',
      at: atOf(joint),
      checkId: joint.checkId,
      title: joint.check.title,
      answer: { kind: 'grade', grade },
      said: sayAnswer({ kind: 'grade', grade }, joint.check.answer, sayIn),
      ...(side ? { side } : {}),
    });
  // Rows are drawn anew only where something of theirs changed.
  const act = useRef({ wet, last: hunt.last });
  useEffect(() => {
    act.current = { wet, last: hunt.last };
  });
  const onGrade = useCallback(
    (joint: Joint, grade: string) => act.current.wet(joint, grade, null),
    [],
  );
  const onSide = useCallback(
    (joint: Joint, side: JointSide) =>
      void act.current.wet(joint, act.current.last.get(joint.place)?.grade ?? 'film', side),
    [],
  );
  const onMore = useCallback((joint: Joint) => setMore(joint.check), []);

  const joints = hunt.joints.filter((joint) => joint.pass === pass);
  const asked = joints.filter(
    ({ place }) => pass === 'running' || !hunt.airless.includes(place) || hunt.last.has(place),
  );
  const open = asked.filter(({ place }) => !hunt.last.has(place));
  const restDry = () => {
    void (async () => {
      for (const joint of open) await wet(joint, 'dry', null);
    })();
  };
  const asides = (walk.state?.entries ?? []).flatMap((entry) =>
    entry.kind === 'aside' ? [entry] : [],
  );
  const offered = hunt.budget?.nextHold ?? null;
  const states = statesOf(rig);
  const needles: readonly HeldNeedle[] =
    rig.unit.kind === 'trailer' || rig.unit.kind === 'dolly'
      ? ['trailer']
      : ['primary', 'secondary', 'supply'];

  const head = (
    <View style={{ gap: space.step }}>
      <View style={{ gap: space.hair }}>
        <Txt as="screenTitle" heading={1}>
          Leak hunt
        </Txt>
        <Txt tone="quiet">{rigTitle(rig)}</Txt>
      </View>
      <SignInDue />
      {walk.trouble ? <Notice manner="trouble" title={walk.trouble} /> : null}
      <HuntStanding hunt={hunt} units={walk.units} titleOf={titleOf} />
    </View>
  );
  const air = (
    <View style={{ gap: space.step }}>
      {hunt.budget && hunt.budget.lines.length > 0 ? (
        <>
          <Txt as="heading" heading={2}>
            Air lost and found
          </Txt>
          <BudgetRails lines={hunt.budget.lines} school={school} />
        </>
      ) : null}
      {mayWrite ? (
        <View style={{ gap: space.near }}>
          {offered && !begun ? (
            <Txt as="small">{`Next: ${ISOLATES[offered.state]} Needle to watch: ${needleTitles[offered.needle]}. That leaves about half of what is left.`}</Txt>
          ) : null}
          <Button
            size="glove"
            title={begun ? 'Go on with the watch' : 'Watch a needle'}
            onPress={() =>
              setHolding(offered ?? { state: 'released', needle: needles[0] ?? 'primary' })
            }
          />
        </View>
      ) : null}
    </View>
  );

  const list = (
    <View style={{ gap: space.near }}>
      <Segments
        dense
        label="Pass"
        options={passes.map((value) => ({ value, title: PASS_TITLES[value] }))}
        value={pass}
        onChange={setPass}
      />
      <Txt as="small">{PASS_HOW[pass]}</Txt>
      {pass === 'running' ? <Txt as="small">{SHOP_AIR}</Txt> : null}
      {pass === 'applied' || pass === 'released' ? (
        <Caution lines={['Chock both ways. Stay clear of pushrods while air is on.']} />
      ) : null}
      {pass === 'applied' ? <HelperCalls unitId={rig.unit.id} /> : null}
      {hunt.joints.length === 0 ? <Waiting rows={6} /> : null}
      {hunt.walks
        .filter(({ state }) => state.id === pass)
        .map((listen) => (
          <View
            key={listen.id}
            style={{ flexDirection: 'row', alignItems: 'center', gap: space.near }}
          >
            <Txt as="small" style={{ flex: 1 }}>
              {hunt.heard.has(listen.id)
                ? `Heard: ${hunt.heard.get(listen.id)}.`
                : 'Listen before you wet: a walk round with an open ear names the loudest.'}
            </Txt>
            {mayWrite ? (
              <Button
                title={hunt.heard.has(listen.id) ? 'Again' : 'What I heard'}
                label={`What I heard on a walk round, ${PASS_TITLES[pass].toLowerCase()}`}
                onPress={() => setMore(listen)}
              />
            ) : null}
          </View>
        ))}
      <View style={{ flexDirection: 'row', alignItems: 'center', gap: space.near, minHeight: 48 }}>
        <Txt as="smallBold" style={{ flex: 1 }} live="polite">
          {`${asked.length - open.length} of ${asked.length} wetted`}
        </Txt>
        {mayWrite && open.length > 0 && open.length < asked.length ? (
          <Button
            title={`Other ${open.length} dry`}
            label={`The other ${open.length} joints of this pass are dry`}
            onPress={restDry}
          />
        ) : null}
      </View>
      <View role="list" aria-label={`Joints, ${PASS_TITLES[pass]}`}>
        {joints.map((joint) => (
          <JointRow
            key={joint.checkId}
            joint={joint}
            title={titleOf(joint)}
            last={hunt.last.get(joint.place)}
            side={sides.get(joint.checkId) ?? null}
            likely={(hunt.budget?.places.get(joint.place) ?? 0) >= LIKELY}
            airless={pass !== 'running' && hunt.airless.includes(joint.place)}
            mayWrite={mayWrite}
            onGrade={onGrade}
            onSide={onSide}
            onMend={setMending}
            onMore={onMore}
          />
        ))}
        <Rule />
      </View>
      <Txt as="heading" heading={2}>
        Seen on the way
      </Txt>
      {asides.length === 0 ? (
        <Txt as="small" tone="quiet">
          Steering, corrosion, linings, wiring: what is no leak goes here, and becomes a job in the
          visit.
        </Txt>
      ) : (
        <View role="list" aria-label="Seen on the way">
          {asides.map((each) => (
            <View key={each.id} role="listitem">
              <Rule />
              <View style={{ paddingVertical: space.near }}>
                <Txt as="bodyBold">
                  {ASIDES.find(({ value }) => value === each.about)?.title ?? 'Something else'}
                </Txt>
                <Txt>{each.text}</Txt>
              </View>
            </View>
          ))}
          <Rule />
        </View>
      )}
      {mayWrite ? <Button title="Something else seen…" onPress={() => setAside(true)} /> : null}
      <ItsVisit visitId={walk.visitId} />
    </View>
  );

  const sheets = (
    <>
      {holding ? (
        <HoldSheet
          unit={sayIn}
          school={school}
          states={states}
          needles={needles}
          state={holding.state}
          needle={holding.needle}
          begun={begun}
          onBegin={setBegun}
          onDrop={() => {
            setBegun(null);
            setHolding(null);
          }}
          onDone={({ state, needle, fromPsi, toPsi, seconds }) => {
            setBegun(null);
            setHolding(null);
            const taught = hunt.teaches({
              state,
              needle,
              fromPsi,
              toPsi,
              seconds,
              atMs: deviceMs(),
            });
            void walk.say({
              kind: 'held',
              unitId: rig.unit.id,
              state,
              needle,
              fromPsi,
              toPsi,
              seconds,
              ...(taught.length > 0 ? { taught } : {}),
              text: sayHeld(state, needleTitles[needle], fromPsi, toPsi, seconds, sayIn),
            });
          }}
          onLeave={() => setHolding(null)}
        />
      ) : null}
      {mending ? (
        <MendWith
          rig={rig}
          joint={mending}
          title={titleOf(mending)}
          onLeave={() => setMending(null)}
          onDone={(how, adapters, photos) => {
            setMending(null);
            const words = MENDS.find(({ value }) => value === how)?.title ?? how;
            void walk.say(
              {
                kind: 'mended',
                at: atOf(mending),
                checkId: mending.checkId,
                how,
                ...(adapters ? { adapters } : {}),
                text: [mending.title, words.toLowerCase(), adapters].filter(Boolean).join(', '),
              },
              photos,
            );
          }}
        />
      ) : null}
      {more ? (
        <CheckSheet
          check={more}
          unit={walk.units[more.unit]}
          onDone={(given, note, photos) => {
            setMore(null);
            void walk.say(
              {
                kind: 'check',
                at: atOf(more),
                checkId: more.id,
                title: more.title,
                answer: given as never,
                said: sayAnswer(given, more.answer, sayIn),
                ...(sides.get(more.id) ? { side: sides.get(more.id)! } : {}),
                ...(note === null ? {} : { note }),
              },
              photos,
            );
          }}
          onLeave={() => setMore(null)}
        />
      ) : null}
      {aside ? (
        <AsideSheet
          units={walk.units.map((each) => ({ id: each.id, title: unitTitle(each) }))}
          onDone={(unitId, about, text, photos) => {
            setAside(false);
            void walk.say({ kind: 'aside', unitId, about, text }, photos);
          }}
          onLeave={() => setAside(false)}
        />
      ) : null}
    </>
  );

  return (
    <WalkPage
      walk={walk}
      mayWrite={mayWrite}
      head={head}
      list={list}
      side={air}
      sideFirst
      sheets={sheets}
    />
  );
}

/** The mend of a joint, with what hangs on it worked out apart from the screen. */
function MendWith({
  rig,
  joint,
  ...sheet
}: {
  rig: RigUnderTest;
  joint: Joint;
  title: string;
  onDone: Parameters<typeof JointMendSheet>[0]['onDone'];
  onLeave: () => void;
}) {
  const { names } = useLosesAir(rig, joint.place);
  const drawing = `/unit/${rig.unit.id}/air?capped=${encodeURIComponent(joint.place)}`;
  return <JointMendSheet {...sheet} loses={names} drawing={drawing} />;
}

/** States a rig can be held in. */
const statesOf = ({ unit, towed }: RigUnderTest): readonly HeldState[] => {
  const powered = unit.kind !== 'trailer' && unit.kind !== 'dolly';
  return [
    'parked',
    'released',
    ...(powered && towed.length > 0 ? (['red out'] as const) : []),
    'applied',
    ...(powered ? (['supply drained'] as const) : []),
    ...(powered && towed.length > 1 ? (['cocks shut'] as const) : []),
  ];
};
