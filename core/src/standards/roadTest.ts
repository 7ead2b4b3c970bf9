import type { RuleSet } from '@keen-bleed/contract';
import {
  buildUpLimits,
  cutInAsBuilt,
  leakLimits,
  limit,
  popOutLimits,
  sharedLimits,
  towedAlone,
} from './limits';
import { must, off } from './ruleSteps';
import { usualSwitches } from './switches';

/** The windows of a licence road test, which most shops test to. */
export const roadTest: RuleSet = {
  id: 'road-test',
  revision: 1,
  basedOn: null,
  title: 'Road-test examiner',
  school: 'words',
  limits: [
    ...buildUpLimits,
    limit({
      id: 'cut-out-window',
      figure: 'cut-out',
      unit: 'psi',
      min: 120,
      max: 140,
      source: 'what licence examiners expect',
      tag: 'trade',
    }),
    ...cutInAsBuilt,
    ...leakLimits,
    towedAlone,
    limit({
      id: 'warning-window',
      figure: 'warning',
      unit: 'psi',
      min: 55,
      max: 75,
      source: 'what licence examiners accept',
      tag: 'trade',
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
    off('cycle'),
    must('couplers'),
    off('trailer-supply'),
    must('static-hold'),
    must('applied-hold'),
    must('warning'),
    must('pop-out'),
    must('rebuild'),
    must('holding'),
    off('stop-lamp'),
    off('fail-primary'),
    off('fail-secondary'),
    off('anti-compounding'),
  ],
  switches: usualSwitches,
};
