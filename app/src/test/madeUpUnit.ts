import type { Unit, UnitKind } from '@keen-bleed/contract';
import { newUnitDraft } from '@keen-bleed/core';

/** A unit that exists nowhere, the usual one of its kind. */
export const madeUpUnit = (kind: UnitKind = 'truck', change: Partial<Unit> = {}): Unit => ({
  id: '00000000-0000-7000-8000-000000000001',
  revision: 1,
  retiredAtMs: null,
  ...newUnitDraft(kind, 2015),
  number: '7',
  name: 'Tipper',
  ...change,
});
