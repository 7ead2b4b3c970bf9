import { OpenFailureSchema } from './failure';
import { Type } from '@sinclair/typebox';
import { unitKinds, verdicts, type UnitKind, type Verdict } from './choices';
import { FigureSchema } from './outcome';
import { AtMs, Uuid } from './primitives';
import { RigSchema } from './rig';
import { RuleSetSchema } from './ruleSet';
import { UnitSchema } from './unit';

const closed = { additionalProperties: false } as const;
const orNull = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) =>
  Type.Union([schema, Type.Null()]);

/** Every unit of a shop. */
export const UnitsSchema = Type.Array(UnitSchema, { title: 'Units' });

/** The rigs of a shop that are coupled now. */
export const RigsSchema = Type.Array(RigSchema, { title: 'Rigs' });

/** The rule sets a shop may run by, and the one it takes when none is picked. */
export const RuleSetListSchema = Type.Object(
  { sets: Type.Array(RuleSetSchema), defaultId: Type.String() },
  { ...closed, title: 'Rule sets' },
);

/** Every unit of a shop with its newest runs. */
export const YardRowsSchema = Type.Array(
  Type.Object(
    {
      unit: Type.Object(
        {
          id: Uuid('Unit id'),
          number: Type.String(),
          name: Type.String(),
          kind: Type.Unsafe<UnitKind>({ type: 'string', enum: [...unitKinds] }),
          revision: Type.Integer({ minimum: 1 }),
          testEveryDays: Type.Integer({ minimum: 1 }),
          retiredAtMs: orNull(AtMs('Retired at')),
        },
        closed,
      ),
      last: orNull(
        Type.Object(
          {
            runId: Uuid('Run'),
            closedAtMs: AtMs('Closed'),
            verdict: Type.Unsafe<Verdict>({ type: 'string', enum: [...verdicts] }),
            timeUnsure: Type.Boolean(),
            headline: Type.String(),
            decisive: orNull(FigureSchema),
          },
          closed,
        ),
      ),
      lastCompleteAtMs: orNull(AtMs('Last complete run')),
      open: orNull(
        Type.Object(
          { runId: Uuid('Run'), startedAtMs: AtMs('Started'), by: Type.String() },
          closed,
        ),
      ),
      leakTrendPsiPerMin: Type.Array(Type.Number()),
      failures: Type.Array(OpenFailureSchema),
    },
    closed,
  ),
  { title: 'Yard' },
);
