import { Type, type Static } from '@sinclair/typebox';
import { figureIds, figureUnits, findingStandings, limitTags, verdicts } from './choices';

const closed = { additionalProperties: false } as const;
const oneOf = <T extends string>(values: readonly T[], title: string) =>
  Type.Unsafe<T>({ type: 'string', enum: [...values], title });
const nullable = <T extends ReturnType<typeof Type.Number> | ReturnType<typeof Type.String>>(
  schema: T,
) => Type.Union([schema, Type.Null()]);

export const LimitUsedSchema = Type.Object(
  {
    id: Type.String({ title: 'Limit id' }),
    min: nullable(Type.Number({ title: 'Not under' })),
    max: nullable(Type.Number({ title: 'Not over' })),
    source: Type.String({ title: 'Source' }),
    tag: oneOf(limitTags, 'Kind of source'),
    /** A stricter limit that may apply: what it is, and the month of building that would decide. */
    undecided: Type.Optional(
      Type.Object(
        {
          min: nullable(Type.Number({ title: 'Not under' })),
          max: nullable(Type.Number({ title: 'Not over' })),
          /** Whether it was built before or from this month decides; null where no date is known. */
          month: nullable(Type.String({ title: 'Month' })),
        },
        closed,
      ),
    ),
  },
  closed,
);

export const FigureSchema = Type.Object(
  {
    id: oneOf(figureIds, 'Figure'),
    stepId: Type.String({ title: 'Step' }),
    /** Best estimate. */
    value: nullable(Type.Number({ title: 'Value' })),
    /** What an inspector would write down from the same marks, where that is another number. */
    read: nullable(Type.Number({ title: 'As read' })),
    /** Where the marks only say how high it can be: the 95 % upper bound. */
    atMost: nullable(Type.Number({ title: 'At most' })),
    unit: oneOf(figureUnits, 'Unit'),
    /** 95 % interval. */
    low: Type.Optional(Type.Number({ title: '95 %, from' })),
    high: Type.Optional(Type.Number({ title: '95 %, to' })),
    standardUncertainty: nullable(Type.Number({ minimum: 0, title: 'Standard uncertainty' })),
    limit: Type.Union([LimitUsedSchema, Type.Null()]),
    asRead: Type.Union([oneOf(['pass', 'fail'] as const, 'As read'), Type.Null()]),
    verdict: Type.Union([oneOf(['pass', 'fail', 'cant-tell'] as const, 'Verdict'), Type.Null()]),
    /** The one of the two that heads the record, by its rule set; not there where it is how sure. */
    heads: Type.Optional(oneOf(['as-read', 'how-sure'] as const, 'Headed by')),
    /** Probability, 0 to 1, that the true figure lies within the limit. */
    within: nullable(Type.Number({ minimum: 0, maximum: 1, title: 'Chance within the limit' })),
    why: Type.String({ title: 'Why' }),
    settle: nullable(Type.String({ title: 'What would settle it' })),
    /**
     * What alone leaves it open: the dial, of which nothing is known but its allowance, or the stroke in which it
     * happened.
     */
    openBy: Type.Optional(oneOf(['dial', 'stroke'] as const, 'Left open by')),
    /** What a failure most likely points at. */
    means: nullable(Type.String({ title: 'Likely meaning' })),
  },
  closed,
);

/** A figure small enough for lists and trends. */
export const RunRowFigureSchema = Type.Pick(
  FigureSchema,
  ['id', 'value', 'atMost', 'unit', 'verdict', 'limit'],
  closed,
);

export const FindingSchema = Type.Object(
  {
    stepId: Type.String({ title: 'Step' }),
    key: Type.String({ title: 'What was asked' }),
    title: Type.String({ title: 'Question' }),
    said: Type.String({ title: 'Answer' }),
    standing: oneOf(findingStandings, 'Standing'),
    means: nullable(Type.String({ title: 'Likely meaning' })),
    /** The answer that was chosen takes the vehicle out of service. */
    holds: Type.Optional(Type.Literal(true, { title: 'Out of service' })),
    /** The answer itself, where a step’s answers are evidence one by one. */
    answer: Type.Optional(Type.String({ title: 'Answer by its value' })),
  },
  closed,
);

export const OutcomeSchema = Type.Object(
  {
    coreVersion: Type.String({ title: 'Version of the arithmetic' }),
    verdict: oneOf(verdicts, 'Verdict'),
    headline: Type.String({ title: 'In one line' }),
    /** Said once where figures pass as read and the dial or a stroke alone leaves them open. */
    dial: Type.Optional(Type.String({ title: 'What the dial leaves open' })),
    /** It was stopped before its end. */
    cutShort: Type.Optional(Type.Literal(true, { title: 'Cut short' })),
    figures: Type.Array(FigureSchema),
    findings: Type.Array(FindingSchema),
    skipped: Type.Array(
      Type.Object(
        {
          stepId: Type.String(),
          title: Type.String(),
          reason: Type.String(),
          /** The rule set asks for it. */
          required: Type.Boolean(),
        },
        closed,
      ),
    ),
    notes: Type.Array(
      Type.Object(
        {
          /** Null where it was added to the run as a whole. */
          stepId: Type.Union([Type.String(), Type.Null()]),
          title: Type.String(),
          text: Type.String(),
        },
        closed,
      ),
    ),
  },
  { ...closed, title: 'Outcome' },
);

export type LimitUsed = Static<typeof LimitUsedSchema>;
export type Figure = Static<typeof FigureSchema>;
export type Outcome = Static<typeof OutcomeSchema>;
export type Finding = Static<typeof FindingSchema>;
