import type { UnitKind } from '@keen-bleed/contract';

/** True of kinds that make their own air; towed units are charged from outside. */
export function hasCompressor(kind: UnitKind): boolean {
  return kind === 'truck' || kind === 'tractor' || kind === 'bus';
}
