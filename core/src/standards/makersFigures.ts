import type { RuleSet } from '@keen-bleed/contract';
import { cutInAsBuilt, limit, popOutLimits, sharedLimits, towedAlone, leakLimits } from './limits';
import { inService } from './inService';

/** The vehicle as it was built: its maker's own figures first, then the standard it was built to. */
export const makersFigures: RuleSet = {
  ...inService,
  id: 'makers-figures',
  title: 'Maker’s figures',
  limits: [
    ...cutInAsBuilt,
    ...leakLimits,
    towedAlone,
    limit({
      id: 'warning-as-built',
      figure: 'warning',
      unit: 'psi',
      min: 60,
      source: '49 CFR 571.121 S5.1.5',
      tag: 'std',
    }),
    ...popOutLimits,
    ...sharedLimits,
  ],
};
