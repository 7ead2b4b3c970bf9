import type { Unit } from '@keen-bleed/contract';
import { checkCoupling, unitTitle } from '@keen-bleed/core';
import { router, useLocalSearchParams } from 'expo-router';
import { useState } from 'react';
import { View } from 'react-native';
import { v7 as uuidv7 } from 'uuid';
import { ask, asProblem } from '../wire/api';
import { useRigs, useUnits } from '../data/useRecords';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { forRecorders } from '../account/forRecorders';

/** Couples units into a rig: tapped front to rear. */
export const CoupleScreen = forRecorders('Couple a rig', Coupled);

function Coupled() {
  const { front } = useLocalSearchParams<{ front?: string }>();
  const units = useUnits();
  const rigs = useRigs();
  const [picked, setPicked] = useState<readonly string[]>(front ? [front] : []);
  const [id] = useState(() => uuidv7());
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  if (!units.data || !rigs.data) {
    return (
      <Screen title="Couple a rig">
        {(units.error ?? rigs.error) ? (
          <Notice
            manner="trouble"
            title="The units cannot be shown"
            text={(units.error ?? rigs.error)?.message ?? ''}
          />
        ) : (
          <Waiting rows={6} />
        )}
      </Screen>
    );
  }
  const taken = new Set(rigs.data.flatMap((rig) => rig.unitIds));
  const free = units.data.filter(
    (unit) => unit.retiredAtMs === null && !taken.has(unit.id) && unit.kind !== 'bus',
  );
  const chosen = picked.flatMap((unitId) => free.find((unit) => unit.id === unitId) ?? []);
  const problems = chosen.length > 1 ? checkCoupling(chosen) : [];
  const couple = async () => {
    setBusy(true);
    try {
      await ask('POST', '/api/v1/rigs', { id, unitIds: chosen.map((unit) => unit.id) });
      await rigs.mutate();
      router.replace(`/unit/${chosen[0]?.id ?? ''}`);
    } catch (error) {
      setTrouble(asProblem(error).message);
    } finally {
      setBusy(false);
    }
  };
  const toggle = (unit: Unit) => {
    setTrouble(null);
    setPicked(
      picked.includes(unit.id) ? picked.filter((each) => each !== unit.id) : [...picked, unit.id],
    );
  };
  return (
    <Screen
      title="Couple a rig"
      lead="Tap front to rear: the truck or tractor, then what it pulls."
      width={720}
    >
      <View style={{ gap: space.near, marginVertical: space.step }}>
        <Txt as="heading" heading={2} live="polite">
          {chosen.length > 0 ? chosen.map(unitTitle).join(' + ') : 'Nothing coupled yet'}
        </Txt>
        {problems.map((problem) => (
          <Notice key={problem.message} manner="trouble" title={problem.message} />
        ))}
        {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      </View>
      <View role="list" aria-label="Units to couple">
        {free.map((unit) => {
          const place = picked.indexOf(unit.id);
          return (
            <View key={unit.id} role="listitem">
              <Rule />
              <View
                style={{
                  flexDirection: 'row',
                  alignItems: 'center',
                  gap: space.step,
                  paddingVertical: space.hair,
                }}
              >
                <View style={{ flex: 1 }}>
                  <Txt as={place >= 0 ? 'bodyBold' : 'body'}>{unitTitle(unit)}</Txt>
                  <Txt as="small" tone="quiet">
                    {`${unit.kind}, built ${unit.buildYear}`}
                  </Txt>
                </View>
                {place >= 0 ? (
                  <Txt as="numberBold" tone="accent">
                    {String(place + 1)}
                  </Txt>
                ) : null}
                <Button
                  title={place >= 0 ? 'Take off' : 'Add'}
                  manner={place >= 0 ? 'plain' : 'quiet'}
                  label={`${place >= 0 ? 'Take off' : 'Add'} ${unitTitle(unit)}`}
                  onPress={() => toggle(unit)}
                />
              </View>
            </View>
          );
        })}
        <Rule />
      </View>
      <View style={{ flexDirection: 'row', gap: space.step, marginTop: space.gap }}>
        <Button
          title="Back"
          size="glove"
          onPress={() => (router.canGoBack() ? router.back() : router.replace('/'))}
        />
        <Button
          title="Couple"
          manner="main"
          size="glove"
          busy={busy}
          disabled={chosen.length < 2 || problems.length > 0}
          style={{ flexGrow: 1 }}
          onPress={() => void couple()}
        />
      </View>
    </Screen>
  );
}
