import { Type, type Static } from '@sinclair/typebox';
import { adjusterKinds, chamberStrokes, type AdjusterKind, type ChamberStroke } from './choices';
import { AtMs, Line, Uuid } from './primitives';

const closed = { additionalProperties: false } as const;

export const partStandings = ['fitted', 'not-fitted', 'not-known'] as const;
/** Whether a part is there: somebody saw it, saw that there is none, or could not tell. */
export type PartStanding = (typeof partStandings)[number];

/** A part by its id in its unit: lower case, such as `rear-relay`. */
export const PartId = (title: string) =>
  Type.String({ minLength: 1, maxLength: 60, pattern: '^[a-z0-9]+([.-][a-z0-9]+)*$', title });

/** Pictures that go with a fact; each is sent before the fact that names it. */
export const Photos = Type.Optional(
  Type.Array(Uuid('Photo'), { minItems: 1, maxItems: 8, uniqueItems: true, title: 'Photos' }),
);

/** Rows from the front of the unit, columns from −3 at its left to 3 at its right. */
const PartPlace = Type.Object(
  {
    row: Type.Integer({ minimum: 0, maximum: 49, title: 'Row' }),
    column: Type.Integer({ minimum: -3, maximum: 3, title: 'Column' }),
  },
  { ...closed, title: 'Place' },
);

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
  /** What kind of its role it is, such as a drain on a cord; the words stand with the roles. */
  variant: Type.Optional(
    Type.String({ pattern: '^[a-z0-9]+(-[a-z0-9]+)*$', maxLength: 40, title: 'Kind' }),
  ),
  /** Where it sits, where that is not the usual place. */
  place: Type.Optional(PartPlace),
  /** Of a chamber: the stroke it is marked for, and what takes up the wear of its brake. */
  stroke: Type.Optional(
    Type.Unsafe<ChamberStroke>({ type: 'string', enum: [...chamberStrokes], title: 'Stroke' }),
  ),
  adjuster: Type.Optional(
    Type.Unsafe<AdjusterKind>({ type: 'string', enum: [...adjusterKinds], title: 'Adjuster' }),
  ),
  photos: Photos,
};

/** A part of a unit as it was last found. */
export const PartRecordSchema = Type.Object(
  {
    partId: PartId('Part'),
    ...partFields,
    /** When it was last replaced or mended in a job. */
    mendedAtMs: Type.Optional(AtMs('Mended at')),
    /** When it was found so, by the server's clock as far as it can be told. */
    foundAtMs: AtMs('Found at'),
  },
  { ...closed, title: 'Part' },
);
export type PartRecord = Static<typeof PartRecordSchema>;

/** A port of a part. */
const PortAt = (title: string) =>
  Type.Object({ partId: PartId('Part'), port: PartId('Port') }, { ...closed, title });

export const lineColours = ['supply', 'service', 'park'] as const;

/** How a line was found: where its ends are, where that is not the usual; what size and colour it is. */
export const lineFields = {
  standing: Type.Unsafe<PartStanding>({
    type: 'string',
    enum: [...partStandings],
    title: 'Whether it is fitted',
  }),
  from: Type.Optional(PortAt('From')),
  to: Type.Optional(PortAt('To')),
  boreMm: Type.Optional(Type.Number({ minimum: 2, maximum: 30, title: 'Inside bore (mm)' })),
  colour: Type.Optional(
    Type.Unsafe<(typeof lineColours)[number]>({
      type: 'string',
      enum: [...lineColours],
      title: 'Colour',
    }),
  ),
  moves: Type.Optional(Type.Boolean({ title: 'Moves' })),
  note: Type.Optional(Line('Note', 200)),
};

/** A line of a unit as it was last found. */
export const LineRecordSchema = Type.Object(
  { lineId: PartId('Line'), ...lineFields, foundAtMs: AtMs('Found at') },
  { ...closed, title: 'Line' },
);
export type LineRecord = Static<typeof LineRecordSchema>;
