import { Type, type Static } from '@sinclair/typebox';

const closed = { additionalProperties: false } as const;
const Sha256 = (title: string) => Type.String({ pattern: '^[0-9a-f]{64}$', title });

/** How a log's hash chain stands as it is read. */
export const ChainStandingSchema = Type.Object(
  {
    /** The last link: it vouches for all before it. */
    head: Sha256('Head'),
    /** The first place, from 1, at which what is kept is not what was recorded; null where all of it is. */
    brokenAt: Type.Union([Type.Integer({ minimum: 1 }), Type.Null()]),
  },
  { ...closed, title: 'Chain' },
);
export type ChainStanding = Static<typeof ChainStandingSchema>;

/** The whole chain, as an export carries it: with it anybody can find every link again. */
export const ExportedChainSchema = Type.Object(
  {
    method: Type.String({ title: 'How a link is made' }),
    headerSha256: Sha256('Header'),
    /** As it was recorded, where an older version did. */
    header: Type.Optional(Type.Unknown()),
    ...ChainStandingSchema.properties,
    links: Type.Array(
      Type.Object(
        {
          place: Type.Integer({ minimum: 1 }),
          lane: Type.String(),
          seq: Type.Integer(),
          personId: Type.String(),
          receivedAtMs: Type.Integer(),
          entrySha256: Sha256('Entry'),
          sha256: Sha256('Link'),
          /** As it was recorded, where an older version did and it is told otherwise above. */
          entry: Type.Optional(Type.Unknown()),
        },
        closed,
      ),
    ),
  },
  { ...closed, title: 'Hash chain' },
);
export type ExportedChain = Static<typeof ExportedChainSchema>;
