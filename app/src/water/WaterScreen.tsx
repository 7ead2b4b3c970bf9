import type { DrainedThing, Unit, WaterFound } from '@keen-bleed/contract';
import { rigTitle, type RigUnderTest } from '@keen-bleed/core';
import {
  dryerHealth,
  frostRisks,
  gradeOfAmount,
  totalMl,
  type DrainAmount,
} from '@keen-bleed/core/water';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { sayAgo } from '../data/when';
import { useWalkRound } from '../parts/useWalkRound';
import { ItsVisit, WalkPage } from '../parts/WalkPage';
import { OfRig } from '../plan/OfRig';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { ApplicationsTable } from './ApplicationsTable';
import { DrainRow } from './DrainRow';
import { DrainSheet } from './DrainSheet';
import { DryerPanel } from './DryerPanel';
import { Iced, Oiled } from './IceAndOil';
import { useLastDrained } from './useLastDrained';
import { ROUND_MS, useWater, type Drain, type Weather } from './useWater';
import { sayDegrees, sayDrained } from './waterWords';
import { WeatherSheet } from './WeatherSheet';

/** What every drain of a rig gave, and what that says of its dryer and of tonight. */
export function WaterScreen() {
  return <OfRig title="Water">{(units, rigId) => <Watered units={units} rigId={rigId} />}</OfRig>;
}

/** A day's work of an engine, and a usual share of it in which the compressor pumps [common practice, no source]. */
const HOURS_A_DAY = 8;
const DAY_MS = 86_400_000;
const LOADED = 0.2;
const CUT_OUT_PSI = 120;

