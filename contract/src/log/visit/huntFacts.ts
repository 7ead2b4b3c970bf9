import { Type, type Static } from '@sinclair/typebox';
import { Line, Uuid } from '../../primitives';
import { PartId, Photos } from '../../part';
import {
  drainedThings,
  heldNeedles,
  heldStates,
  jointMends,
  leakGrades,
  MOST_DRAINED_ML,
  sideFindings,
} from '../../choices';
import { factOf } from '../fact';

/* What a leak hunt and a drain round write beside their checks. */

const oneOf = <T extends string>(values: readonly T[], title: string) =>
  Type.Unsafe<T>({ type: 'string', enum: [...values], title });

/** What more is known of a drain than how much came. */
export const WaterFound = Type.Object(
  {
    ml: Type.Optional(
      Type.Number({ minimum: 0, maximum: MOST_DRAINED_ML, title: 'Water, millilitres' }),
    ),
    mist: Type.Optional(Type.Boolean({ title: 'Only mist' })),
    what: Type.Optional(
      Type.Array(oneOf(drainedThings, 'What came'), {
        minItems: 1,
        maxItems: drainedThings.length,
        uniqueItems: true,
        title: 'What came',
      }),
    ),
    stuck: Type.Optional(Type.Boolean({ title: 'The drain is stuck' })),
    /** Tanks that one cord drained together with this. */
    with: Type.Optional(
      Type.Array(PartId('Tank'), { minItems: 1, maxItems: 6, title: 'Drained with it' }),
    ),
  },
  { additionalProperties: false, title: 'Water' },
);
export type WaterFound = Static<typeof WaterFound>;

const AtPart = Type.Object(
  { unitId: Uuid('Unit'), partId: PartId('Part') },
  { additionalProperties: false, title: 'Part' },
);

/** How a joint that leaked was mended; it is wetted again afterwards. */
export const Mended = factOf('mended', {
  at: AtPart,
  /** The check that found it. */
  checkId: Type.String({ minLength: 3, maxLength: 160, title: 'Check' }),
  how: oneOf(jointMends, 'How it was mended'),
  adapters: Type.Optional(Line('Adapters used', 120)),
  text: Line('In words', 200),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});

/** What leaks that were mended alone between two holds lost by both, for each what soap had called it. */
export const GradesTaughtSchema = Type.Array(
  Type.Object(
    {
      grade: oneOf(leakGrades, 'Grade'),
      scfm: Type.Number({ minimum: -50, maximum: 50, title: 'Free air' }),
      deviation: Type.Number({ minimum: 0, maximum: 50, title: 'Its deviation' }),
    },
    { additionalProperties: false },
  ),
  { title: 'What grades were' },
);
export type GradesTaught = Static<typeof GradesTaughtSchema>;

/** A needle watched with the engine off: where it stood, where it came to, and how long that took. */
export const Held = factOf('held', {
  unitId: Uuid('Unit'),
  state: oneOf(heldStates, 'State'),
  needle: oneOf(heldNeedles, 'Needle'),
  fromPsi: Type.Number({ minimum: 0, maximum: 300, title: 'At first' }),
  toPsi: Type.Number({ minimum: 0, maximum: 300, title: 'At the end' }),
  seconds: Type.Number({ minimum: 20, maximum: 7_200, title: 'Seconds watched' }),
  /** What it says, with the hold before it, of what was mended in between. */
  taught: Type.Optional(GradesTaughtSchema),
  text: Line('In words', 200),
  supersedes: Type.Optional(Uuid('Corrected fact')),
});

/** Something that is no brake and was seen on the way round. */
export const Aside = factOf('aside', {
  unitId: Uuid('Unit'),
  about: oneOf(sideFindings, 'What it is about'),
  text: Line('What was seen', 200),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});

/** The weather a rig stands in: what its compressor breathes. */
export const Weather = factOf('weather', {
  unitId: Uuid('Unit'),
  airC: Type.Number({ minimum: -60, maximum: 60, title: 'Air, °C' }),
  humidityPct: Type.Number({ minimum: 1, maximum: 100, title: 'Humidity, %' }),
  lowC: Type.Optional(Type.Number({ minimum: -60, maximum: 60, title: 'Tonight’s low, °C' })),
  /** Hours the engine ran since the tanks were drained, and the share of them in which the compressor worked. */
  engineHours: Type.Optional(
    Type.Number({ minimum: 0, maximum: 2_000, title: 'Engine hours since' }),
  ),
  loadedShare: Type.Optional(
    Type.Number({ minimum: 0.01, maximum: 1, title: 'Share of the time it compresses' }),
  ),
  text: Line('In words', 200),
  supersedes: Type.Optional(Uuid('Corrected fact')),
});

export type MendedFact = Static<typeof Mended>;
export type NeedleHeldFact = Static<typeof Held>;
export type AsideFact = Static<typeof Aside>;
export type WeatherFact = Static<typeof Weather>;
