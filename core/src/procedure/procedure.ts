import type {
  FigureId,
  FindingStanding,
  GaugeRole,
  RuleSet,
  UnitDraft,
} from '@keen-bleed/contract';
import type { RigUnderTest } from '../rig/rigUnderTest';

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
}

/** A timed hold from a reading on, with as many line crossings and readings as the needle gives. */
export interface HoldAct {
  kind: 'hold';
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
  /** What a bad one most likely points at. */
  means?: string;
}

/** One thing to look at; the first option is what is usually found, and stands until another is chosen. */
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

/** How a step's figures are computed from its marks. */
export type Reckoning =
  | { kind: 'build-up'; fromKey: string; toKey: string; spanPsi: number }
  | { kind: 'level'; key: string; figure: FigureId }
  | { kind: 'interval'; fromKey: string; toKey: string; figure: FigureId }
  | {
      kind: 'difference';
      key: string;
      otherStepId: string;
      otherKey: string;
      figure: FigureId;
    }
  | { kind: 'leak'; figure: FigureId; loss: FigureId | null; gauge: 'read' | 'other' };

/** One step of a procedure, as data. */
export interface Step {
  id: string;
  title: string;
  /** What to do, in short sentences. */
  say: readonly string[];
  /** Dangers this step brings, shown before it is done. */
  cautions: readonly string[];
  act: ReadyAct | MarksAct | HoldAct | LookAct;
  reckon: readonly Reckoning[];
  /** Figures whose limits are drawn on the ladder as windows, where they are pressures. */
  windowFigures: readonly FigureId[];
  /** False for steps that cannot be left out. */
  maySkip: boolean;
  /** The rule set asks for it: a run without it is incomplete. */
  required: boolean;
}

/** A test as a list of steps. */
export interface Procedure {
  title: string;
  steps: readonly Step[];
}

/** The parts of a unit that a run's state is kept in the light of. */
export type ProcedureUnit = Pick<UnitDraft, 'kind' | 'circuits' | 'gauge' | 'governor'>;

/** What a step is made in the light of. */
export interface StepContext {
  rig: RigUnderTest;
  ruleSet: RuleSet;
}

/** A step before it is known where it stands and whether it is needed. */
export type MadeStep = Omit<Step, 'required'>;

/** A step by its id, made for the rig at hand; null where the rig has nothing to do it with. */
export interface StepMaker {
  id: string;
  title: string;
  make: (context: StepContext) => MadeStep | null;
}
