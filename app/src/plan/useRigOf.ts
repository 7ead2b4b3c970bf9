import type { Unit } from '@keen-bleed/contract';
import { useMemo } from 'react';
import { useRigs, useUnit, useUnits } from '../data/useRecords';

/** A unit with what it is coupled with, front to rear; null until that is known. */
export function useRigOf(id: string): {
  units: readonly Unit[] | null;
  rigId: string | null;
  error: Error | undefined;
} {
  const unit = useUnit(id);
  const units = useUnits();
  const rigs = useRigs();
  return useMemo(() => {
    // Not before it is known what is coupled: a drawing that is made anew moves away under a finger.
    if (!(rigs.data ?? rigs.error) || !(units.data ?? units.error))
      return { units: null, rigId: null, error: unit.error };
    const rig = rigs.data?.find((each) => each.unitIds[0] === id);
    const coupled =
      rig?.unitIds.flatMap((each) => units.data?.find((one) => one.id === each) ?? []) ?? [];
    if (rig?.unitIds.length === coupled.length)
      return { units: coupled, rigId: rig.id, error: undefined };
    return { units: unit.data ? [unit.data] : null, rigId: null, error: unit.error };
  }, [id, rigs.data, rigs.error, unit.data, unit.error, units.data, units.error]);
}
