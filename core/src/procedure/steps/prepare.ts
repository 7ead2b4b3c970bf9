import { hasCompressor } from '../../rig/hasCompressor';
import type { StepMaker } from '../procedure';
import { step } from './stepParts';

const CLEAR = 'Nobody near the pushrods';
const STAY_CLEAR = 'Stay clear of pushrods and adjusters while air is on.';

/** Makes the rig safe and picks the gauge. */
export const prepare: StepMaker = {
  id: 'prepare',
  title: 'Make it safe',
  make: ({ rig, ruleSet }) => {
    const byGear = ruleSet.switches.heldBy === 'low-gear';
    if (!hasCompressor(rig.unit.kind)) {
      return step({
        id: 'prepare',
        title: 'Make it safe',
        say: [
          'Couple shop air, regulated to {120}, to the [supply coupler], with a gauge teed in.',
        ],
        cautions: ['Chock both ways: charging lifts the brakes.', STAY_CLEAR],
        act: {
          kind: 'ready',
          checks: [
            'Level ground, wheels chocked both ways',
            CLEAR,
            'Shop air coupled and regulated',
          ],
          gauges: ['master', 'supply'],
          pad: 'All done, ready',
        },
        maySkip: false,
      });
    }
    return step({
      id: 'prepare',
      title: 'Make it safe',
      cautions: [
        byGear
          ? 'Low gear does not hold with the engine off the clutch: keep somebody at the wheel.'
          : 'Chock both ways before the parking brakes come off.',
        STAY_CLEAR,
      ],
      act: {
        kind: 'ready',
        checks: [
          byGear
            ? 'Level ground, low gear where the rig must be held'
            : 'Level ground, wheels chocked both ways',
          CLEAR,
          'Gear in neutral, parking brakes set',
          'Key on: ABS lamp on, then off',
          'Start the engine',
        ],
        gauges: ['primary', 'secondary', 'master'],
        pad: 'All done, ready',
      },
      maySkip: false,
    });
  },
};
