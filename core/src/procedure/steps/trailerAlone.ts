import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes, unitsOf, type RigUnderTest } from '../../rig/rigUnderTest';
import type { StepMaker } from '../procedure';
import { lacks } from './byAge';
import { lineCrossed, needleAt, step, yesNo } from './stepParts';

/** A trailer alone on the shop's air: what its own valves do. */
export const trailerAlone: StepMaker = {
  id: 'trailer-alone',
  title: 'Trailer alone',
  make: ({ rig, ruleSet }) =>
    hasCompressor(rig.unit.kind)
      ? null
      : step({
          id: 'trailer-alone',
          title: 'Trailer alone',
          say: [
            'Supply on: give air to the [service coupler] and let it off again.',
            'Then take the supply off.',
          ],
          cautions: [
            'Chock both ways. Stay clear of pushrods and adjusters while air is on.',
            'Eye protection at couplers.',
          ],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'couplers',
                'Couplers, seals and their hangers',
                'sound',
                'not',
                'Perished seals are the usual trailer leak: change them.',
              ),
              yesNo(
                'applies',
                'Brakes come on with service air, and off with it',
                'do',
                'do not',
                'The trailer’s relay, its control line, or a chamber.',
              ),
              yesNo(
                'emergency',
                'Supply off: brakes on at once',
                'on',
                'off or slow',
                'The relay-emergency valve, or no air in its tank.',
              ),
              {
                key: 'antilock',
                ask: 'Antilock lamp with power on',
                options: [
                  { value: 'on-off', title: 'on, then off', standing: 'good' },
                  {
                    value: 'stays-on',
                    title: 'stays on',
                    standing: 'bad',
                    means: 'A fault is stored.',
                  },
                  ruleSet.school === 'words'
                    ? lacks(rig.unit, 'antilock', 'not-fitted', 'not fitted')
                    : { value: 'not-fitted', title: 'not fitted', standing: 'noted' },
                ],
              },
            ],
          },
        }),
};

/** A trailer whose brakes hold only as long as its tank does, alone or coupled. */
const hasOldTrailer = (rig: RigUnderTest): boolean =>
  unitsOf(rig).some((unit) => !hasCompressor(unit.kind) && !hasSpringBrakes(unit));

/** How long a trailer must hold on its own air [std: 49 CFR 393.43(d), value from memory], s. */
const BREAKAWAY_S = 15 * 60;

/** A trailer without springs, broken away: a quarter of an hour by the clock on its own tank. */
export const breakawayHold: StepMaker = {
  id: 'breakaway-hold',
  title: 'Breakaway, 15 minutes',
  make: ({ rig }) =>
    !hasOldTrailer(rig)
      ? null
      : step({
          id: 'breakaway-hold',
          title: 'Breakaway, 15 minutes',
          say: [
            hasCompressor(rig.unit.kind)
              ? 'Trailer supply off. Read a gauge teed into the tank of the trailer without springs.'
              : 'Supply off and the coupler open. Read a gauge teed into the trailer’s tank.',
            'It has no springs: its brakes must hold a quarter of an hour on this air.',
          ],
          cautions: ['It rolls when the air is gone: chock it both ways.'],
          act: {
            kind: 'hold',
            seconds: BREAKAWAY_S,
            extendSeconds: 60,
            start: needleAt('start', 'Tank at {reading}: start', { from: 'level', psi: 100 }),
            crossing: lineCrossed,
            reading: needleAt('reading', 'Reads {reading} now', { from: 'last' }),
            end: needleAt('end', 'Now at {reading}', { from: 'last' }),
            other: null,
          },
        }),
};

/** What is felt after the quarter of an hour. */
export const breakawayHeld: StepMaker = {
  id: 'breakaway-held',
  title: 'After 15 minutes',
  make: ({ rig }) =>
    !hasOldTrailer(rig)
      ? null
      : step({
          id: 'breakaway-held',
          title: 'After 15 minutes',
          act: {
            kind: 'look',
            items: [
              yesNo(
                'still-on',
                'Its brakes are still on',
                'on',
                'off',
                'Its tank or check valve leaks: it has no springs to hold it. Chock it.',
              ),
            ],
          },
        }),
};
