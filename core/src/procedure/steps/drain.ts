import type { StepMaker } from '../procedure';
import { step } from './stepParts';

const DRYER = 'desiccant spent, no purge, or a compressor that works too long because of leaks';

/** Drains every tank and looks at what comes; only in a run in which it is due. */
export const drain: StepMaker = {
  id: 'drain',
  title: 'Drain and look',
  make: () =>
    step({
      id: 'drain',
      title: 'Drain and look',
      say: [
        'Before the engine is started, open every tank at its lowest point, one after the other.',
        'Look at each puddle; then close them all.',
      ],
      cautions: ['Eye protection at the drains.'],
      act: {
        kind: 'look',
        items: [
          {
            key: 'water',
            ask: 'Water in the tanks',
            options: [
              { value: 'dry', title: 'nothing', standing: 'good' },
              { value: 'drops', title: 'a few drops', standing: 'noted' },
              { value: 'water', title: 'clear water', standing: 'bad', means: `Water: ${DRYER}.` },
              {
                value: 'milky',
                title: 'milky',
                standing: 'bad',
                means: `Oil and water: ${DRYER}.`,
              },
              {
                value: 'oil',
                title: 'oil',
                standing: 'bad',
                means: 'A compressor that passes oil, or one that works too long.',
              },
              {
                value: 'rust',
                title: 'rust or sludge',
                standing: 'bad',
                means: 'Water has stood in the tank for long: look inside it.',
              },
              {
                value: 'ice',
                title: 'ice',
                standing: 'bad',
                means:
                  'Water in the lines will freeze valves. Thaw in the shop, never with a flame.',
              },
            ],
          },
          {
            key: 'drains',
            ask: 'Drain valves',
            options: [
              { value: 'close', title: 'open and close', standing: 'good' },
              {
                value: 'leak',
                title: 'one leaks',
                standing: 'bad',
                means: 'A seat that dirt holds open: clean or change the drain valve.',
              },
              {
                value: 'stuck',
                title: 'one is stuck',
                standing: 'bad',
                means: 'Frozen or corroded: that tank cannot be drained.',
              },
            ],
          },
        ],
      },
    }),
};
