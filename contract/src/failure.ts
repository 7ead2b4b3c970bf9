import { Type, type Static } from '@sinclair/typebox';
import { FigureSchema } from './outcome';
import { AtMs, Line, Uuid } from './primitives';

const closed = { additionalProperties: false } as const;

/** A failed figure or look that nothing has proven right since. */
export const OpenFailureSchema = Type.Object(
  {
    key: Type.String(),
    runId: Uuid('Run'),
    sinceMs: AtMs('Since'),
    unitIds: Type.Array(Uuid('Unit'), { minItems: 1 }),
    title: Type.String(),
    figure: Type.Union([FigureSchema, Type.Null()]),
    said: Type.Union([Type.String(), Type.Null()]),
    critical: Type.Optional(Type.Boolean({ title: 'Out of service' })),
    /** The rule set it failed by; not said by earlier versions. */
    ruleSetId: Type.Optional(Line('Rule set', 40)),
  },
  closed,
);

/** A lead's word that an open failure is none, and why. */
export const CloseFailureSchema = Type.Object(
  {
    runId: Uuid('Run in which it failed'),
    key: Type.String({
      minLength: 3,
      maxLength: 120,
      pattern: '^(figure|look):',
      title: 'What failed',
    }),
    reason: Line('Reason', 300),
  },
  { ...closed, title: 'Closing of a failure' },
);

export type CloseFailure = Static<typeof CloseFailureSchema>;
