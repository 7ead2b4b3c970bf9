import { newUnitDraft, type RigUnderTest } from '@keen-bleed/core';

/** A truck alone that exists nowhere. */
export const madeUpRig: RigUnderTest = {
  unit: {
    id: '00000000-0000-7000-8000-000000000001',
    revision: 1,
    retiredAtMs: null,
    ...newUnitDraft('truck', 2015),
    number: '15',
    name: 'Gritter',
  },
  towed: [],
};
