import type { Unit } from '@keen-bleed/contract';
import { unitTitle } from '@keen-bleed/core';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useDrains, useUnits } from '../data/useRecords';
import { sayAgo, sayMinute } from '../data/when';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { Button } from '../ui/Button';
import { Caution } from '../ui/Caution';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { OutboxSign } from '../ui/OutboxSign';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { drainedDry } from './drainUnit';

const DAY_MS = 86_400_000;

/** The tanks of the whole yard: one touch for a unit that gave nothing, two for one that gave something. */
export function DrainRoundScreen() {
  const me = useMe();
  const units = useUnits();
  const drains = useDrains();
  const [nowMs] = useState(() => Date.now());
  // What was done here stands at once, sent or not.
  const [here, setHere] = useState<ReadonlyMap<string, number>>(new Map());
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const rows = useMemo(() => {
    const of = new Map((drains.data ?? []).map((each) => [each.unitId, each]));
    return (units.data ?? [])
      .filter(({ retiredAtMs, kind }) => retiredAtMs === null && kind !== 'dolly')
      .map((unit) => {
        const known = of.get(unit.id);
        return {
          unit,
          atMs: here.get(unit.id) ?? known?.drainedAtMs ?? null,
          said: here.has(unit.id) ? null : (known?.said ?? null),
        };
      });
  }, [drains.data, here, units.data]);
  // The order is that of the yard when the round began: nothing moves away under a finger.
  const order = useMemo(() => {
    const of = new Map((drains.data ?? []).map(({ unitId, drainedAtMs }) => [unitId, drainedAtMs]));
    return (id: string) => of.get(id) ?? 0;
  }, [drains.data]);
  const listed = [...rows].sort(
    (a, b) => order(a.unit.id) - order(b.unit.id) || a.unit.number.localeCompare(b.unit.number),
  );
  const isDone = (atMs: number | null) => atMs !== null && atMs > nowMs - DAY_MS;
  const done = rows.filter(({ atMs }) => isDone(atMs)).length;
  const dry = async (unit: Unit) => {
    setBusy(unit.id);
    try {
      const problem = await drainedDry(me, unit);
      setTrouble(problem);
      if (problem === null) setHere((before) => new Map(before).set(unit.id, Date.now()));
    } catch {
      setTrouble('This device could not keep that. Free some space on it, then try again.');
    } finally {
      setBusy(null);
    }
  };
  return (
    <Screen
      title="Drain round"
      aside={<OutboxSign />}
      lead={`${done} of ${rows.length} drained within a day`}
      width={760}
    >
      <Caution lines={['Look away from each drain: it throws out water, oil and grit.']} />
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {!units.data ? <Waiting rows={6} /> : null}
      {units.data && rows.length === 0 ? (
        <Notice title="No units yet" text="Enter the first in the yard." />
      ) : null}
      <View role="list" aria-label="Units to drain">
        {listed.map(({ unit, atMs, said }) => (
          <DrainUnit
            key={unit.id}
            unit={unit}
            when={
              atMs === null
                ? 'no drain is written down'
                : isDone(atMs)
                  ? `drained ${sayAgo(atMs, nowMs)}, ${sayMinute(atMs)}`
                  : `last drained ${sayAgo(atMs, nowMs)}`
            }
            said={said}
            done={isDone(atMs)}
            busy={busy === unit.id}
            onDry={me.role === 'viewer' ? null : () => void dry(unit)}
          />
        ))}
        <Rule />
      </View>
    </Screen>
  );
}

interface DrainUnitProps {
  unit: Unit;
  when: string;
  said: string | null;
  done: boolean;
  busy: boolean;
  onDry: (() => void) | null;
}

function DrainUnit({ unit, when, said, done, busy, onDry }: DrainUnitProps) {
  const palette = usePalette();
  const title = unitTitle(unit);
  return (
    <View
      role="listitem"
      style={{ contentVisibility: 'auto', containIntrinsicSize: 'auto 84px' } as object}
    >
      <Rule />
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          gap: space.near,
          paddingVertical: space.near,
          paddingLeft: space.near,
          borderLeftWidth: 4,
          borderLeftColor: done ? palette.pass : palette.edge,
        }}
      >
        <View style={{ flex: 1 }}>
          <Txt as="bodyBold">{title}</Txt>
          <Txt as="small" tone="quiet">
            {when}
          </Txt>
          {said ? <Txt as="small">{said}</Txt> : null}
        </View>
        <LinkTo to={`/unit/${unit.id}/water`} label={`Water came out of ${title}`}>
          <Txt as="bodyBold" tone="accent" style={{ paddingHorizontal: space.near }}>
            Water…
          </Txt>
        </LinkTo>
        {onDry ? (
          <Button
            title={done ? 'Dry again' : 'All dry'}
            label={`All tanks of ${title} are dry`}
            busy={busy}
            onPress={onDry}
          />
        ) : null}
      </View>
    </View>
  );
}