function Watered({ units, rigId }: { units: readonly Unit[]; rigId: string | null }) {
  const me = useMe();
  const { unit: sayIn } = usePrefs();
  const walk = useWalkRound(units, rigId, 'Drain round');
  const rig = useMemo((): RigUnderTest => {
    const [unit, ...towed] = walk.units;
    return { unit: unit!, towed };
  }, [walk.units]);
  const [nowMs] = useState(() => Date.now());
  const water = useWater(walk.units, rig, walk, nowMs);
  const [more, setMore] = useState<Drain | null>(null);
  const [asking, setAsking] = useState(false);
  const mayWrite = me.role !== 'viewer' && rig.unit.retiredAtMs === null;
  const last = useLastDrained(me.shopId).of(rig.unit.id);
  const { weather, now, round, roundMs } = water;
  // Drained before this round, in one of its own or before a run.
  const isBefore = last !== null && (roundMs === null || last.atMs <= roundMs - ROUND_MS);
  const otherMs = isBefore ? last.atMs : null;
  const beforeMs = water.beforeMs === null ? otherMs : Math.max(water.beforeMs, otherMs ?? 0);
  // Eight hours for each day since; a day where nobody wrote down when.
  const usualHours =
    beforeMs === null
      ? HOURS_A_DAY
      : Math.max(1, Math.round(((nowMs - beforeMs) / DAY_MS) * HOURS_A_DAY));
  const drained = useMemo(() => [...round.values()], [round]);
  const foundMl = useMemo(() => (drained.length > 0 ? totalMl(drained) : null), [drained]);
  const cutOutPsi = rig.unit.governor?.cutOutPsi ?? CUT_OUT_PSI;
  const hasDryer = !(rig.unit.parts ?? []).some(
    ({ partId, standing }) => partId === 'dryer' && standing === 'not-fitted',
  );
  const told = useMemo(() => {
    if (!weather) return null;
    const health = dryerHealth(
      {
        airC: weather.airC,
        humidity: weather.humidityPct / 100,
        engineHours: weather.engineHours ?? usualHours,
        loadedShare: weather.loadedShare ?? LOADED,
        scfm: water.scfm,
        tankPsi: cutOutPsi,
        hasDryer,
      },
      foundMl,
    );
    return {
      health,
      frost: weather.lowC === undefined ? [] : frostRisks(health, weather.lowC, cutOutPsi),
    };
  }, [weather, usualHours, water.scfm, cutOutPsi, hasDryer, foundMl]);
  const waterMl = Object.fromEntries(
    [...round.values()].map((each) => {
      const [from, to] = totalMl([each]);
      return [each.place, Math.round((from + to) / 2)];
    }),
  );

  const keep = (
    drain: Drain,
    amount: DrainAmount,
    more: Omit<WaterFound, 'mist'> & { note?: string },
    photos: readonly Blob[] = [],
  ) => {
    const { note, with: shared = [], stuck, ...found } = more;
    const kept: WaterFound = {
      ...(amount === 'mist' ? { mist: true } : {}),
      ...found,
      ...(stuck ? { stuck } : {}),
      ...(shared.length > 0 ? { with: shared } : {}),
    };
    void walk.say(
      {
        kind: 'check',
        at: {
          unitId: walk.units[drain.check.unit]?.id ?? rig.unit.id,
          partId: drain.check.part,
        },
        checkId: drain.check.id,
        title: drain.check.title,
        answer: { kind: 'grade', grade: gradeOfAmount(amount) },
        said: sayDrained(amount, kept),
        ...(Object.keys(kept).length > 0 ? { water: kept } : {}),
        ...(note === undefined ? {} : { note }),
      },
      photos,
    );
  };
  /** A cord that drains several does so however much comes. */
  const cordOf = (drain: Drain) => ({ with: [...(now.get(drain.place)?.with ?? [])] });
  const moreOf = (drain: Drain, what?: DrainedThing[]) => {
    const last = now.get(drain.place);
    const things = what ?? [...(last?.what ?? [])];
    return {
      ...(last?.ml === null || last?.ml === undefined ? {} : { ml: last.ml }),
      ...(things.length > 0 ? { what: things } : {}),
      ...(last?.stuck ? { stuck: true } : {}),
      ...cordOf(drain),
    };
  };
  const keepWeather = (said: Weather) => {
    setAsking(false);
    void walk.say({
      kind: 'weather',
      unitId: rig.unit.id,
      ...said,
      text: `${sayDegrees(said.airC, sayIn)}, ${said.humidityPct} % humidity${said.lowC === undefined ? '' : `, down to ${sayDegrees(said.lowC, sayIn)} tonight`}`,
    });
  };
  const sinceWhen =
    last === null ? 'no drain is written down' : `last drained ${sayAgo(last.atMs, nowMs)}`;
  const titleOf = ({ title, check }: Drain) =>
    walk.units.length > 1 ? `${title} · ${walk.units[check.unit]?.number ?? ''}` : title;
  /** The drain whose cord drained this tank as well, by name. */
  const sharedWith = ({ check }: Drain): string | null =>
    water.drains.find(
      (other) =>
        other.check.unit === check.unit && now.get(other.place)?.with?.includes(check.part),
    )?.title ?? null;
  const has = (thing: DrainedThing) => drained.some(({ what }) => what.includes(thing));

  const head = (
    <View style={{ gap: space.step }}>
      <View style={{ gap: space.hair }}>
        <Txt as="screenTitle" heading={1}>
          Water
        </Txt>
        <Txt tone="quiet">{`${rigTitle(rig)} · ${sinceWhen}`}</Txt>
      </View>
      {walk.trouble ? <Notice manner="trouble" title={walk.trouble} /> : null}
    </View>
  );
  const list = (
    <View style={{ gap: space.step }}>
      {mayWrite ? (
        <Caution lines={['Look away from each drain: it throws out water, oil and grit.']} />
      ) : null}
      {water.drains.length === 0 ? <Waiting rows={4} /> : null}
      <View role="list" aria-label="Drains">
        {water.drains.map((drain) => (
          <DrainRow
            key={drain.check.id}
            title={titleOf(drain)}
            drained={now.get(drain.place)}
            sharedWith={sharedWith(drain)}
            mayWrite={mayWrite}
            onAmount={(amount) =>
              keep(drain, amount, amount === 'dry' ? cordOf(drain) : moreOf(drain))
            }
            onWhat={(what) =>
              keep(drain, now.get(drain.place)?.amount ?? 'mist', moreOf(drain, what))
            }
            onMore={() => setMore(drain)}
          />
        ))}
        <Rule />
      </View>
      <ItsVisit visitId={walk.visitId} />
    </View>
  );
  const side = (
    <View style={{ gap: space.gap }}>
      <View style={{ gap: space.near }}>
        <Txt as="heading" heading={2}>
          Weather and work
        </Txt>
        {roundMs !== null && now.size === 0 ? (
          <Txt
            as="small"
            tone="quiet"
          >{`Below is what the round of ${sayAgo(roundMs, nowMs)} said.`}</Txt>
        ) : null}
        {weather ? (
          <Txt as="small">
            {`${sayDegrees(weather.airC, sayIn)} and ${weather.humidityPct} % (${sayAgo(weather.atMs, nowMs)}). About ${weather.engineHours ?? usualHours} engine hours, the compressor pumping ${Math.round(100 * (weather.loadedShare ?? LOADED))} % of them at ${Math.round(water.scfm)} scfm${water.scfmByRun ? ', by the last run' : ', as is usual'}.`}
          </Txt>
        ) : (
          <Txt as="small" tone="quiet">
            How warm and damp the air is says how much water there should be.
          </Txt>
        )}
        {mayWrite ? (
          <Button
            title={weather ? 'Weather now…' : 'Say the weather…'}
            size="glove"
            onPress={() => setAsking(true)}
          />
        ) : null}
      </View>
      {told ? (
        <DryerPanel
          health={told.health}
          foundMl={foundMl}
          frost={told.frost}
          lowC={weather?.lowC}
          unit={sayIn}
        />
      ) : null}
      <ApplicationsTable rig={rig} waterMl={waterMl} unit={sayIn} school={rig.unit.ports} />
      {has('oil') || has('milky') ? <Oiled unitId={rig.unit.id} /> : null}
      {has('ice') || (weather?.lowC ?? 1) < 0 ? <Iced found={has('ice')} /> : null}
    </View>
  );
  const sheets = (
    <>
      {more ? (
        <DrainSheet
          drain={more}
          drained={now.get(more.place)}
          others={water.drains.filter(
            (each) => each.check.unit === more.check.unit && each.check.id !== more.check.id,
          )}
          onDone={({ ml, stuck, withParts, note }, photos) => {
            setMore(null);
            const amount = amountOf(now.get(more.place)?.amount, ml);
            keep(
              more,
              amount,
              {
                ...moreOf(more),
                ...(ml === null ? {} : { ml }),
                // What was said by mistake is taken away again.
                stuck,
                with: withParts,
                ...(note === null ? {} : { note }),
              },
              photos,
            );
          }}
          onLeave={() => setMore(null)}
        />
      ) : null}
      {asking ? (
        <WeatherSheet
          last={weather}
          engineHours={usualHours}
          onDone={keepWeather}
          onLeave={() => setAsking(false)}
        />
      ) : null}
    </>
  );
  return (
    <WalkPage walk={walk} mayWrite={mayWrite} head={head} list={list} side={side} sheets={sheets} />
  );
}

/** The word for a measured amount; what was said, where nothing was measured. */
function amountOf(said: DrainAmount | undefined, ml: number | null): DrainAmount {
  if (ml === null) return said ?? 'dry';
  if (ml < 0.5) return 'dry';
  if (ml < 5) return 'mist';
  if (ml < 30) return 'spoonful';
  return ml < 250 ? 'cup' : 'more';
}
