import { Type, type Static } from '@sinclair/typebox';
import { RunEventSchema } from './event';
import { OutcomeSchema } from './outcome';
import { AtMs, Uuid } from './primitives';
import { RuleSetSchema } from './ruleSet';
import { UnitSchema } from './unit';

const closed = { additionalProperties: false } as const;

/** What a run is fixed to when it starts: the units as they were, and the whole rule set. */
const header = {
  id: Uuid('Run id'),
  /** The unit in front, whose gauge is read. */
  unitId: Uuid('Unit id'),
  rigId: Type.Union([Uuid('Rig id'), Type.Null()], { title: 'Rig' }),
  startedAtMs: AtMs('Started'),
  unit: UnitSchema,
  /** What is coupled behind it, front to rear. */
  towed: Type.Array(UnitSchema, { maxItems: 5, title: 'Towed units' }),
  ruleSet: RuleSetSchema,
  /** Steps that were not due when it started. */
  leftOut: Type.Array(Type.String({ minLength: 1, maxLength: 40 }), {
    maxItems: 40,
    title: 'Left out from the start',
  }),
};

/** A request to open a run; sending it again changes nothing. */
export const OpenRunSchema = Type.Object(header, {
  ...closed,
  title: 'New run',
});

/** Facts to append, in order, from one place in the run on; ones already held are passed over. */
export const AppendEventsSchema = Type.Object(
  {
    events: Type.Array(RunEventSchema, {
      minItems: 1,
      maxItems: 200,
      title: 'Events',
    }),
  },
  { ...closed, title: 'Run events' },
);

/** A run as it leaves the product: the facts, what was computed from them, and by which version. */
export const RunExportSchema = Type.Object(
  {
    format: Type.Literal('keen-bleed/run/1'),
    run: Type.Object(
      {
        ...header,
        closedAtMs: Type.Union([AtMs('Closed'), Type.Null()]),
        by: Type.String(),
      },
      closed,
    ),
    events: Type.Array(RunEventSchema),
    outcome: OutcomeSchema,
    caution: Type.String({ title: 'What this record is not' }),
  },
  { ...closed, title: 'Run export', $id: 'keen-bleed-run-export-1' },
);

export type OpenRun = Static<typeof OpenRunSchema>;
export type AppendEvents = Static<typeof AppendEventsSchema>;
export type RunExport = Static<typeof RunExportSchema>;
