import { hasCompressor } from '../../rig/hasCompressor';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import type { LookItem, StepMaker } from '../procedure';
import { step } from './stepParts';

const CLEAR = 'Nobody near the pushrods';
const STAY_CLEAR = 'Stay clear of pushrods and adjusters while air is on.';

/** The antilock lamps, as they come with the key. */
function abs({ unit, towed }: RigUnderTest): LookItem {
  return {
    key: 'abs-lamp',
    ask: towed.length > 0 ? 'ABS lamps, in front and behind' : 'ABS lamp',
    options: [
      { value: 'on-off', title: 'on, then off', standing: 'good' },
      {
        value: 'stays-on',
        title: 'stays on',
        standing: 'bad',
        means: 'A fault is stored: the brakes work without antilock, and wheels may lock.',
      },
      {
        value: 'never',
        title: 'never lit',
        standing: 'bad',
        means: 'The bulb or its wiring: a fault would not be seen.',
      },
      {
        value: 'some',
        title: towed.length > 0 ? 'not on every unit' : 'not fitted',
        standing: 'noted',
        ...(towed.length > 0
          ? {
              means: `Only part of the rig has antilock: it may jackknife or swing. Drive the ${unit.kind} accordingly.`,
            }
          : {}),
      },
    ],
  };
}

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
          ? 'Low gear holds only with the engine off and the clutch up: start in neutral, keep somebody at the wheel.'
          : 'Chock both ways before the parking brakes come off.',
        STAY_CLEAR,
      ],
      act: {
        kind: 'ready',
        checks: [
          byGear
            ? 'Level ground; low gear holds it while the engine is off and the springs are off'
            : 'Level ground, wheels chocked both ways',
          CLEAR,
          'Gear in neutral, parking brakes set, engine off, key on',
        ],
        gauges:
          rig.unit.circuits === 'dual' ? ['primary', 'secondary', 'master'] : ['primary', 'master'],
        pad: 'All done, ready',
        items: [abs(rig)],
      },
      maySkip: false,
    });
  },
};
