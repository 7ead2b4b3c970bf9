import { Type, type TSchema } from '@sinclair/typebox';
import { figureIds, findingStandings, gaugeRoles, stopMeasures } from '../../choices';
import type { FigureId, FindingStanding, GaugeRole, StopMeasure } from '../../choices';

/** Where a mark's reading is proposed to stand before the needle is looked at. */
export type Proposal =
  | { from: 'level'; psi: number }
  | { from: 'governor'; field: 'cutInPsi' | 'cutOutPsi'; share?: number; otherwisePsi: number }
  | { from: 'mark'; stepId: string; key: string; addPsi?: number; otherwise: Proposal }
  /** The newest reading of the step. */
  | { from: 'last' }
  /** The newest reading of the whole run. */
  | { from: 'latest'; otherwise: Proposal }
  /** Where another proposal falls to when the pedal fills the chambers from the tanks. */
  | { from: 'after-pedal'; of: Proposal; ratio: number };

/** One mark a step waits for. */
export interface MarkSpec {
  key: string;
  /** What the pad says; `{reading}` stands for the proposed reading with its unit. */
  pad: string;
  /** The small line under it. */
  hint: string;
  /** `passing`: a place on the dial the needle passes, whose time is wanted. `needle`: where it stands. */
  at: 'passing' | 'needle';
  /** How the moment shows in the pressure itself, where it does: a linked gauge can catch it. */
  shows?: 'stops-rising' | 'starts-rising' | 'steady';
  proposal: Proposal;
}

/** Makes the run ready: things to see to, and the gauge to be read from then on. */
export interface ReadyAct {
  kind: 'ready';
  checks: readonly string[];
  gauges: readonly GaugeRole[];
  pad: string;
  /** Looked at on the way, and kept by the same press. */
  items?: readonly LookItem[];
}

/** Marks taken one after the other. */
export interface MarksAct {
  kind: 'marks';
  marks: readonly MarkSpec[];
  /** What is answered where a mark never came; it ends the step, and what was marked before it stands. */
  never?: LookItem;
}

/** A timed hold from a reading on, with as many line crossings and readings as the needle gives. */
export interface HoldAct {
  kind: 'hold';
  /** Marked when nothing moves the air any more; heat is then waited for, until it hides no leak. */
  settle?: MarkSpec;
  /** The rate that must be told from none, psi a minute: it sets the wait and the length. */
  limitPsiPerMin?: number;
  /** Why it is so long. */
  because?: string;
  seconds: number;
  /** What one press of “longer” adds. */
  extendSeconds: number;
  start: MarkSpec;
  /** The needle passes the next line down. */
  crossing: MarkSpec;
  /** The needle is read between two lines while the hold runs. */
  reading: MarkSpec;
  /** The reading after the end, where the hold did not end by itself. */
  end: MarkSpec;
  /** The second gauge, read at both ends where the rule set reads both. */
  other: { start: MarkSpec; end: MarkSpec } | null;
}

/** One answer to a thing that is looked at, listened for or felt. */
export interface LookOption {
  value: string;
  title: string;
  standing: FindingStanding;
  /** What a bad one most likely points at; what an open one needs; what a good one proves, and no more. */
  means?: string;
  /** Takes the vehicle out of service, where its rule set does not say otherwise for the whole step. */
  holds?: true;
}

/** One thing to look at; the first option is what is usually found, and is offered first. None stands until it is chosen. */
export interface LookItem {
  key: string;
  ask: string;
  options: readonly LookOption[];
}

/** Things to look at together: one press keeps them all. */
export interface LookAct {
  kind: 'look';
  items: readonly LookItem[];
}

/**
 * A stop from walking pace: seen from the wheel by the items, or measured, by a roller tester's printed force or by the
 * phone on the floor.
 */
export interface StopAct {
  kind: 'stop';
  items: readonly LookItem[];
  /** How else it may be measured. */
  measures: readonly StopMeasure[];
  /** The braking that must be reached, share of the weight in percent. */
  leastPct: number | null;
}

/** How a step's figures are computed from its marks. */
export type Reckoning =
  | { kind: 'build-up'; fromKey: string; toKey: string; spanPsi: number }
  | {
      kind: 'level';
      key: string;
      figure: FigureId;
      /** Read from this and not from the run's gauge. */
      by?: 'application' | 'test';
    }
  | { kind: 'interval'; fromKey: string; toKey: string; figure: FigureId }
  | {
      kind: 'difference';
      key: string;
      otherStepId: string;
      otherKey: string;
      figure: FigureId;
    }
  | { kind: 'leak'; figure: FigureId; loss: FigureId | null; gauge: 'read' | 'other' }
  | { kind: 'stop'; figure: FigureId };

