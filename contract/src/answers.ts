import { OpenFailureSchema } from './failure';
import { Type, type Static } from '@sinclair/typebox';
import { unitKinds, verdicts, type UnitKind, type Verdict } from './choices';
import { FigureSchema } from './outcome';
import { AtMs, Uuid } from './primitives';
import { RigSchema } from './rig';
import { RuleSetSchema } from './ruleSet';
import { UnitSchema } from './unit';

const closed = { additionalProperties: false } as const;
const orNull = <T extends Parameters<typeof Type.Union>[0][number]>(schema: T) =>
  Type.Union([schema, Type.Null()]);

const oneOfStations = Type.Unsafe<'found' | 'proven' | 'part' | 'fitted' | 'retest' | 'release'>({
  type: 'string',
  enum: ['found', 'proven', 'part', 'fitted', 'retest', 'release'],
});

/** Every unit of a shop. */
export const UnitsSchema = Type.Array(UnitSchema, { title: 'Units' });

/** The rigs of a shop that are coupled now. */
export const RigsSchema = Type.Array(RigSchema, { title: 'Rigs' });

/** The rule sets a shop may run by, and the one it takes when none is picked. */
export const RuleSetListSchema = Type.Object(
  { sets: Type.Array(RuleSetSchema), defaultId: Type.String() },
  { ...closed, title: 'Rule sets' },
);

/** Every unit of a shop with its newest runs. */
export const YardRowsSchema = Type.Array(
  Type.Object(
    {
      unit: Type.Object(
        {
          id: Uuid('Unit id'),
          number: Type.String(),
          name: Type.String(),
          kind: Type.Unsafe<UnitKind>({ type: 'string', enum: [...unitKinds] }),
          revision: Type.Integer({ minimum: 1 }),
          testEveryDays: Type.Integer({ minimum: 1 }),
          retiredAtMs: orNull(AtMs('Retired at')),
        },
        closed,
      ),
      last: orNull(
        Type.Object(
          {
            runId: Uuid('Run'),
            closedAtMs: AtMs('Closed'),
            verdict: Type.Unsafe<Verdict>({ type: 'string', enum: [...verdicts] }),
            timeUnsure: Type.Boolean(),
            headline: Type.String(),
            decisive: orNull(FigureSchema),
          },
          closed,
        ),
      ),
      retest: Type.Optional(
        orNull(
          Type.Object(
            {
              runId: Uuid('Run'),
              closedAtMs: AtMs('Closed'),
              verdict: Type.Unsafe<Verdict>({ type: 'string', enum: [...verdicts] }),
            },
            closed,
          ),
        ),
      ),
      lastCompleteAtMs: orNull(AtMs('Last complete run')),
      open: orNull(
        Type.Object(
          { runId: Uuid('Run'), startedAtMs: AtMs('Started'), by: Type.String() },
          closed,
        ),
      ),
      leakTrendPsiPerMin: Type.Array(Type.Number()),
      failures: Type.Array(OpenFailureSchema),
      holds: Type.Array(Type.String()),
      jobs: Type.Array(
        Type.Object(
          {
            id: Uuid('Job'),
            line: Type.String(),
            station: Type.String(),
            owed: Type.Array(Type.String()),
            covers: Type.Array(Type.String()),
          },
          closed,
        ),
      ),
    },
    closed,
  ),
  { title: 'Yard' },
);

const JobPart = Type.Object(
  { unitId: Uuid('Unit'), partId: Type.String(), title: Type.String() },
  { ...closed, title: 'Part' },
);
const JobWant = Type.Object(
  { title: Type.String(), value: Type.Union([Type.String(), Type.Number(), Type.Null()]) },
  { ...closed, title: 'What it must match' },
);

/** Jobs as the board shows them. */
export const JobRowsSchema = Type.Array(
  Type.Object(
    {
      id: Uuid('Job'),
      unitId: Uuid('Unit'),
      /** What it is on: a unit's title, or those of a rig. */
      title: Type.String(),
      station: oneOfStations,
      line: Type.String(),
      holds: Type.Array(Type.String()),
      unitIds: Type.Array(Uuid('Unit')),
      part: orNull(JobPart),
      owed: Type.Array(
        Type.Object(
          {
            id: Type.String(),
            title: Type.String(),
            minutes: Type.Number(),
            stepId: orNull(Type.String()),
          },
          closed,
        ),
      ),
      measures: Type.Array(
        Type.Object({ id: Uuid('Measure'), text: Type.String(), sinceMs: AtMs('Since') }, closed),
      ),
      ownerId: orNull(Type.String()),
      owner: orNull(Type.String()),
      wantedBy: orNull(Type.String()),
      waitingFor: orNull(Type.String()),
      covers: Type.Array(Type.String()),
      asked: Type.Boolean(),
      released: Type.Boolean(),
      wants: Type.Array(JobWant),
      ruleSetId: Type.Optional(orNull(Type.String())),
      openedMs: AtMs('Opened'),
      closedAtMs: orNull(AtMs('Closed')),
      by: Type.String(),
    },
    closed,
  ),
  { title: 'Jobs' },
);
export type JobRow = Static<typeof JobRowsSchema>[number];

/** What the shop’s repairs teach; counts of vehicles and parts, never of people. */
export const LessonsSchema = Type.Object(
  {
    released: Type.Integer({ minimum: 0 }),
    /** From the opening of a job to its release, hours; null where none was released. */
    meanHours: orNull(Type.Number()),
    /** How often what the suspects named first was the part, of the jobs they were asked for. */
    suspects: Type.Object(
      { asked: Type.Integer({ minimum: 0 }), right: Type.Integer({ minimum: 0 }) },
      closed,
    ),
    /** Parts worked on, by what they are called. */
    parts: Type.Array(
      Type.Object(
        {
          title: Type.String(),
          worked: Type.Integer({ minimum: 0 }),
          needless: Type.Integer({ minimum: 0 }),
        },
        closed,
      ),
    ),
    /** The same part of the same unit, again. */
    repeats: Type.Array(
      Type.Object(
        {
          unitId: Uuid('Unit'),
          unit: Type.String(),
          part: Type.String(),
          times: Type.Integer({ minimum: 2 }),
          days: Type.Number(),
        },
        closed,
      ),
    ),
    /** What retests read beside what was expected, by reading. */
    readings: Type.Array(
      Type.Object(
        {
          title: Type.String(),
          unit: Type.String(),
          count: Type.Integer({ minimum: 1 }),
          before: orNull(Type.Number()),
          after: orNull(Type.Number()),
          expected: orNull(Type.Number()),
        },
        closed,
      ),
    ),
    /** How often each fault was the one: the chances of suspects begin with it. */
    faults: Type.Array(
      Type.Object({ faultId: Type.String(), times: Type.Integer({ minimum: 1 }) }, closed),
    ),
  },
  { ...closed, title: 'What repairs teach' },
);
export type Lessons = Static<typeof LessonsSchema>;

/** When the tanks of each unit were drained last, as far as it was written down. */
export const DrainRowsSchema = Type.Array(
  Type.Object(
    {
      unitId: Uuid('Unit'),
      drainedAtMs: Type.Union([AtMs('Drained'), Type.Null()]),
      /** What the last drain round said, in a line; null where it was part of a run. */
      said: Type.Union([Type.String(), Type.Null()]),
    },
    { additionalProperties: false },
  ),
  { title: 'Drains' },
);
export type DrainRows = Static<typeof DrainRowsSchema>;

/** What stands against the release of a job. */
export const BlocksSchema = Type.Object(
  { blocks: Type.Array(Type.String()) },
  { ...closed, title: 'What stands against a release' },
);
