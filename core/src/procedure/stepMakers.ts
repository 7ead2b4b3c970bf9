import type { StepMaker } from './procedure';
import {
  antiCompounding,
  failPrimary,
  failSecondary,
  ninthStroke,
  reserve,
} from './steps/circuitFailure';
import { drain } from './steps/drain';
import { popOut, rebuild, warning } from './steps/fall';
import { buildUp, buildUpRated, cutIn, cutOut, cycle } from './steps/governor';
import { handBrakeTest, holding, stopLamp } from './steps/holding';
import { appliedHold, staticHold } from './steps/holds';
import { prepare } from './steps/prepare';
import { charge, couplers, couplingSupply, trailerSupply } from './steps/trailer';

/** Every step a rule set may name, in the order a technician usually does them. */
export const stepMakers: readonly StepMaker[] = [
  prepare,
  drain,
  charge,
  buildUp,
  buildUpRated,
  cutOut,
  cutIn,
  cycle,
  couplers,
  trailerSupply,
  couplingSupply,
  staticHold,
  appliedHold,
  warning,
  popOut,
  rebuild,
  reserve,
  ninthStroke,
  holding,
  handBrakeTest,
  stopLamp,
  failPrimary,
  failSecondary,
  antiCompounding,
];

/** A maker by the step's id, or null. */
export function stepMakerById(id: string): StepMaker | null {
  return stepMakers.find((maker) => maker.id === id) ?? null;
}
