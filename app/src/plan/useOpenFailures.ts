import { sayFailure, unitsOf, type RigUnderTest } from '@keen-bleed/core';
import { failsAt } from '@keen-bleed/core/checks';
import { useMemo } from 'react';
import { useYard } from '../data/useRecords';
import { failuresOf } from '../failures/failuresOf';
import { usePrefs } from '../prefs/prefs';

/** What is open on the units of a rig, in words, with the parts it is at by key of the drawing. */
export function useOpenFailures(rig: RigUnderTest): readonly { text: string; keys: string[] }[] {
  const yard = useYard();
  const { unit: sayIn } = usePrefs();
  return useMemo(
    () =>
      unitsOf(rig).flatMap((unit, at) =>
        failuresOf(yard.data?.find((row) => row.unit.id === unit.id)).map((failure) => ({
          text: sayFailure(failure, sayIn),
          keys: failsAt(rig, failure.key)
            .filter((place) => place.unit === at)
            .map((place) => `${place.unit} ${place.part}`),
        })),
      ),
    [rig, sayIn, yard.data],
  );
}
