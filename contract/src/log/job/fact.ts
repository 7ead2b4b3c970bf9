import { Type, type Static } from '@sinclair/typebox';
import { chamberStrokes, chamberTypes, type ChamberType } from '../../choices';
import { PartId, Photos } from '../../part';
import { AtMs, Line, Uuid } from '../../primitives';
import { ClockAnswer, factOf, Retract } from '../fact';

const closed = { additionalProperties: false } as const;
const oneOf = <T extends string>(values: readonly T[], title: string) =>
  Type.Unsafe<T>({ type: 'string', enum: [...values], title });
const Day = (title: string) => Type.String({ pattern: '^[0-9]{4}-[0-9]{2}-[0-9]{2}$', title });

export const repairs = ['replaced', 'cleaned', 'reseated', 'remade', 'adjusted'] as const;
/** How a part is mended: another one is fitted, or the same one is put right. */
export type Repair = (typeof repairs)[number];

export const measureKinds = [
  'caged-spring',
  'shop-air',
  'capped-line',
  'closed-cock',
  'blocked',
] as const;
/** What was done for a while so that the vehicle can be moved or worked on; each is undone before release. */
export type MeasureKind = (typeof measureKinds)[number];

/** A part of a unit of the job. */
const AtPart = Type.Object(
  { unitId: Uuid('Unit'), partId: PartId('Part') },
  { ...closed, title: 'Part' },
);

/** What is known of a part that has to be matched: of the one fitted, or of the one offered. */
export const PartDataSchema = Type.Object(
  {
    number: Type.Optional(Line('Number on it', 40)),
    thread: Type.Optional(Line('Thread', 40)),
    setPsi: Type.Optional(
      Type.Number({ minimum: 0, maximum: 200, title: 'Crack or set pressure' }),
    ),
    variant: Type.Optional(
      Type.String({ pattern: '^[a-z0-9]+(-[a-z0-9]+)*$', maxLength: 40, title: 'Kind' }),
    ),
    chamberType: Type.Optional(
      Type.Unsafe<ChamberType>({ enum: [...chamberTypes], title: 'Chamber type' }),
    ),
    stroke: Type.Optional(oneOf(chamberStrokes, 'Stroke')),
    lengthMm: Type.Optional(Type.Number({ minimum: 10, maximum: 20_000, title: 'Length (mm)' })),
  },
  { ...closed, title: 'Data of the part' },
);

