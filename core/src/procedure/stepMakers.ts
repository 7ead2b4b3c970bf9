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
import { byAge } from './steps/byAge';
import { drain } from './steps/drain';
import { parkStays, popOut, rebuild, warning, warningParts } from './steps/fall';
import { gaugeComparison } from './steps/gaugeComparison';
import { buildUp, buildUpRated, cutIn, cutOut, cycle, fill, purge } from './steps/governor';
import { handBrakeTest, holding, stopLamp } from './steps/holding';
import { appliedHold, staticHold } from './steps/holds';
import { prepare } from './steps/prepare';
import { serviceStop } from './steps/serviceStop';
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
  byAge,
  shopLooks,
  charge,
  buildUp,
  buildUpRated,
  cutOut,
  purge,
  cutIn,
  cycle,
  fill,
  gaugeComparison,
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
  serviceStop,
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
