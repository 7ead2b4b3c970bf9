import { Type, type Static } from '@sinclair/typebox';
import { OpenFailureSchema } from '../../failure';
import { OutcomeSchema } from '../../outcome';
import { AtMs, Uuid } from '../../primitives';
import { RuleSetSchema } from '../../ruleSet';
import { UnitSchema } from '../../unit';
import { ExportedChainSchema } from '../chain';
import { headerOf, type LogHeader } from '../header';
import { RunFactSchema } from './fact';
import { StepSchema } from './step';

const closed = { additionalProperties: false } as const;

/** What a run is fixed to: the units as they were, the whole rule set, and the steps that were made of the two. */
const RunMadeSchema = Type.Object(
  {
    unit: UnitSchema,
    /** What is coupled behind it, front to rear. */
    towed: Type.Array(UnitSchema, { maxItems: 5, title: 'Towed units' }),
    ruleSet: RuleSetSchema,
    /** Steps that were not due when it started. */
    leftOut: Type.Array(Type.String({ minLength: 1, maxLength: 40 }), {
      maxItems: 40,
      title: 'Left out from the start',
    }),
    /** The jobs this run is the retest of, where only what they owe is asked: it is no whole test. */
    retestOf: Type.Optional(
      Type.Array(Uuid('Job'), { minItems: 1, maxItems: 20, title: 'Retest of' }),
    ),
    /** Steps that the retest asks for and its rule set does not; they go in the usual order. */
    also: Type.Optional(
      Type.Array(Type.String({ minLength: 1, maxLength: 40 }), {
        minItems: 1,
        maxItems: 40,
        title: 'Asked beside the rule set',
      }),
    ),
    /** What is asked: a record is read by these, whatever later versions ask. */
    steps: Type.Array(StepSchema, { minItems: 1, maxItems: 60, title: 'Steps' }),
  },
  { ...closed, title: 'What is asked' },
);

export const RunHeaderSchema = headerOf('run', RunMadeSchema);

export type RunMade = Static<typeof RunMadeSchema>;
export type RunHeader = LogHeader<'run', RunMade>;

/** A run as it leaves the product: the facts, what was computed from them, and by which version. */
export const RunExportSchema = Type.Object(
  {
    format: Type.Literal('keen-bleed/run/2'),
    header: RunHeaderSchema,
    by: Type.String(),
    /** By the server's clock, as far as the device's offset is known. */
    startedAtMs: AtMs('Started'),
    closedAtMs: Type.Union([AtMs('Closed'), Type.Null()]),
    /** The device's clock could not be told: the order of this run among others is not sure. */
    timeUnsure: Type.Boolean({ title: 'Time not sure' }),
    facts: Type.Array(RunFactSchema),
    outcome: OutcomeSchema,
    /** What stands open on its units at the time of the export, whichever run it failed in. */
    openFailures: Type.Array(OpenFailureSchema),
    /** Absent in exports of earlier versions. */
    chain: Type.Optional(ExportedChainSchema),
    caution: Type.String({ title: 'What this record is not' }),
  },
  { ...closed, title: 'Run export', $id: 'keen-bleed-run-export-2' },
);
export type RunExport = Static<typeof RunExportSchema>;
