import { Type, type TSchema } from '@sinclair/typebox';
import { MOST_FACTS_AT_ONCE } from '../choices';
import { AtMs, Uuid } from '../primitives';

/** Facts one lane of a log may hold; a whole log is bounded in `core/log`. */
const MOST_IN_A_LANE = 100_000;
/** No clock is further from another than this, ms: a hundred and fifty years. */
const FARTHEST_MS = 5_000_000_000_000;

/** What stands on every fact of every kind of log. */
export interface FactStamp {
  id: string;
  /** Whoever writes on one device: facts of one lane are numbered without a gap. */
  lane: string;
  /** Place in its lane, from 1. */
  seq: number;
  /** When, by the clock of the device. */
  atMs: number;
  /** How far that clock was ahead of the server's, as measured; null where that is not known. */
  offsetMs: number | null;
  /** When the server took it; set by the server alone. */
  receivedAtMs?: number;
  /** Version of the shape of its kind of log. */
  v: number;
}

/** How far a clock is ahead of the server's, ms. */
export const OffsetMs = (title: string) =>
  Type.Integer({ minimum: -FARTHEST_MS, maximum: FARTHEST_MS, title });

export const FactVersion = Type.Integer({ minimum: 1, maximum: 1_000, title: 'Version' });

/** The stamp as a shape, to build a kind's facts on. */
export const factStamp = {
  id: Uuid('Fact id'),
  lane: Uuid('Lane'),
  seq: Type.Integer({ minimum: 1, maximum: MOST_IN_A_LANE, title: 'Place in its lane' }),
  atMs: AtMs('Time'),
  offsetMs: Type.Union([OffsetMs('Clock ahead by'), Type.Null()], { title: 'Clock ahead by' }),
  receivedAtMs: Type.Optional(AtMs('Received')),
  v: FactVersion,
};

/** A fact of one kind: the stamp and what it says. */
export const factOf = <K extends string, F extends Record<string, TSchema>>(kind: K, fields: F) =>
  Type.Object(
    { ...factStamp, kind: Type.Literal(kind), ...fields },
    { additionalProperties: false },
  );

/** Takes an earlier fact back; the fact itself stays in the record. */
export const Retract = factOf('retract', { target: Uuid('Fact taken back') });

/**
 * The answer to how far the clock of a lane was ahead, where that could not be measured. It counts for every fact
 * of the lane whose own offset is not known.
 */
export const ClockAnswer = factOf('clock', {
  ofLane: Uuid('Lane'),
  aheadMs: OffsetMs('Clock ahead by'),
});

/** Facts on their way, before the kind of their log is known: the stamp alone is looked at. */
export const AppendFactsSchema = Type.Object(
  {
    facts: Type.Array(
      Type.Object({ ...factStamp, kind: Type.String({ minLength: 1, maxLength: 40 }) }),
      {
        minItems: 1,
        maxItems: MOST_FACTS_AT_ONCE,
        title: 'Facts',
      },
    ),
  },
  { additionalProperties: false, title: 'Facts of a log' },
);

/** What the server holds of a log: only this says that something was delivered. */
export const HeldSchema = Type.Object(
  {
    logId: Uuid('Log id'),
    held: Type.Integer({ minimum: 0, title: 'Facts held' }),
    /** The last place held of each lane. */
    lanes: Type.Record(Type.String(), Type.Integer({ minimum: 1 }), { title: 'Lanes' }),
    closedAtMs: Type.Union([AtMs('Closed'), Type.Null()]),
  },
  { additionalProperties: false, title: 'Held' },
);

/** Which logs a device wants compared with what the server holds. */
export const CompareHeldSchema = Type.Object(
  { ids: Type.Array(Uuid('Log id'), { maxItems: 500, title: 'Logs' }) },
  { additionalProperties: false, title: 'Logs to compare' },
);

/** What the server holds of each log asked for; a log it does not know is missing. */
export const HeldLogsSchema = Type.Object(
  { logs: Type.Array(HeldSchema) },
  { additionalProperties: false, title: 'Held logs' },
);
