import type { Unit } from '@keen-bleed/contract';
import { unitTitle } from '@keen-bleed/core';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useUnits } from '../data/useRecords';
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
import { drainedDry, notDrained, type DrainKept } from './drainUnit';
import { useLastDrained, type LastDrained } from './useLastDrained';

const DAY_MS = 86_400_000;

/** The tanks of the whole yard: one touch for a unit that gave nothing, two for one that gave something; undone as fast. */
export function DrainRoundScreen() {
  const me = useMe();
  const units = useUnits();
  const last = useLastDrained(me.shopId);
  const [nowMs] = useState(() => Date.now());
  const [busy, setBusy] = useState<string | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  /** What was written down here and can be taken back, by unit. */
  const [kept, setKept] = useState<ReadonlyMap<string, DrainKept>>(new Map());
  const rows = useMemo(
    () =>
      (units.data ?? [])
        .filter(({ retiredAtMs, tanks }) => retiredAtMs === null && tanks.length > 0)
        .map((unit) => ({ unit, last: last.of(unit.id) })),
    [last, units.data],
  );
  // The order is that of the yard when the round began: nothing moves away under a finger.
  const [order, setOrder] = useState<readonly string[] | null>(null);
  if (order === null && last.ready && units.data) {
    const byAge = [...rows].sort(
      (a, b) =>
        (a.last?.atMs ?? 0) - (b.last?.atMs ?? 0) || a.unit.number.localeCompare(b.unit.number),
    );
    setOrder(byAge.map(({ unit }) => unit.id));
  }
  const listed = [...rows].sort(
    (a, b) => (order?.indexOf(a.unit.id) ?? 0) - (order?.indexOf(b.unit.id) ?? 0),
  );
  const isDone = (found: LastDrained | null) => found !== null && found.atMs > nowMs - DAY_MS;
  const done = rows.filter(({ last: found }) => isDone(found)).length;
  const doing = async (unit: Unit, does: () => Promise<DrainKept | string | null>) => {
    setBusy(unit.id);
    try {
      const made = await does();
      setTrouble(typeof made === 'string' ? made : null);
      if (typeof made === 'string') return;
      setKept((before) => {
        const next = new Map(before);
        if (made) next.set(unit.id, made);
        else next.delete(unit.id);
        return next;
      });
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
        {listed.map(({ unit, last: found }) => {
          const taken = kept.get(unit.id);
          return (
            <DrainUnit
              key={unit.id}
              unit={unit}
              when={
                found === null
                  ? 'no drain is written down'
                  : isDone(found)
                    ? `drained ${sayAgo(found.atMs, nowMs)}, ${sayMinute(found.atMs)}`
                    : `last drained ${sayAgo(found.atMs, nowMs)}`
              }
              said={shortly(found?.said ?? null)}
              done={isDone(found)}
              busy={busy === unit.id}
              onDry={
                me.role === 'viewer' ? null : () => void doing(unit, () => drainedDry(me, unit))
              }
              onUndo={taken ? () => void doing(unit, () => notDrained(me, taken)) : null}
            />
          );
        })}
        <Rule />
      </View>
    </Screen>
  );
}

/** What came out, by its tank; that a tank was dry is no news in a list of drained ones. */
function shortly(said: string | null): string | null {
  const [, tank, what] = /^Drain the (.+) and look: (.+)$/.exec(said ?? '') ?? [];
  if (tank === undefined || what === undefined) return said;
  return what === 'dry' ? null : `${tank.charAt(0).toUpperCase()}${tank.slice(1)}: ${what}`;
}

/** Both buttons of a row are as wide, so that what stands before them stays in its column. */
const BUTTON = { minWidth: 92 } as const;

interface DrainUnitProps {
  unit: Unit;
  when: string;
  said: string | null;
  done: boolean;
  busy: boolean;
  onDry: (() => void) | null;
  /** Takes back what was just written down. */
  onUndo: (() => void) | null;
}

function DrainUnit({ unit, when, said, done, busy, onDry, onUndo }: DrainUnitProps) {
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
        {onUndo ? (
          <Button
            title="Undo"
            manner="quiet"
            label={`Undo: ${title} was not drained`}
            busy={busy}
            onPress={onUndo}
            style={BUTTON}
          />
        ) : onDry ? (
          <Button
            title={done ? 'Dry again' : 'All dry'}
            label={`All tanks of ${title} are dry`}
            busy={busy}
            onPress={onDry}
            style={BUTTON}
          />
        ) : null}
      </View>
    </View>
  );
}
