import type { School, Unit } from '@keen-bleed/contract';
import { hasCompressor } from '../../rig/hasCompressor';
import type { RigUnderTest } from '../../rig/rigUnderTest';
import type { LookItem, LookOption, StepMaker } from '../procedure';
import { lacks } from './byAge';
import { step } from './stepParts';

const CLEAR = 'Nobody near the pushrods';
const STAY_CLEAR = 'Stay clear of pushrods and adjusters while air is on.';

/** What an antilock lamp can do, and what it comes to that there is none. */
const lamp = (key: string, ask: string, none: LookOption): LookItem => ({
  key,
  ask,
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
    none,
  ],
});

/** The antilock lamps, as they come with the key; whether there may be none follows from each unit's date. */
function antilockLamps({ unit, towed }: RigUnderTest, school: School): LookItem[] {
  // The dates are those of one law; the other school's are not at hand.
  const none = (of: Unit, value: string, title: string): LookOption =>
    school === 'words' ? lacks(of, 'antilock', value, title) : { value, title, standing: 'noted' };
  const first = lamp(
    'abs-lamp',
    towed.length > 0 ? 'Antilock lamp in front' : 'Antilock lamp',
    none(unit, 'some', 'not fitted'),
  );
  const behind = towed.map((each, at) =>
    lamp(
      towed.length > 1 ? `abs-lamp-${at + 1}` : 'abs-lamp-towed',
      `Antilock lamp of ${each.name || each.kind} ${each.number}`,
      none(each, 'not-fitted', 'not fitted'),
    ),
  );
  return [first, ...behind];
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
        items: antilockLamps(rig, ruleSet.school),
      },
      maySkip: false,
    });
  },
};
