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

/** Asks for what the server has worked out of a rig, by its units, front to rear. */
export const AskTableSchema = Type.Object(
  {
    unitIds: Type.Array(Uuid('Unit'), {
      minItems: 1,
      maxItems: 6,
      uniqueItems: true,
      title: 'Units, front to rear',
    }),
  },
  { ...closed, title: 'Rig to work out' },
);

const By = Type.Record(Type.String(), Type.Unknown());

/** How far the server is with a rig, or its table: which is read by the same version of the same code alone. */
export const SuspectTableSchema = Type.Union(
  [
    Type.Object(
      {
        standing: Type.Literal('ready'),
        rigKey: Type.String({ title: 'Rig' }),
        coreVersion: Type.String({ title: 'Version' }),
        table: Type.Object(
          {
            runs: By,
            answers: By,
            soundRuns: Type.Array(Type.Unknown()),
            soundAnswers: Type.Array(By),
          },
          { ...closed, title: 'Table' },
        ),
      },
      closed,
    ),
    Type.Object(
      {
        standing: Type.Literal('working'),
        share: Type.Number({ minimum: 0, maximum: 1, title: 'Share' }),
      },
      closed,
    ),
    Type.Object({ standing: Type.Literal('waiting') }, closed),
    Type.Object({ standing: Type.Literal('failed') }, closed),
  ],
  { title: 'Table of a rig' },
);

export type AskTable = Static<typeof AskTableSchema>;
export type SuspectTable = Static<typeof SuspectTableSchema>;
export type CoupleRig = Static<typeof CoupleRigSchema>;
export type UncoupleRig = Static<typeof UncoupleRigSchema>;
export type Rig = Static<typeof RigSchema>;
