import { Type, type Static } from '@sinclair/typebox';
import { Line, Uuid } from './primitives';

const closed = { additionalProperties: false } as const;

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
