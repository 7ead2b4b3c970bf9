import { Type, type Static } from '@sinclair/typebox';

/** What is called to whoever holds the pedal. */
export const pedalCalls = ['press', 'release'] as const;
export type PedalCall = (typeof pedalCalls)[number];

const closed = { additionalProperties: false } as const;
const Call = Type.Unsafe<PedalCall>({ type: 'string', enum: [...pedalCalls], title: 'Call' });
const Seq = Type.Integer({ minimum: 0, maximum: 1_000_000, title: 'Place of the call' });

/** A call to the pedal; the same one again says that whoever calls is still there. */
export const CallPedalSchema = Type.Object(
  { call: Call, seq: Seq },
  { ...closed, title: 'Call to the pedal' },
);
/** The helper's phone shows this call. */
export const HeardCallSchema = Type.Object(
  { seq: Seq },
  { ...closed, title: 'Call that is shown' },
);

/** The call that stands, and when the helper's phone last said which it shows. */
export const PedalStandingSchema = Type.Object(
  {
    call: Type.Union([Call, Type.Null()]),
    seq: Seq,
    heard: Type.Union([
      Type.Object(
        { seq: Seq, agoMs: Type.Integer({ minimum: 0, title: 'How long ago' }) },
        { ...closed, title: 'Shown' },
      ),
      Type.Null(),
    ]),
  },
  { ...closed, title: 'Pedal' },
);

export type CallPedal = Static<typeof CallPedalSchema>;
export type HeardCall = Static<typeof HeardCallSchema>;
export type PedalStanding = Static<typeof PedalStandingSchema>;
