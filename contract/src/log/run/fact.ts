import { Type, type Static } from '@sinclair/typebox';
import { gaugeRoles, type GaugeRole } from '../../choices';
import { Line, Uuid } from '../../primitives';
import { ClockAnswer, factOf, Retract } from '../fact';

type Vector = [number, number, number];
/** A stop as it was measured; forces newtons, masses kilograms, accelerations m/s², speeds mph. */
export type StopMeasured =
  | { by: 'roller'; forceN: number; massKg: number }
  | {
      by: 'phone';
      still: { mean: Vector; sd: number; samples: number };
      hz: number;
      motion: Vector[];
      fromMph: number;
      simulated?: true;
    };

const StepId = Type.String({ minLength: 1, maxLength: 40, title: 'Step' });
const Key = Type.String({ minLength: 1, maxLength: 40, title: 'Mark' });

/** The step's preparations are done; `gauge` is the dial every later reading is taken from. */
const Ready = factOf('ready', {
  stepId: StepId,
  gauge: Type.Unsafe<GaugeRole>({
    type: 'string',
    enum: [...gaugeRoles],
    title: 'Gauge',
  }),
});

/**
 * A needle reading. `read` marks stand where the needle was judged to be, to `resolutionPsi`;
 * `crossing` marks are the moment the needle passed a line of the dial. `supersedes` names the mark
 * this one corrects; the corrected one stays in the record.
 */
const Mark = factOf('mark', {
  stepId: StepId,
  key: Key,
  readingPsi: Type.Number({ minimum: -5, maximum: 2_000, title: 'Reading' }),
  resolutionPsi: Type.Number({
    exclusiveMinimum: 0,
    maximum: 50,
    title: 'Reading resolution',
  }),
  method: Type.Unsafe<'read' | 'crossing'>({
    type: 'string',
    enum: ['read', 'crossing'],
    title: 'How it was marked',
  }),
  /** The suggested value was left as it stood: nobody set the needle. */
  suggested: Type.Optional(Type.Literal(true, { title: 'Suggested, not set' })),
  /** The reading is the mean of so many takes, each with small strokes. */
  takes: Type.Optional(Type.Integer({ minimum: 2, maximum: 5, title: 'Takes' })),
  supersedes: Type.Optional(Uuid('Corrected mark')),
});

const Skip = factOf('skip', { stepId: StepId, reason: Line('Reason', 200) });
/** Written in a step, or afterwards, on the run as a whole. */
const Note = factOf('note', { stepId: Type.Optional(StepId), text: Line('Note', 500) });
/** What the vehicle's own odometer shows, and where it stands. */
const About = factOf('about', {
  odometer: Type.Optional(
    Type.Object(
      {
        value: Type.Number({ minimum: 0, maximum: 9_999_999, title: 'Odometer' }),
        unit: Type.Unsafe<'km' | 'mi'>({ type: 'string', enum: ['km', 'mi'], title: 'In' }),
      },
      { additionalProperties: false, title: 'Odometer' },
    ),
  ),
  place: Type.Optional(Line('Place', 80)),
});
/**
 * This lane goes on with the run. `knew` is the last place of every other lane that was known when it did: what is
 * written there beyond it does not count.
 */
