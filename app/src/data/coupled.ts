import type { Rig, Unit } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';

/** The units of a rig, front to rear, where all of them are known here. */
export function coupled(rig: Rig | null, units: readonly Unit[]): RigUnderTest | null {
  const found = rig?.unitIds.flatMap((id) => units.find((unit) => unit.id === id) ?? []) ?? [];
  const [unit, ...towed] = found;
  return rig && unit && found.length === rig.unitIds.length ? { unit, towed } : null;
}
