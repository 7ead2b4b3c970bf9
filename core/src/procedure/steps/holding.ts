import type { RuleSet } from '@keen-bleed/contract';
import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes } from '../../rig/rigUnderTest';
import type { LookItem, StepMaker } from '../procedure';
import { never, step } from './stepParts';
import { trailerCautions, trailerItems } from './trailer';

const holds = (key: string, ask: string, means: string): LookItem => ({
  key,
  ask,
  options: [
    { value: 'holds', title: 'holds', standing: 'good' },
    { value: 'creeps', title: 'creeps', standing: 'bad', means },
    { value: 'not-held', title: 'does not hold', standing: 'bad', means },
  ],
});

/** Whether a rule set has the service stop as a step of its own; shops' older copies have not. */
export const asksStopApart = ({ steps }: Pick<RuleSet, 'steps'>): boolean =>
  steps.some(({ stepId }) => stepId === 'service-stop');

const UNLIKE = 'adjustment, lining or a restricted line there; or a tyre, or the suspension.';

/** The stop as rule sets of before had it: without speed and distance it proves little. */
const oldStop: LookItem = {
  key: 'stop',
  ask: 'Old stop test: service brakes at walking pace',
  options: [
    { value: 'straight', title: 'straight stop', standing: 'good' },
    {
      value: 'pull-left',
      title: 'pulls left',
      standing: 'bad',
      means: `The right side brakes less: ${UNLIKE}`,
    },
    {
      value: 'pull-right',
      title: 'pulls right',
      standing: 'bad',
      means: `The left side brakes less: ${UNLIKE}`,
    },
    {
      value: 'late',
      title: 'late',
      standing: 'bad',
      means: 'Unlike crack pressures, a restricted control line, or too long a stroke.',
    },
    {
      value: 'no-stop',
      title: 'no stop',
      standing: 'bad',
      means: 'Out of service: do not move it.',
    },
  ],
};

/** Parking brakes against the engine; in shops' older copies the service brakes with them. */
export const holding: StepMaker = {
  id: 'holding',
  title: 'Tug',
  make: (context) => {
    const { rig, ruleSet } = context;
    if (!hasCompressor(rig.unit.kind)) return null;
    const tows = rig.towed.length > 0;
    const items: LookItem[] = [
      holds(
        'park',
        'Parking brakes hold against low gear',
        hasSpringBrakes(rig.unit)
          ? 'Stroke, linings or springs: measure the pushrods.'
          : 'The parking brake’s linkage or linings.',
      ),
      ...(tows
        ? [
            holds(
              'tractor-alone',
              `The ${rig.unit.kind} alone holds`,
              'The springs in front: stroke and linings there.',
            ),
            holds(
              'trailer-alone',
              'The trailer alone holds',
              'The trailer’s brakes: stroke, linings, or no air to them.',
            ),
          ]
        : []),
      ...trailerItems(context),
      ...(asksStopApart(ruleSet) ? [] : [oldStop]),
    ];
    return step({
      id: 'holding',
      title: asksStopApart(ruleSet) ? 'Tug' : 'Tug, and old stop test',
      say: asksStopApart(ruleSet)
        ? ['Chocks away. Tug gently in low gear, brakes on.']
        : ['Chocks away. Tug gently in low gear, then roll at walking pace and brake.'],
      cautions: [
        'Moving tests only in a clear yard.',
        ...(tows
          ? ['The hand valve is for the test: never park on it, and let it up gently.']
          : []),
        ...trailerCautions(context),
      ],
      act: { kind: 'look', items },
    });
  },
};

/** The hand brake valve's sprung test position: trailer released, the springs in front must hold all. */
export const handBrakeTest: StepMaker = {
  id: 'hand-brake-test',
  title: 'Hand brake, test position',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind) && rig.towed.length > 0
      ? step({
          id: 'hand-brake-test',
          title: 'Hand brake, test position',
          say: [
            'Push the hand brake valve past park, into its sprung test position, and keep it there.',
          ],
          cautions: ['The trailer’s brakes are off in it: keep the yard clear below.'],
          act: {
            kind: 'look',
            items: [
              holds(
                'test',
                'The truck alone holds the rig',
                'The springs in front do not hold the whole rig: stroke, linings, or the load.',
              ),
              {
                key: 'springs-back',
                ask: 'Lever springs back to park',
                options: [
                  { value: 'back', title: 'springs back', standing: 'good' },
                  {
                    value: 'stays',
                    title: 'stays',
                    standing: 'bad',
                    means: 'The hand brake valve’s spring: change the valve.',
                  },
                ],
              },
            ],
          },
        })
      : null,
};

/** Where the stop lamps come on. */
export const stopLamp: StepMaker = {
  id: 'stop-lamp',
  title: 'Stop lamps',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'stop-lamp',
          title: 'Stop lamps',
          say: [
            'Press the pedal as gently as you can, watching the application gauge.',
            'Mark where the lamps come on.',
          ],
          act: {
            kind: 'marks',
            marks: [
              {
                key: 'on',
                pad: 'Lamps at {reading}',
                hint: 'set it to the application gauge, then tap',
                at: 'needle',
                proposal: { from: 'level', psi: 5 },
              },
            ],
            never: never('Stop lamps', [
              'dark',
              'stayed dark',
              'Those behind do not see the brakes: the switch, its wire, the bulbs.',
            ]),
          },
          reckon: [{ kind: 'level', key: 'on', figure: 'stop-lamp', by: 'application' }],
          windowFigures: ['stop-lamp'],
        })
      : null,
};