const TakeOver = factOf('take-over', {
  knew: Type.Record(Type.String({ maxLength: 40 }), Type.Integer({ minimum: 0 }), {
    maxProperties: 50,
    title: 'Known of other devices',
  }),
});
const Extend = factOf('extend', {
  stepId: StepId,
  seconds: Type.Integer({
    minimum: 10,
    maximum: 1_800,
    title: 'Seconds added',
  }),
});
/** The planned end of a hold that carries enough marks to end without a reading. */
const HoldOver = factOf('hold-over', { stepId: StepId });
/** What was seen, heard or felt: for each thing asked, the answer that was chosen. */
const Look = factOf('look', {
  stepId: StepId,
  answers: Type.Record(
    Type.String({ maxLength: 40 }),
    Type.String({ minLength: 1, maxLength: 40 }),
    { maxProperties: 60, title: 'Answers' },
  ),
});
const Axis = (title: string) => Type.Number({ minimum: -200, maximum: 200, title });
/** The three axes of a phone's accelerometer, gravity among them, m/s². */
const Acceleration = Type.Tuple([Axis('x'), Axis('y'), Axis('z')], { title: 'Acceleration' });
/** What a roller tester printed, or what the phone on the floor felt. */
const StopMeasured = Type.Unsafe<StopMeasured>({
  type: 'object',
  title: 'How it was measured',
  discriminator: { propertyName: 'by' },
  oneOf: [
    Type.Object(
      {
        by: Type.Literal('roller'),
        /** The braking forces of all wheels together, newtons. */
        forceN: Type.Number({ exclusiveMinimum: 0, maximum: 2_000_000, title: 'Braking force' }),
        /** The weight that the rule divides it by, kilograms. */
        massKg: Type.Number({ minimum: 500, maximum: 200_000, title: 'Weight' }),
      },
      { additionalProperties: false, title: 'Roller tester' },
    ),
    Type.Object(
      {
        by: Type.Literal('phone'),
        /** Standing still before it drove off: the mean, how much it shook, and over how many samples. */
        still: Type.Object(
          {
            mean: Acceleration,
            sd: Type.Number({ minimum: 0, maximum: 50, title: 'Shaking' }),
            samples: Type.Integer({ minimum: 10, maximum: 100_000, title: 'Samples' }),
          },
          { additionalProperties: false, title: 'Standing still' },
        ),
        hz: Type.Number({ minimum: 10, maximum: 200, title: 'Samples a second' }),
        motion: Type.Array(Acceleration, { minItems: 10, maxItems: 600, title: 'The stop' }),
        /** On the speedometer as the brakes went on, mph. */
        fromMph: Type.Number({ minimum: 1, maximum: 60, title: 'Speed' }),
        /** Made by a simulated sensor: for practice only. */
        simulated: Type.Optional(Type.Literal(true, { title: 'Simulated' })),
      },
      { additionalProperties: false, title: 'Phone on the floor' },
    ),
  ],
});
/** A service stop that was measured, and how it went. */
const Stop = factOf('stop', {
  stepId: StepId,
  measured: StopMeasured,
  /** How it went, by the answers of the step’s first question; null on rollers. */
  went: Type.Union([Type.String({ minLength: 1, maxLength: 40 }), Type.Null()], {
    title: 'How it went',
  }),
});
const Close = factOf('close', {
  how: Type.Unsafe<'complete' | 'incomplete'>({
    type: 'string',
    enum: ['complete', 'incomplete'],
    title: 'How it ended',
  }),
  reason: Type.Optional(Line('Reason', 200)),
});

const members = [
  Ready,
  Mark,
  Retract,
  Skip,
  Note,
  About,
  Extend,
  HoldOver,
  Look,
  Stop,
  Close,
  ClockAnswer,
  TakeOver,
];

export type ReadyFact = Static<typeof Ready>;
export type MarkFact = Static<typeof Mark>;
export type RetractFact = Static<typeof Retract>;
export type SkipFact = Static<typeof Skip>;
export type NoteFact = Static<typeof Note>;
export type ExtendFact = Static<typeof Extend>;
export type HoldOverFact = Static<typeof HoldOver>;
export type LookFact = Static<typeof Look>;
export type StopFact = Static<typeof Stop>;
export type CloseFact = Static<typeof Close>;
export type AboutFact = Static<typeof About>;
export type TakeOverFact = Static<typeof TakeOver>;
export type ClockFact = Static<typeof ClockAnswer>;

/** One fact of a run. Facts are only ever added. */
export type RunFact =
  | ReadyFact
  | MarkFact
  | RetractFact
  | SkipFact
  | NoteFact
  | AboutFact
  | ExtendFact
  | HoldOverFact
  | LookFact
  | StopFact
  | CloseFact
  | ClockFact
  | TakeOverFact;

export const RunFactSchema = Type.Unsafe<RunFact>({
  type: 'object',
  title: 'Run fact',
  discriminator: { propertyName: 'kind' },
  oneOf: members,
});
