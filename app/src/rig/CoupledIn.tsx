import type { Rig, Unit } from '@keen-bleed/contract';
import { unitTitle } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { useRigs, useUnits } from '../data/useRecords';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { LinkTo } from '../ui/LinkTo';
import { Notice } from '../ui/Notice';
import { Txt } from '../ui/Txt';

/** What a unit is coupled with now, and the way to change it. */
export function CoupledIn({ unit }: { unit: Unit }) {
  const me = useMe();
  const rigs = useRigs();
  const units = useUnits();
  const [trouble, setTrouble] = useState<string | null>(null);
  if (!rigs.data || !units.data || unit.kind === 'bus') return null;
  const rig: Rig | null = rigs.data.find((each) => each.unitIds.includes(unit.id)) ?? null;
  const mayChange = me.role !== 'viewer' && unit.retiredAtMs === null;
  const uncouple = async () => {
    if (!rig) return;
    try {
      await ask('POST', `/api/v1/rigs/${rig.id}/uncouple`, { revision: rig.revision });
      setTrouble(null);
    } catch (error) {
      setTrouble(asProblem(error).message);
    }
    await rigs.mutate();
  };
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="heading" heading={2}>
        Coupled
      </Txt>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      {rig ? (
        <>
          {rig.unitIds.map((id, place) => {
            const each = units.data?.find((other) => other.id === id);
            if (!each) return null;
            const words = `${place + 1}  ${unitTitle(each)}`;
            return id === unit.id ? (
              <Txt key={id} as="bodyBold" style={{ paddingVertical: space.near }}>
                {words}
              </Txt>
            ) : (
              <LinkTo key={id} to={`/unit/${id}`}>
                <Txt tone="accent">{words}</Txt>
              </LinkTo>
            );
          })}
          {mayChange ? (
            <Button
              title="Uncouple"
              onPress={() => void uncouple()}
              style={{ alignSelf: 'flex-start' }}
            />
          ) : null}
        </>
      ) : (
        <>
          <Txt tone="quiet">Stands alone.</Txt>
          {mayChange ? (
            <LinkTo to={`/couple?front=${unit.id}`}>
              <Txt as="bodyBold" tone="accent">
                Couple a rig
              </Txt>
            </LinkTo>
          ) : null}
        </>
      )}
    </View>
  );
}
