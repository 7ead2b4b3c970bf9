import { Type, type Static } from '@sinclair/typebox';
import { ChainStandingSchema } from './chain';
import { FigureSchema, RunRowFigureSchema } from '../outcome';
import {
  heldNeedles,
  heldStates,
  verdicts,
  type HeldNeedle,
  type HeldState,
  type Verdict,
} from '../choices';
import { AtMs, Uuid } from '../primitives';
import { factStamp } from './fact';
import { AnswerSchema } from './visit/fact';
import { WaterFound } from './visit/huntFacts';
import { logKindNames } from './header';

const closed = { additionalProperties: false } as const;
const nullable = <T extends ReturnType<typeof AtMs> | ReturnType<typeof Type.String>>(schema: T) =>
  Type.Union([schema, Type.Null()]);

/** Logs as lists show them. */
export const LogRowsSchema = Type.Array(
  Type.Object(
    {
      id: Uuid('Log id'),
      kind: Type.Unsafe<(typeof logKindNames)[number]>({ type: 'string', enum: [...logKindNames] }),
      unitId: Uuid('Unit'),
      rigId: nullable(Type.String()),
      title: Type.String(),
      headline: Type.String(),
      startedAtMs: AtMs('Started'),
      closedAtMs: nullable(AtMs('Closed')),
      by: Type.String(),
      byPersonId: Uuid('Opened by'),
      facts: Type.Integer({ minimum: 0 }),
    },
    closed,
  ),
  { title: 'Logs' },
);

const FoundEvidence = Type.Union(
  [
    Type.Object(
      {
        kind: Type.Literal('check'),
        checkId: Type.String(),
        answer: AnswerSchema,
        water: Type.Optional(WaterFound),
      },
      { ...closed, title: 'Check' },
    ),
    Type.Object(
      { kind: Type.Literal('mended'), checkId: Type.String() },
      { ...closed, title: 'Mended' },
    ),
    Type.Object(
      {
        kind: Type.Literal('held'),
        state: Type.Unsafe<HeldState>({ type: 'string', enum: [...heldStates] }),
        needle: Type.Unsafe<HeldNeedle>({ type: 'string', enum: [...heldNeedles] }),
        fromPsi: Type.Number(),
        toPsi: Type.Number(),
        seconds: Type.Number(),
      },
      { ...closed, title: 'Held' },
    ),
    Type.Object(
      {
        kind: Type.Literal('weather'),
        airC: Type.Number(),
        humidityPct: Type.Number(),
        lowC: Type.Optional(Type.Number()),
        engineHours: Type.Optional(Type.Number()),
        loadedShare: Type.Optional(Type.Number()),
      },
      { ...closed, title: 'Weather' },
    ),
    Type.Object(
      { kind: Type.Literal('complaint'), complaintId: Type.String() },
      { ...closed, title: 'Complaint' },
    ),
    Type.Object(
      { kind: Type.Literal('named'), faultId: Type.String() },
      { ...closed, title: 'Named' },
    ),
  ],
  { title: 'Evidence' },
);

/** What was found at the parts of a unit in its visits, the newest first. */
export const FoundAtPartsSchema = Type.Array(
  Type.Object(
    {
      id: Uuid('Entry'),
      logId: Uuid('Visit'),
      /** Empty where it is of the whole unit. */
      partId: Type.String(),
      atMs: AtMs('Found'),
      by: Type.String(),
      said: Type.String(),
      photos: Type.Array(Uuid('Photo')),
      /** What of it suspects are weighed by: a check's answer, a complaint, or a fault that was named. */
      evidence: Type.Union([FoundEvidence, Type.Null()]),
    },
    closed,
  ),
  { title: 'Found at parts' },
);
export type FoundAtParts = Static<typeof FoundAtPartsSchema>;

/** A log with all its facts; of header and facts only what every kind has is looked at here. */
export const LogRecordSchema = Type.Object(
  {
    header: Type.Object({ id: Uuid('Log id'), kind: Type.String(), v: Type.Integer() }),
    facts: Type.Array(
      Type.Object({ ...factStamp, kind: Type.String(), receivedAtMs: AtMs('Received') }),
    ),
    writers: Type.Record(Type.String(), Type.String()),
    by: Type.String(),
    byPersonId: Uuid('Opened by'),
    startedAtMs: AtMs('Started'),
    closedAtMs: nullable(AtMs('Closed')),
    timeUnsure: Type.Boolean(),
    chain: ChainStandingSchema,
    overlapping: Type.Array(
      Type.Object(
        {
          logId: Uuid('Log id'),
          by: Type.String(),
          startedAtMs: AtMs('Started'),
          closedAtMs: nullable(AtMs('Closed')),
        },
        closed,
      ),
    ),
  },
  { ...closed, title: 'Log record' },
);

/** A photo was taken in. */
export const PhotoKeptSchema = Type.Object(
  { id: Uuid('Photo'), bytes: Type.Integer({ minimum: 1 }) },
  { ...closed, title: 'Photo kept' },
);

/** Which log a photo goes with. */
export const PhotoQuerySchema = Type.Object({ logId: Uuid('Log') }, { ...closed, title: 'Photo' });

const nullableText = Type.Union([Type.String(), Type.Null()]);

/** A unit's runs, newest first. */
export const RunRowsSchema = Type.Array(
  Type.Object(
    {
      id: Uuid('Run'),
      unitId: Uuid('Unit'),
      rigTitle: Type.String(),
      ruleSetTitle: Type.String(),
      drained: Type.Boolean(),
      startedAtMs: AtMs('Started'),
      closedAtMs: nullable(AtMs('Closed')),
      timeUnsure: Type.Boolean(),
      by: Type.String(),
      verdict: Type.Union([
        Type.Unsafe<Verdict>({ type: 'string', enum: [...verdicts] }),
        Type.Null(),
      ]),
      headline: nullableText,
      decisive: Type.Union([FigureSchema, Type.Null()]),
      figures: Type.Array(RunRowFigureSchema),
      retest: Type.Optional(Type.Boolean()),
    },
    closed,
  ),
  { title: 'Runs' },
);
