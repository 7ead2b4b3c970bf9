import type { StepMaker } from './procedure';
import {
  antiCompounding,
  failPrimary,
  failSecondary,
  failSupply,
  ninthStroke,
  reserve,
  safetyValve,
} from './steps/circuitFailure';
import { drain } from './steps/drain';
import { parkStays, popOut, rebuild, warning, warningParts } from './steps/fall';
import { buildUp, buildUpRated, cutIn, cutOut, cycle } from './steps/governor';
import { handBrakeTest, holding, stopLamp } from './steps/holding';
import { appliedHold, staticHold } from './steps/holds';
import { prepare } from './steps/prepare';
import { shopLooks } from './steps/shopLooks';
import {
  charge,
  couplers,
  couplingSupply,
  tractorProtection,
  trailerSupply,
} from './steps/trailer';
import { breakawayHeld, breakawayHold, trailerAlone } from './steps/trailerAlone';

/** Every step a rule set may name, in the order a technician usually does them. */
export const stepMakers: readonly StepMaker[] = [
  prepare,
  drain,
  shopLooks,
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
  tractorProtection,
  trailerAlone,
  breakawayHold,
  breakawayHeld,
  warning,
  warningParts,
  popOut,
  parkStays,
  rebuild,
  reserve,
  ninthStroke,
  holding,
  handBrakeTest,
  stopLamp,
  safetyValve,
  failSupply,
  failPrimary,
  failSecondary,
  antiCompounding,
];

/** A maker by the step's id, or null. */
export function stepMakerById(id: string): StepMaker | null {
  return stepMakers.find((maker) => maker.id === id) ?? null;
}
