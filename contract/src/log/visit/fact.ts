import { Type, type Static } from '@sinclair/typebox';
import { jointSides, seenStandings, type JointSide, type SeenStanding } from '../../choices';
import { Line, Uuid } from '../../primitives';
import { ClockAnswer, factOf, Retract } from '../fact';
import { lineFields, PartId, partFields, Photos } from '../../part';
import {
  Aside,
  Held,
  Mended,
  WaterFound,
  Weather,
  type AsideFact,
  type NeedleHeldFact,
  type MendedFact,
  type WeatherFact,
} from './huntFacts';

/** A part of a unit of the visit. */
const AtPart = Type.Object(
  { unitId: Uuid('Unit'), partId: PartId('Part') },
  { additionalProperties: false, title: 'Part' },
);

/** Something worth remembering, of a part or of the whole. */
const Note = factOf('note', {
  at: Type.Union([AtPart, Type.Null()], { title: 'Part' }),
  text: Line('Note', 500),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** What was seen, heard or felt at a part, and whether that is good. */
const Seen = factOf('seen', {
  at: AtPart,
  standing: Type.Unsafe<SeenStanding>({
    type: 'string',
    enum: [...seenStandings],
    title: 'How it is',
  }),
  text: Line('What was seen', 200),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** How a part is where it sits: whether it is fitted, and what a replacement has to match. */
const PartFound = factOf('part', { at: AtPart, ...partFields });
/** How a line was found, from port to port. */
const LineFound = factOf('line', {
  at: Type.Object(
    { unitId: Uuid('Unit'), lineId: PartId('Line') },
    { additionalProperties: false, title: 'Line' },
  ),
  ...lineFields,
});
/** What was found, in the shape its check asks for; pressures psi, times seconds, points psi against psi. */
export const AnswerSchema = Type.Union(
  [
    Type.Object(
      { kind: Type.Literal('grade'), grade: PartId('Grade') },
      { additionalProperties: false, title: 'Grade' },
    ),
    Type.Object(
      { kind: Type.Literal('choice'), choice: PartId('Choice') },
      { additionalProperties: false, title: 'Choice' },
    ),
    Type.Object(
      {
        kind: Type.Literal('number'),
        value: Type.Number({ minimum: 0, maximum: 2_000, title: 'Reading' }),
      },
      { additionalProperties: false, title: 'Number' },
    ),
    Type.Object(
      {
        kind: Type.Literal('points'),
        points: Type.Array(
          Type.Tuple([
            Type.Number({ minimum: 0, maximum: 300, title: 'In' }),
            Type.Number({ minimum: 0, maximum: 300, title: 'Out' }),
          ]),
          { minItems: 1, maxItems: 60, title: 'Points' },
        ),
        /** The two gauges were compared with each other at zero and at 60 psi. */
        compared: Type.Optional(Type.Boolean({ title: 'Gauges compared' })),
      },
      { additionalProperties: false, title: 'Points' },
    ),
  ],
  { title: 'What was found' },
);
/** A check of the catalogue that was done, and what it gave. */
const Checked = factOf('check', {
  at: AtPart,
  /** The check's id in the catalogue of the rig, and its title as it was shown: catalogues change. */
  checkId: Type.String({ minLength: 3, maxLength: 160, title: 'Check' }),
  title: Line('Check', 160),
  answer: AnswerSchema,
  /** The answer in words, as whoever gave it saw it. */
  said: Line('What was found', 200),
  /** Which half of a joint bubbles. */
  side: Type.Optional(
    Type.Unsafe<JointSide>({ type: 'string', enum: [...jointSides], title: 'Which half' }),
  ),
  /** What more a drain gave than how much. */
  water: Type.Optional(WaterFound),
  note: Type.Optional(Line('Note', 200)),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** What a driver says of a unit, in the words of the trade. */
const Complaint = factOf('complaint', {
  unitId: Uuid('Unit'),
  /** The complaint's id in the list it was taken from. */
  complaintId: PartId('Complaint'),
  /** As it was shown, or as the driver said it. */
  text: Line('Complaint', 200),
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** Somebody who knows the rig says that a fault is the one. */
const Named = factOf('named', {
  at: AtPart,
  /** The fault's id among those of the rig. */
  faultId: Type.String({ minLength: 3, maxLength: 160, title: 'Fault' }),
  text: Line('What it is', 200),
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** What suspects stood in what order when somebody looked: a later model may order them otherwise. */
const Ranked = factOf('ranked', {
  unitId: Uuid('Unit'),
  coreVersion: Line('Version of the arithmetic', 20),
  suspects: Type.Array(
    Type.Object(
      {
        faultIds: Type.Array(Type.String({ minLength: 3, maxLength: 160 }), {
          minItems: 1,
          maxItems: 12,
        }),
        chance: Type.Number({ minimum: 0, maximum: 1, title: 'Chance' }),
      },
      { additionalProperties: false, title: 'Suspect' },
    ),
    { maxItems: 8, title: 'Suspects' },
  ),
  text: Line('In words', 300),
});
const Close = factOf('close', {});

export type VisitNoteFact = Static<typeof Note>;
export type SeenFact = Static<typeof Seen>;
export type PartFact = Static<typeof PartFound>;
export type LineFact = Static<typeof LineFound>;
export type CheckFact = Static<typeof Checked>;
export type ComplaintFact = Static<typeof Complaint>;
export type NamedFact = Static<typeof Named>;
export type RankedFact = Static<typeof Ranked>;

/** One fact of a visit. */
export type VisitFact =
  | VisitNoteFact
  | SeenFact
  | PartFact
  | LineFact
  | CheckFact
  | ComplaintFact
  | NamedFact
  | RankedFact
  | MendedFact
  | NeedleHeldFact
  | AsideFact
  | WeatherFact
  | Static<typeof Close>
  | Static<typeof Retract>
  | Static<typeof ClockAnswer>;

export const VisitFactSchema = Type.Unsafe<VisitFact>({
  type: 'object',
  title: 'Visit fact',
  discriminator: { propertyName: 'kind' },
  oneOf: [
    Note,
    Seen,
    PartFound,
    LineFound,
    Checked,
    Complaint,
    Named,
    Ranked,
    Mended,
    Held,
    Aside,
    Weather,
    Close,
    Retract,
    ClockAnswer,
  ],
});
