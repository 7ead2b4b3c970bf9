import { Type, type Static } from '@sinclair/typebox';
import { AtMs, Uuid } from './primitives';

const closed = { additionalProperties: false } as const;

/** Units coupled one behind the other, the one with the engine first. */
const unitIds = Type.Array(Uuid('Unit'), {
  minItems: 2,
  maxItems: 6,
  uniqueItems: true,
  title: 'Units, front to rear',
});

export const CoupleRigSchema = Type.Object(
  { id: Uuid('Rig id'), unitIds },
  { ...closed, title: 'New rig' },
);

export const UncoupleRigSchema = Type.Object(
  { revision: Type.Integer({ minimum: 1, title: 'Revision' }) },
  { ...closed, title: 'Uncoupling' },
);

/** A rig as kept. Uncoupled, it stays for its runs. */
export const RigSchema = Type.Object(
  {
    id: Uuid('Rig id'),
    revision: Type.Integer({ minimum: 1, title: 'Revision' }),
    unitIds,
    coupledAtMs: AtMs('Coupled'),
    uncoupledAtMs: Type.Union([AtMs('Uncoupled'), Type.Null()]),
  },
  { ...closed, title: 'Rig' },
);

export type CoupleRig = Static<typeof CoupleRigSchema>;
export type UncoupleRig = Static<typeof UncoupleRigSchema>;
export type Rig = Static<typeof RigSchema>;
