import { Type, type Static } from '@sinclair/typebox';
import { findingStandings, type FindingStanding } from '../../choices';
import { Line, Uuid } from '../../primitives';
import { ClockAnswer, factOf, Retract } from '../fact';
import { PartId, partFields } from '../../part';

/** Pictures that go with a fact; each is sent before the fact that names it. */
const Photos = Type.Optional(
  Type.Array(Uuid('Photo'), { minItems: 1, maxItems: 8, uniqueItems: true, title: 'Photos' }),
);
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
  standing: Type.Unsafe<FindingStanding>({
    type: 'string',
    enum: [...findingStandings],
    title: 'How it is',
  }),
  text: Line('What was seen', 200),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** How a part is where it sits: whether it is fitted, and what a replacement has to match. */
const PartFound = factOf('part', { at: AtPart, ...partFields });
const Close = factOf('close', {});

export type VisitNoteFact = Static<typeof Note>;
export type SeenFact = Static<typeof Seen>;
export type PartFact = Static<typeof PartFound>;

/** One fact of a visit. */
export type VisitFact =
  | VisitNoteFact
  | SeenFact
  | PartFact
  | Static<typeof Close>
  | Static<typeof Retract>
  | Static<typeof ClockAnswer>;

export const VisitFactSchema = Type.Unsafe<VisitFact>({
  type: 'object',
  title: 'Visit fact',
  discriminator: { propertyName: 'kind' },
  oneOf: [Note, Seen, PartFound, Close, Retract, ClockAnswer],
});
