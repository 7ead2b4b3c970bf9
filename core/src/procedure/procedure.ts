import type { RuleSet, Step, UnitDraft } from '@keen-bleed/contract';
import type { RigUnderTest } from '../rig/rigUnderTest';

// What was asked is kept with the record, so its shape stands in the contract.
export type {
  HoldAct,
  LookAct,
  LookItem,
  LookOption,
  MarkSpec,
  MarksAct,
  Proposal,
  ReadyAct,
  Reckoning,
  Step,
  StopAct,
} from '@keen-bleed/contract';

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
