import { Type, type Static, type TSchema } from '@sinclair/typebox';
import { gaugeRoles, type GaugeRole } from './choices';
import { AtMs, Line, Uuid } from './primitives';

const StepId = Type.String({ minLength: 1, maxLength: 40, title: 'Step' });
const Key = Type.String({ minLength: 1, maxLength: 40, title: 'Mark' });

const event = <K extends string, F extends Record<string, TSchema>>(kind: K, fields: F) =>
  Type.Object(
    {
      id: Uuid('Event id'),
      seq: Type.Integer({
        minimum: 1,
        maximum: 100_000,
        title: 'Place in the run',
      }),
      atMs: AtMs('Time'),
      kind: Type.Literal(kind),
      ...fields,
    },
    { additionalProperties: false },
  );

/** The step's preparations are done; `gauge` is the dial every later reading is taken from. */
const Ready = event('ready', {
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
const Mark = event('mark', {
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
  supersedes: Type.Optional(Uuid('Corrected mark')),
});

/** Takes an earlier event back; the event itself stays in the record. */
const Retract = event('retract', { target: Uuid('Event taken back') });
const Skip = event('skip', { stepId: StepId, reason: Line('Reason', 200) });
const Note = event('note', { stepId: StepId, text: Line('Note', 500) });
const Extend = event('extend', {
  stepId: StepId,
  seconds: Type.Integer({
    minimum: 10,
    maximum: 1_800,
    title: 'Seconds added',
  }),
});
/** The planned end of a hold that carries enough marks to end without a reading. */
const HoldOver = event('hold-over', { stepId: StepId });
/** What was seen, heard or felt: for each thing asked, the answer that was chosen. */
const Look = event('look', {
  stepId: StepId,
  answers: Type.Record(
    Type.String({ maxLength: 40 }),
    Type.String({ minLength: 1, maxLength: 40 }),
    { maxProperties: 30, title: 'Answers' },
  ),
});
const Close = event('close', {
  how: Type.Unsafe<'complete' | 'incomplete'>({
    type: 'string',
    enum: ['complete', 'incomplete'],
    title: 'How it ended',
  }),
  reason: Type.Optional(Line('Reason', 200)),
});

const members = [Ready, Mark, Retract, Skip, Note, Extend, HoldOver, Look, Close];

export type ReadyEvent = Static<typeof Ready>;
export type MarkEvent = Static<typeof Mark>;
export type RetractEvent = Static<typeof Retract>;
export type SkipEvent = Static<typeof Skip>;
export type NoteEvent = Static<typeof Note>;
export type ExtendEvent = Static<typeof Extend>;
export type HoldOverEvent = Static<typeof HoldOver>;
export type LookEvent = Static<typeof Look>;
export type CloseEvent = Static<typeof Close>;

/** One fact of a run. Facts are only ever added. */
export type RunEvent =
  | ReadyEvent
  | MarkEvent
  | RetractEvent
  | SkipEvent
  | NoteEvent
  | ExtendEvent
  | HoldOverEvent
  | LookEvent
  | CloseEvent;

export const RunEventSchema = Type.Unsafe<RunEvent>({
  type: 'object',
  title: 'Run event',
  discriminator: { propertyName: 'kind' },
  oneOf: members,
});
