import { rigTitle, type RigUnderTest } from '@keen-bleed/core';
import { useLocalSearchParams } from 'expo-router';
import { useMemo, useState } from 'react';
import { useRigs, useUnit, useUnits } from '../data/useRecords';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';
import { Waiting } from '../ui/Waiting';
import { placeNotes } from './placeNotes';
import { SeeThrough } from './SeeThrough';
import { useDrawn } from './useDrawn';

/** The air of a unit, or of the rig it is coupled in, drawn from its description. */
export function AirScreen() {
  const { id } = useLocalSearchParams<{ id: string }>();
  const unit = useUnit(id);
  const units = useUnits();
  const rigs = useRigs();
  const under = useMemo((): RigUnderTest | null => {
    // Not before it is known what is coupled: a drawing that is made anew moves away under a finger.
    if (!(rigs.data ?? rigs.error) || !(units.data ?? units.error)) return null;
    const rig = rigs.data?.find((each) => each.unitIds[0] === id);
    const [first, ...towed] =
      rig?.unitIds.flatMap((each) => units.data?.find((one) => one.id === each) ?? []) ?? [];
    if (first && towed.length + 1 === rig?.unitIds.length) return { unit: first, towed };
    return unit.data ? { unit: unit.data, towed: [] } : null;
  }, [id, rigs.data, rigs.error, unit.data, units.data, units.error]);
  const { drawn, failed, again } = useDrawn(under);
  const [chosen, setChosen] = useState<string | null>(null);
  const place = drawn?.places.find(({ id: each }) => each === chosen) ?? null;
  const note = place ? placeNotes[place.kind] : null;
  if (!under || !drawn) {
    return (
      <Screen title="Air system">
        {unit.error ? (
          <Notice manner="trouble" title="This unit cannot be drawn" text={unit.error.message} />
        ) : failed ? (
          <Notice
            manner="trouble"
            title="This unit could not be drawn"
            text="Its drawing is made on this device, and that went wrong."
            action={{ title: 'Draw it again', onPress: again }}
          />
        ) : (
          <Waiting rows={6} />
        )}
      </Screen>
    );
  }
  return (
    <Screen title="Air system" lead={rigTitle(under)} width={2400}>
      {place && note ? (
        <>
          <Txt as="bodyBold">{place.name}</Txt>
          <Txt>{note.does}</Txt>
          <Txt as="small" tone="quiet">{`Tested by: ${note.tests}`}</Txt>
        </>
      ) : (
        <Txt tone="quiet">
          Red is supply, blue service, yellow park. Tap a part for what it does.
        </Txt>
      )}
      <SeeThrough
        rig={drawn}
        frame={null}
        unit={under.unit.gauge.unit}
        ports={under.unit.ports}
        chosen={chosen}
        onChoose={setChosen}
      />
    </Screen>
  );
}
