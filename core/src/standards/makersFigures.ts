import type { RuleSet } from '@keen-bleed/contract';
import {
  buildUpAsBuilt,
  cutInAsBuilt,
  leakLimits,
  popOutLimits,
  sharedLimits,
  towedAlone,
  warningAsBuilt,
} from './limits';
import { inService } from './inService';

/** The vehicle as it was built: its maker's own figures first, then the standard it was built to. */
export const makersFigures: RuleSet = {
  ...inService,
  id: 'makers-figures',
  title: 'Maker’s figures',
  limits: [
    ...buildUpAsBuilt,
    ...cutInAsBuilt,
    ...leakLimits,
    towedAlone,
    ...warningAsBuilt,
    ...popOutLimits,
    ...sharedLimits,
  ],
};
