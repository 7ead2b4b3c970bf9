import type { Unit } from '@keen-bleed/contract';
import {
  partListOf,
  unitTitle,
  visitKind,
  withPart,
  type ListedPart,
  type VisitState,
} from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useUnit } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
import { openLogs } from '../store/logs';
import { recordIn } from '../store/recordIn';
import { startVisit } from '../store/startVisit';
import { useLog } from '../store/useLog';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { PartSheet, type PartSaid } from './PartSheet';
import { sayPart } from './sayPart';

/** A unit's parts in walking order: each confirmed by a tap while one stands beside it. */
export function PartsScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const unit = useUnit(id);
  if (!unit.data) {
    return (
      <Screen title="Parts">
        {unit.error ? (
          <Notice manner="trouble" title="This unit cannot be shown" text={unit.error.message} />
        ) : (
          <Waiting />
        )}
      </Screen>
    );
  }
  return <Parts unit={unit.data} />;
}

/** The visit in which parts are said on this device, where one of this unit alone is open. */
function useOwnVisit(unitId: string) {
  const me = useMe();
  const [visitId, setVisitId] = useState<string | null>(null);
  useEffect(() => {
    void openLogs(me).then((open) => {
      const own = open.find(
        ({ kind, header }) =>
          kind === 'visit' && header.subject.unitId === unitId && header.subject.rigId === null,
      );
      setVisitId(own?.id ?? null);
    });
  }, [me, unitId]);
  const live = useLog<'visit', VisitState>(visitKind, visitId ?? '', me);
  return {
    visitId,
    setVisitId,
    state: live === 'loading' || live === 'elsewhere' ? null : live.state,
  };
}

/** The unit as this device knows it: with what was found here and has not come back from the server yet. */
function asFoundHere(unit: Unit, state: VisitState | null): Unit {
  return (state?.parts ?? [])
    .filter(({ at }) => at.unitId === unit.id)
    .reduce((before, fact) => {
      const { standing, number, thread, setPsi, fittedOn, note, atMs, offsetMs } = fact;
      const found = { standing, number, thread, setPsi, fittedOn, note };
      const said = Object.fromEntries(
        Object.entries(found).filter(([, value]) => value !== undefined),
      ) as unknown as PartSaid;
      const foundAtMs = Math.round(atMs - (offsetMs ?? 0));
      return { ...before, ...withPart(before, { partId: fact.at.partId, ...said, foundAtMs }) };
    }, unit);
}

function Parts({ unit }: { unit: Unit }) {
  const me = useMe();
  const { visitId, setVisitId, state } = useOwnVisit(unit.id);
  const [open, setOpen] = useState<ListedPart | null>(null);
  const [trouble, setTrouble] = useState<string | null>(null);
  const parts = partListOf(asFoundHere(unit, state));
  const confirmed = parts.filter(({ record }) => record !== null).length;
  const mayWrite = me.role !== 'viewer' && unit.retiredAtMs === null;
  const say = async (part: ListedPart, said: PartSaid) => {
    setOpen(null);
    try {
      const id = visitId ?? (await startVisit(me, { units: [unit], rigId: null, reason: 'Parts' }));
      setVisitId(id);
      const at = { unitId: unit.id, partId: part.id };
      setTrouble(await recordIn(me, id, { kind: 'part', at, ...said }));
    } catch {
      setTrouble('This device could not keep that. Free some space on it, then try again.');
    }
  };
  return (
    <Screen
      title={`Parts · ${unitTitle(unit)}`}
      lead={`${confirmed} of ${parts.length} confirmed. The others are as is usual on such a unit.`}
    >
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View role="list" aria-label="Parts" style={{ marginTop: space.step }}>
        {parts.map((part) => (
          <PartLine
            key={part.id}
            part={part}
            onSee={mayWrite ? () => void say(part, { ...dataOf(part), standing: 'fitted' }) : null}
            onOpen={mayWrite ? () => setOpen(part) : null}
          />
        ))}
        <Rule />
      </View>
      <View style={{ gap: space.near, marginTop: space.gap, alignItems: 'flex-start' }}>
        {visitId ? (
          <LinkTo to={`/visit/${visitId}`}>
            <Txt as="bodyBold" tone="accent">
              The visit in which this is kept
            </Txt>
          </LinkTo>
        ) : null}
        <LinkTo to={`/unit/${unit.id}`}>
          <Txt as="bodyBold" tone="accent">{`Rig sheet of ${unitTitle(unit)}`}</Txt>
        </LinkTo>
      </View>
      {open ? (
        <PartSheet
          part={open}
          onDone={(said) => void say(open, said)}
          onLeave={() => setOpen(null)}
        />
      ) : null}
    </Screen>
  );
}

/** What is known of a part already: a tap confirms it and changes none of it. */
function dataOf({ record }: ListedPart): Omit<PartSaid, 'standing'> {
  if (!record) return {};
  const { partId: _partId, foundAtMs: _foundAtMs, standing: _standing, ...data } = record;
  return data;
}

interface PartLineProps {
  part: ListedPart;
  /** Confirms that it is there; null for whoever may not. */
  onSee: (() => void) | null;
  onOpen: (() => void) | null;
}

function PartLine({ part, onSee, onOpen }: PartLineProps) {
  const { unit } = usePrefs();
  const { record, title } = part;
  return (
    <View role="listitem">
      <Rule />
      <View
        style={{
          flexDirection: 'row',
          alignItems: 'center',
          gap: space.near,
          paddingVertical: space.hair,
        }}
      >
        <View style={{ flex: 1 }}>
          <Txt as={record ? 'bodyBold' : 'body'}>{title}</Txt>
          <Txt as="small" tone="quiet">
            {sayPart(record, unit)}
          </Txt>
        </View>
        {onSee && record?.standing !== 'fitted' ? (
          <Button title="Seen" label={`${title}: seen, it is fitted`} onPress={onSee} />
        ) : null}
        {onOpen ? (
          <Button title="…" manner="quiet" label={`${title}: say more`} onPress={onOpen} />
        ) : null}
      </View>
    </View>
  );
}
