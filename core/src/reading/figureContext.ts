import type { FigureId, GaugeRole, PressureUnit, RuleSet, StopFact } from '@keen-bleed/contract';
import type { Heat } from '../leak/heat';
import type { Step } from '../procedure/procedure';
import type { LiveMark } from '../run/runState';
import type { RigUnderTest } from '../rig/rigUnderTest';

/** What figures are computed in the light of. */
export interface FigureContext extends RigUnderTest {
  ruleSet: RuleSet;
  /** Unit of pressure the sentences speak in. */
  sayIn: PressureUnit;
}

/** One step's marks with everything around them. */
export interface StepMarks extends FigureContext {
  step: Step;
  gauge: GaugeRole;
  marks: readonly LiveMark[];
  /** The step's stop, where it was measured. */
  stop: StopFact | null;
  mark: (stepId: string, key: string) => LiveMark | null;
  cutOutPsi: number;
  /** When the step's hold ended by itself, or null. */
  holdOverAtMs: number | null;
  /** What heat was still to do when the step's hold began; null in other steps. */
  heat: Heat | null;
  /** The level a mark was made for, or null. */
  levelAt: (mark: LiveMark) => FigureId | null;
}
