import type { Unit } from '@keen-bleed/contract';
import { partListOf, unitTitle, unlookedParts, type ListedPart } from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { useUnit } from '../data/useRecords';
import { usePrefs } from '../prefs/prefs';
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
import { useWalkRound } from './useWalkRound';

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

function Parts({ unit }: { unit: Unit }) {
  const me = useMe();
  const units = useMemo(() => [unit], [unit]);
  const { visitId, units: found, say: record, trouble } = useWalkRound(units, null, 'Parts');
  const [open, setOpen] = useState<ListedPart | null>(null);
  const now = found[0] ?? unit;
  const parts = [...partListOf(now), ...unlookedParts(now)];
  const usual = new Set(partListOf(now).map(({ id }) => id));
  const confirmed = parts.filter(({ record }) => record !== null).length;
  const mayWrite = me.role !== 'viewer' && unit.retiredAtMs === null;
  const say = async (part: ListedPart, said: PartSaid, photos: readonly Blob[] = []) => {
    setOpen(null);
    await record({ kind: 'part', at: { unitId: unit.id, partId: part.id }, ...said }, photos);
  };
  return (
    <Screen
      title={`Parts · ${unitTitle(unit)}`}
      lead={`${confirmed} of ${usual.size} confirmed. The others are as is usual on such a unit.`}
    >
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View role="list" aria-label="Parts" style={{ marginTop: space.step }}>
        {parts.map((part) => (
          <PartLine
            key={part.id}
            part={part}
            isUsual={usual.has(part.id)}
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
          onDone={(said, photos) => void say(open, said, photos)}
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
  /** Every such unit has it. */
  isUsual: boolean;
  /** Confirms that it is there; null for whoever may not. */
  onSee: (() => void) | null;
  onOpen: (() => void) | null;
}

function PartLine({ part, isUsual, onSee, onOpen }: PartLineProps) {
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
            {record || isUsual ? sayPart(record, unit) : 'only on some units, not looked for'}
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
