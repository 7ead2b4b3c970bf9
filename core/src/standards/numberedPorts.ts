import type { Limit, RuleSet } from '@keen-bleed/contract';
import { toPsi } from '../units/pressure';
import { leakLimits, limit, popOutLimits, stopLimits, towedAlone } from './limits';
import { may, must, off } from './ruleSteps';
import { usualSwitches } from './switches';

const HOUSE = 'house default, not a regulation';

/** The psi school's limit, converted and called what it is in this school. */
const houseDefault = (from: Limit): Limit => ({
  ...from,
  id: `${from.id}-house`,
  source: `${HOUSE}: the psi school's figure converted`,
  tag: 'house',
});

const R13 = 'UN R13 annex 7';

/** The numbered-port school (UN ECE practice): bar, ports by number, build-up to 65 and 100 %. */
export const numberedPorts: RuleSet = {
  id: 'numbered-ports',
  revision: 3,
  basedOn: null,
  title: 'Numbered ports, bar',
  school: 'numbers',
  limits: [
    limit({
      id: 'build-up-part-alone',
      figure: 'build-up-part',
      unit: 's',
      max: 180,
      coupled: ['alone'],
      source: `${R13}: 0 to 65 % within 3 min`,
      tag: 'std',
    }),
    limit({
      id: 'build-up-part-towing',
      figure: 'build-up-part',
      unit: 's',
      max: 360,
      coupled: ['one-trailer', 'two-trailers'],
      source: `${R13}: 0 to 65 % within 6 min, towing`,
      tag: 'std',
    }),
    limit({
      id: 'build-up-full-alone',
      figure: 'build-up-full',
      unit: 's',
      max: 360,
      coupled: ['alone'],
      source: `${R13}: 0 to 100 % within 6 min`,
      tag: 'std',
    }),
    limit({
      id: 'build-up-full-towing',
      figure: 'build-up-full',
      unit: 's',
      max: 540,
      coupled: ['one-trailer', 'two-trailers'],
      source: `${R13}: 0 to 100 % within 9 min, towing`,
      tag: 'std',
    }),
    limit({
      id: 'coupling-supply',
      figure: 'coupling-supply',
      unit: 'psi',
      min: toPsi(6.5, 'bar'),
      max: toPsi(8.5, 'bar'),
      source: 'UN R13: 6.5 to 8.5 bar at the supply coupling',
      tag: 'memory',
    }),
    ...leakLimits.map(houseDefault),
    { ...houseDefault(towedAlone), source: `${HOUSE}: a third of what a combination may lose` },
    limit({
      id: 'warning-house',
      figure: 'warning',
      unit: 'psi',
      min: toPsi(4.5, 'bar'),
      max: toPsi(5.5, 'bar'),
      source: `${HOUSE}: about 5 to 5.5 bar is usual, and not under 4.5`,
      tag: 'house',
    }),
    ...popOutLimits.map(houseDefault),
    ...stopLimits.map(houseDefault),
  ],
  steps: [
    must('prepare'),
    must('drain'),
    // Its dates are another law's.
    off('by-age'),
    must('charge'),
    must('build-up-rated'),
    must('cut-out'),
    off('purge'),
    must('cut-in'),
    off('cycle'),
    must('couplers'),
    must('coupling-supply'),
    must('static-hold'),
    must('applied-hold'),
    must('breakaway-hold'),
    must('breakaway-held'),
    must('warning'),
    may('warning-parts'),
    // Its hand brake valve does not pop: the springs come on as the pressure falls.
    off('pop-out'),
    must('rebuild'),
    must('reserve'),
    must('ninth-stroke'),
    must('hand-brake-test'),
    must('holding'),
    must('service-stop'),
    off('safety-valve'),
    may('fail-supply'),
    may('fail-primary'),
    may('fail-secondary'),
    off('anti-compounding'),
  ],
  switches: usualSwitches,
};
