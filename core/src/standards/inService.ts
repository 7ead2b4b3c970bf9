import type { RuleSet } from '@keen-bleed/contract';
import { buildUpLimits, leakLimits, limit, popOutLimits, sharedLimits, towedAlone } from './limits';
import { may, must } from './ruleSteps';
import { usualSwitches } from './switches';

/** The periodic inspection of a vehicle in use. */
export const inService: RuleSet = {
  id: 'in-service',
  revision: 1,
  basedOn: null,
  title: 'Periodic in-service inspection',
  school: 'words',
  limits: [
    ...buildUpLimits,
    limit({
      id: 'cut-out-in-use',
      figure: 'cut-out',
      unit: 'psi',
      max: 135,
      source: '49 CFR 570.57, unless the maker says otherwise',
      tag: 'std',
    }),
    limit({
      id: 'cut-in-in-use',
      figure: 'cut-in',
      unit: 'psi',
      min: 80,
      source: '49 CFR 570.57, unless the maker says otherwise',
      tag: 'std',
    }),
    ...leakLimits,
    towedAlone,
    limit({
      id: 'warning-in-use',
      figure: 'warning',
      unit: 'psi',
      min: 55,
      max: 75,
      source:
        '49 CFR 393.51: 55 psi, or half of cut-out where that is less; not above 75 by trade practice',
      tag: 'std',
    }),
    ...popOutLimits,
    ...sharedLimits,
  ],
  steps: [
    must('prepare'),
    must('drain'),
    must('charge'),
    must('build-up'),
    must('cut-out'),
    must('cut-in'),
    may('cycle'),
    must('couplers'),
    must('trailer-supply'),
    must('static-hold'),
    must('applied-hold'),
    must('warning'),
    must('pop-out'),
    must('rebuild'),
    must('holding'),
    may('stop-lamp'),
    must('fail-primary'),
    must('fail-secondary'),
    must('anti-compounding'),
  ],
  switches: usualSwitches,
};