/** What is at fault, and which check proved it. A wrong conclusion is superseded, with the reason. */
const Proven = factOf('proven', {
  at: AtPart,
  /** The fault's id among those of the rig, where it is one of them. */
  faultId: Type.Optional(Type.String({ minLength: 3, maxLength: 160, title: 'Fault' })),
  /** What is wrong with it, in words. */
  text: Line('What it is', 200),
  /** Which check proved it, and what it gave. */
  by: Line('Which check proved it', 300),
  /** The visit or run in which it was proven. */
  logId: Type.Optional(Uuid('Record')),
  supersedes: Type.Optional(Uuid('Earlier conclusion')),
  /** Why the earlier conclusion was wrong. */
  because: Type.Optional(Line('Why the earlier one was wrong', 300)),
});
/** How it will be mended; a part that is fitted has to match. */
const Chosen = factOf('chosen', {
  at: AtPart,
  repair: oneOf(repairs, 'Repair'),
  offered: Type.Optional(PartDataSchema),
  /** An adapter or an equivalent that makes another thread or number good. */
  adapter: Type.Optional(Line('Adapter or equivalent', 200)),
  /** A lead's reason to fit what does not match. */
  override: Type.Optional(Line('Why it is fitted all the same', 300)),
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** A part that was offered and does not match; kept so that nobody offers it again. */
const Refused = factOf('refused', {
  at: AtPart,
  offered: PartDataSchema,
  problems: Type.Array(Line('What does not match', 200), {
    minItems: 1,
    maxItems: 8,
    title: 'What does not match',
  }),
});
/** A part is on order. */
const Waiting = factOf('waiting', {
  text: Line('What is waited for', 200),
  until: Type.Optional(Day('Expected')),
});
/** The repair is done: what came out, what went in, how it sits. */
const Fitted = factOf('fitted', {
  at: AtPart,
  repair: oneOf(repairs, 'Repair'),
  was: PartDataSchema,
  now: PartDataSchema,
  orientation: Type.Optional(Line('How it sits', 120)),
  note: Type.Optional(Line('Note', 300)),
  override: Type.Optional(Line('Why it is fitted all the same', 300)),
  adapter: Type.Optional(Line('Adapter or equivalent', 200)),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});

/** A number before and after, psi, psi/min, seconds or millimetres. */
const Reading = Type.Object(
  {
    title: Line('What was read', 80),
    unit: Type.String({ minLength: 1, maxLength: 10, title: 'Unit' }),
    before: Type.Union([Type.Number({ title: 'Before' }), Type.Null()]),
    after: Type.Union([Type.Number({ title: 'After' }), Type.Null()]),
    /** What the rig's twin says a sound one reads. */
    expected: Type.Union([Type.Number({ title: 'Expected' }), Type.Null()]),
  },
  { ...closed, title: 'Reading' },
);
/** One retest that was owed, and what it came to. */
const Retested = factOf('retested', {
  /** Which of the retests owed. */
  owedId: Type.String({ minLength: 3, maxLength: 160, title: 'Retest' }),
  /** The run, or the visit and its entry, in which it was done. */
  logId: Uuid('Record'),
  factId: Type.Optional(Uuid('Entry of the visit')),
  /** When the run was begun, or the first of its checks made, by the server’s clock; as it was kept where it is not there. */
  testedAtMs: Type.Optional(AtMs('Tested')),
  verdict: oneOf(['pass', 'fail', 'cant-tell'] as const, 'Verdict'),
  said: Line('What it came to', 300),
  readings: Type.Array(Reading, { maxItems: 12, title: 'Readings' }),
  /** A lead's reason to take as passed what cannot be told. */
  accepted: Type.Optional(Line('Why it is taken as passed', 300)),
});
/** Something that must be undone before the vehicle leaves. */
const Measure = factOf('measure', {
  measure: oneOf(measureKinds, 'Temporary measure'),
  at: Type.Union([AtPart, Type.Null()], { title: 'Part' }),
  text: Line('What was done', 200),
  photos: Photos,
});
const Undone = factOf('undone', {
  measureId: Uuid('Temporary measure'),
  text: Type.Optional(Line('Note', 200)),
});
/** Whose job it is. */
const Owner = factOf('owner', { personId: Uuid('Person'), name: Line('Name', 80) });
const WantedBy = factOf('wanted-by', {
  day: Type.Union([Day('Wanted by'), Type.Null()], { title: 'Wanted by' }),
});
/** Something worth remembering. */
const Note = factOf('note', {
  text: Line('Note', 500),
  photos: Photos,
  supersedes: Type.Optional(Uuid('Corrected fact')),
});
/** A retest did not do what it should: what was concluded is open again. */
const Reopened = factOf('reopened', { because: Line('Why', 300) });
/** A lead asks for release. The server looks at everything again and answers with `released`, or leaves it asked for. */
const AskRelease = factOf('ask-release', {});
/** The vehicle is released by this job; only the server writes it. */
const Released = factOf('released', {
  askId: Uuid('Asked for'),
  /** How far each lane was known; what comes later of it takes the release back. */
  knew: Type.Record(Type.String(), Type.Integer({ minimum: 1 }), { title: 'Known of each lane' }),
  /** Head of the hash chain over what was known: SHA-256 in hexadecimal. */
  digest: Type.String({ pattern: '^[0-9a-f]{64}$', title: 'Digest' }),
  atServerMs: AtMs('Released'),
});
/** Closed without repair by a lead, with the reason. */
const Close = factOf('close', { because: Line('Why it is closed without repair', 300) });

export type PartData = Static<typeof PartDataSchema>;
export type JobReading = Static<typeof Reading>;
export type ProvenFact = Static<typeof Proven>;
export type ChosenFact = Static<typeof Chosen>;
export type RefusedFact = Static<typeof Refused>;
export type WaitingFact = Static<typeof Waiting>;
export type FittedFact = Static<typeof Fitted>;
export type RetestedFact = Static<typeof Retested>;
export type MeasureFact = Static<typeof Measure>;
export type ReleasedFact = Static<typeof Released>;

/** One fact of a job. */
export type JobFact =
  | ProvenFact
  | ChosenFact
  | RefusedFact
  | WaitingFact
  | FittedFact
  | RetestedFact
  | MeasureFact
  | Static<typeof Undone>
  | Static<typeof Owner>
  | Static<typeof WantedBy>
  | Static<typeof Note>
  | Static<typeof Reopened>
  | Static<typeof AskRelease>
  | ReleasedFact
  | Static<typeof Close>
  | Static<typeof Retract>
  | Static<typeof ClockAnswer>;

export const JobFactSchema = Type.Unsafe<JobFact>({
  type: 'object',
  title: 'Job fact',
  discriminator: { propertyName: 'kind' },
  oneOf: [
    Proven,
    Chosen,
    Refused,
    Waiting,
    Fitted,
    Retested,
    Measure,
    Undone,
    Owner,
    WantedBy,
    Note,
    Reopened,
    AskRelease,
    Released,
    Close,
    Retract,
    ClockAnswer,
  ],
});
