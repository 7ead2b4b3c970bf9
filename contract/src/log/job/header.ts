import { Type, type Static } from '@sinclair/typebox';
import { PartId } from '../../part';
import { Line, Uuid } from '../../primitives';
import { UnitSchema } from '../../unit';
import { headerOf, type LogHeader } from '../header';

const closed = { additionalProperties: false } as const;

/** Where a job comes from. */
const BornOf = Type.Union(
  [
    Type.Object(
      {
        kind: Type.Literal('failure'),
        /** The run in which it failed, and what: the pair an open failure is known by. */
        runId: Uuid('Run'),
        key: Type.String({
          minLength: 3,
          maxLength: 120,
          pattern: '^(figure|look):',
          title: 'What failed',
        }),
      },
      { ...closed, title: 'Open failure' },
    ),
    Type.Object(
      {
        kind: Type.Literal('suspect'),
        faultIds: Type.Array(Type.String({ minLength: 3, maxLength: 160 }), {
          minItems: 1,
          maxItems: 12,
          title: 'Faults',
        }),
        chance: Type.Number({ minimum: 0, maximum: 1, title: 'Chance' }),
      },
      { ...closed, title: 'Suspect' },
    ),
    Type.Object(
      { kind: Type.Literal('entry'), logId: Uuid('Visit'), factId: Uuid('Entry') },
      { ...closed, title: 'Entry of a visit' },
    ),
    Type.Object({ kind: Type.Literal('hand') }, { ...closed, title: 'By hand' }),
  ],
  { title: 'Where it comes from' },
);

/** A failure that the job is to close, with the words and the number it failed by. */
const FailureCovered = Type.Object(
  {
    runId: Uuid('Run'),
    key: Type.String({
      minLength: 3,
      maxLength: 120,
      pattern: '^(figure|look):',
      title: 'What failed',
    }),
    title: Line('Failure', 200),
    /** What it read, in its figure's own unit; null for a look. */
    value: Type.Union([Type.Number(), Type.Null()], { title: 'What it read' }),
    critical: Type.Boolean({ title: 'Out of service' }),
  },
  { ...closed, title: 'Failure' },
);

/** What a job is fixed to: the units as they were, what was found, and what has to pass again. */
const JobMadeSchema = Type.Object(
  {
    units: Type.Array(UnitSchema, { minItems: 1, maxItems: 6, title: 'Units' }),
    /** The units it holds: those on which it was found. */
    foundOn: Type.Array(Uuid('Unit'), { minItems: 1, maxItems: 6, title: 'Found on' }),
    bornOf: BornOf,
    /** What was found, in words. */
    found: Line('What was found', 300),
    /** The rule set in which they failed: the retest goes by it. */
    ruleSetId: Type.Optional(Line('Rule set', 40)),
    failures: Type.Array(FailureCovered, { maxItems: 30, title: 'Failures' }),
    /** The suspects, as they stood: the first one’s part and its chance, so that it is known how often it was right. */
    suspected: Type.Union(
      [
        Type.Object(
          {
            unitId: Uuid('Unit'),
            partId: PartId('Part'),
            chance: Type.Number({ minimum: 0, maximum: 1, title: 'Chance' }),
          },
          { ...closed, title: 'First suspect' },
        ),
        Type.Null(),
      ],
      { title: 'First suspect' },
    ),
  },
  { ...closed, title: 'Job' },
);

export const JobHeaderSchema = headerOf('job', JobMadeSchema);
export type JobMade = Static<typeof JobMadeSchema>;
export type JobHeader = LogHeader<'job', JobMade>;
export type JobFailure = Static<typeof FailureCovered>;