/** One step of a procedure, as data: what was asked, kept with the run it was asked in. */
export interface Step {
  id: string;
  title: string;
  /** What to do, in short sentences. */
  say: readonly string[];
  /** Dangers this step brings, shown before it is done. */
  cautions: readonly string[];
  act: ReadyAct | MarksAct | HoldAct | LookAct | StopAct;
  reckon: readonly Reckoning[];
  /** Figures whose limits are drawn on the ladder as windows, where they are pressures. */
  windowFigures: readonly FigureId[];
  /** False for steps that cannot be left out. */
  maySkip: boolean;
  /** The rule set asks for it: a run without it is incomplete. */
  required: boolean;
}

const closed = { additionalProperties: false } as const;
const Id = Type.String({ minLength: 1, maxLength: 40 });
const Text = Type.String({ maxLength: 400 });
const Psi = Type.Number({ minimum: -100, maximum: 2_000 });
const enumOf = (values: readonly string[]) =>
  Type.Unsafe<string>({ type: 'string', enum: [...values] });
const listOf = (items: TSchema, maxItems: number) => Type.Array(items, { maxItems });

// A proposal is only shown to whoever makes the run; the server compares it and never follows it.
const ProposalSchema = Type.Object({
  from: enumOf(['level', 'governor', 'mark', 'last', 'latest', 'after-pedal']),
});
const Mark = Type.Object(
  {
    key: Id,
    pad: Text,
    hint: Text,
    at: enumOf(['passing', 'needle']),
    shows: Type.Optional(enumOf(['stops-rising', 'starts-rising', 'steady'])),
    proposal: ProposalSchema,
  },
  closed,
);
const Item = Type.Object(
  {
    key: Id,
    ask: Text,
    options: Type.Array(
      Type.Object(
        {
          value: Id,
          title: Text,
          standing: enumOf(findingStandings),
          means: Type.Optional(Text),
          holds: Type.Optional(Type.Literal(true)),
        },
        closed,
      ),
      { minItems: 1, maxItems: 12 },
    ),
  },
  closed,
);
const byKind = (oneOf: TSchema[], title: string): TSchema =>
  Type.Unsafe({ type: 'object', title, discriminator: { propertyName: 'kind' }, oneOf });
const Act = byKind(
  [
    Type.Object(
      {
        kind: Type.Literal('ready'),
        checks: listOf(Text, 20),
        gauges: Type.Array(enumOf(gaugeRoles), { minItems: 1, maxItems: 4 }),
        pad: Text,
        items: Type.Optional(listOf(Item, 30)),
      },
      closed,
    ),
    Type.Object(
      { kind: Type.Literal('marks'), marks: listOf(Mark, 20), never: Type.Optional(Item) },
      closed,
    ),
    Type.Object(
      {
        kind: Type.Literal('hold'),
        settle: Type.Optional(Mark),
        limitPsiPerMin: Type.Optional(Type.Number({ minimum: 0, maximum: 5_000 })),
        because: Type.Optional(Text),
        seconds: Type.Integer({ minimum: 1, maximum: 7_200 }),
        extendSeconds: Type.Integer({ minimum: 1, maximum: 7_200 }),
        start: Mark,
        crossing: Mark,
        reading: Mark,
        end: Mark,
        other: Type.Union([Type.Object({ start: Mark, end: Mark }, closed), Type.Null()]),
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('look'), items: listOf(Item, 60) }, closed),
    Type.Object(
      {
        kind: Type.Literal('stop'),
        items: listOf(Item, 10),
        measures: listOf(enumOf(stopMeasures), 4),
        leastPct: Type.Union([Type.Number({ minimum: 0, maximum: 100 }), Type.Null()]),
      },
      closed,
    ),
  ],
  'What is done',
);
const figure = enumOf(figureIds);
const Reckon = byKind(
  [
    Type.Object({ kind: Type.Literal('build-up'), fromKey: Id, toKey: Id, spanPsi: Psi }, closed),
    Type.Object(
      {
        kind: Type.Literal('level'),
        key: Id,
        figure,
        by: Type.Optional(enumOf(['application', 'test'])),
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('interval'), fromKey: Id, toKey: Id, figure }, closed),
    Type.Object(
      { kind: Type.Literal('difference'), key: Id, otherStepId: Id, otherKey: Id, figure },
      closed,
    ),
    Type.Object(
      {
        kind: Type.Literal('leak'),
        figure,
        loss: Type.Union([figure, Type.Null()]),
        gauge: enumOf(['read', 'other']),
      },
      closed,
    ),
    Type.Object({ kind: Type.Literal('stop'), figure }, closed),
  ],
  'How it is computed',
);

/** A step as a shape. */
export const StepSchema = Type.Unsafe<Step>(
  Type.Object(
    {
      id: Id,
      title: Text,
      say: listOf(Text, 20),
      cautions: listOf(Text, 20),
      act: Act,
      reckon: listOf(Reckon, 20),
      windowFigures: listOf(figure, 20),
      maySkip: Type.Boolean(),
      required: Type.Boolean(),
    },
    { ...closed, title: 'Step as it was asked' },
  ),
);
