import { Type, type Static } from '@sinclair/typebox';
import { AtMs, Line } from './primitives';

const closed = { additionalProperties: false } as const;

export const partStandings = ['fitted', 'not-fitted', 'not-known'] as const;
/** Whether a part is there: somebody saw it, saw that there is none, or could not tell. */
export type PartStanding = (typeof partStandings)[number];

/** A part by its id in its unit: lower case, such as `rear-relay`. */
export const PartId = (title: string) =>
  Type.String({ minLength: 1, maxLength: 60, pattern: '^[a-z0-9]+([.-][a-z0-9]+)*$', title });

/** What was found of a part where it sits: what a replacement has to match stands here. */
export const partFields = {
  standing: Type.Unsafe<PartStanding>({
    type: 'string',
    enum: [...partStandings],
    title: 'Whether it is fitted',
  }),
  number: Type.Optional(Line('Number on it', 40)),
  thread: Type.Optional(Line('Thread', 40)),
  /** Crack pressure of a relay, set point of a control, a governor or a switch. */
  setPsi: Type.Optional(Type.Number({ minimum: 0, maximum: 200, title: 'Crack or set pressure' })),
  fittedOn: Type.Optional(
    Type.String({ pattern: '^[0-9]{4}-[0-9]{2}-[0-9]{2}$', title: 'Fitted on' }),
  ),
  note: Type.Optional(Line('Note', 200)),
};

/** A part of a unit as it was last found. */
export const PartRecordSchema = Type.Object(
  {
    partId: PartId('Part'),
    ...partFields,
    /** When it was found so, by the server's clock as far as it can be told. */
    foundAtMs: AtMs('Found at'),
  },
  { ...closed, title: 'Part' },
);
export type PartRecord = Static<typeof PartRecordSchema>;
