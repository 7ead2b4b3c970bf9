import type { Rig, Unit } from '@keen-bleed/contract';
import { readable } from '@keen-bleed/core';
import { router } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useRigs, useUnits, useUnitVisits } from '../data/useRecords';
import { sayAgo, sayDay } from '../data/when';
import { startVisit } from '../store/startVisit';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Field } from '../ui/Field';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Sheet } from '../ui/Sheet';
import { Txt } from '../ui/Txt';

const MOST_REASON = 120;
/** Visits shown before all are asked for. */
const SHOWN = 4;

/** The visits of a unit, and the way to start one on it or on the rig it is coupled in. */
export function UnitVisits({ unit, nowMs }: { unit: Unit; nowMs: number }) {
  const me = useMe();
  const visits = useUnitVisits(unit.id);
  const [starting, setStarting] = useState(false);
  const [all, setAll] = useState(false);
  const rows = visits.data ?? [];
  const shown = all ? rows : rows.slice(0, SHOWN);
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        Visits
      </Txt>
      {visits.data && rows.length === 0 ? (
        <Txt tone="quiet">None yet. What is seen on a walk round goes into one.</Txt>
      ) : null}
      {visits.error && !visits.data ? (
        <Txt tone="quiet">{`Visits on other devices cannot be shown: ${visits.error.message}`}</Txt>
      ) : null}
      {shown.length > 0 ? (
        <View role="list" aria-label="Visits">
          {shown.map((row) => (
            <View key={row.id} role="listitem">
              <Rule />
              <LinkTo to={`/visit/${row.id}`} style={{ paddingVertical: space.near, gap: 2 }}>
                <View
                  style={{ flexDirection: 'row', justifyContent: 'space-between', gap: space.step }}
                >
                  <Txt as="bodyBold">{sayDay(row.startedAtMs)}</Txt>
                  <Txt
                    as={row.closedAtMs === null ? 'bodyBold' : 'body'}
                    tone={row.closedAtMs === null ? 'ink' : 'quiet'}
                  >
                    {row.closedAtMs === null ? 'open' : 'closed'}
                  </Txt>
                </View>
                <Txt as="small" tone="quiet">
                  {[
                    row.title.includes(' + ') ? row.title : null,
                    row.headline,
                    row.by,
                    sayAgo(row.startedAtMs, nowMs),
                  ]
                    .filter(Boolean)
                    .join(' · ')}
                </Txt>
              </LinkTo>
            </View>
          ))}
          <Rule />
        </View>
      ) : null}
      <View style={{ flexDirection: 'row', gap: space.near }}>
        {me.role !== 'viewer' && unit.retiredAtMs === null ? (
          <Button title="Start a visit" onPress={() => setStarting(true)} />
        ) : null}
        {rows.length > SHOWN ? (
          <Button
            manner="quiet"
            title={all ? 'Newest only' : `All ${rows.length} visits`}
            onPress={() => setAll(!all)}
          />
        ) : null}
      </View>
      {starting ? <StartVisit unit={unit} onLeave={() => setStarting(false)} /> : null}
    </View>
  );
}

/** The way into a visit that is still open, at the head of the sheet: whoever comes to the unit has to see it. */
export function OpenVisits({ unitId }: { unitId: string }) {
  const open = (useUnitVisits(unitId).data ?? []).filter((row) => row.closedAtMs === null);
  return open.map((row) => (
    <LinkTo key={row.id} to={`/visit/${row.id}`} style={{ paddingVertical: space.near }}>
      <Txt as="bodyBold" tone="accent">{`Open visit: ${row.headline}`}</Txt>
    </LinkTo>
  ));
}

/** The units of a rig, front to rear, where all of them are known here. */
function wholeRig(rig: Rig | undefined, units: readonly Unit[]): [Unit, ...Unit[]] | null {
  const [front, ...towed] =
    rig?.unitIds.flatMap((id) => units.find((unit) => unit.id === id) ?? []) ?? [];
  return front && towed.length + 1 === rig?.unitIds.length ? [front, ...towed] : null;
}

function StartVisit({ unit, onLeave }: { unit: Unit; onLeave: () => void }) {
  const me = useMe();
  const rigs = useRigs();
  const units = useUnits();
  const rig = rigs.data?.find((each) => each.unitIds.includes(unit.id));
  const whole = wholeRig(rig, units.data ?? []);
  const [on, setOn] = useState<'unit' | 'rig'>('unit');
  const [reason, setReason] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const start = async () => {
    const words = readable(reason).trim();
    if (words.length > MOST_REASON) return setTrouble(`At most ${MOST_REASON} characters.`);
    try {
      const id = await startVisit(me, {
        ...(on === 'rig' && whole && rig
          ? { units: whole, rigId: rig.id }
          : { units: [unit] as const, rigId: null }),
        reason: words === '' ? null : words,
      });
      router.push(`/visit/${id}`);
    } catch {
      setTrouble('This device cannot keep a visit. Free some space on it, then try again.');
    }
  };
  return (
    <Sheet title="Start a visit" at="foot" onLeave={onLeave}>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {whole ? (
        <Choice
          label="On"
          options={[
            { value: 'unit', title: 'This unit' },
            { value: 'rig', title: 'The whole rig' },
          ]}
          value={on}
          onChange={setOn}
          size="glove"
        />
      ) : null}
      <Field
        label="Why"
        hint="if there is a reason"
        value={reason}
        onChange={setReason}
        lines={2}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" size="glove" style={{ flex: 1 }} onPress={onLeave} />
        <Button
          title="Start"
          manner="main"
          size="glove"
          style={{ flex: 1 }}
          onPress={() => void start()}
        />
      </View>
    </Sheet>
  );
}
