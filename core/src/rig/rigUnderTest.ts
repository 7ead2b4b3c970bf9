import type { Coupling, Unit } from '@keen-bleed/contract';

/** What a run is made on: the unit in front, and what is coupled behind it, front to rear. */
export interface RigUnderTest {
  unit: Unit;
  towed: readonly Unit[];
}

/** How much is coupled behind the unit in front; a dolly goes with the trailer it carries. */
export function couplingOf({ towed }: Pick<RigUnderTest, 'towed'>): Coupling {
  const trailers = towed.filter((unit) => unit.kind === 'trailer').length;
  if (trailers === 0) return 'alone';
  return trailers === 1 ? 'one-trailer' : 'two-trailers';
}

/** Whether any chamber of a unit has a spring brake. */
export function hasSpringBrakes(unit: Pick<Unit, 'chambers'>): boolean {
  return unit.chambers.some((group) => group.springBrake);
}

/** Every unit of the rig, front to rear. */
export function unitsOf({ unit, towed }: RigUnderTest): readonly Unit[] {
  return [unit, ...towed];
}
