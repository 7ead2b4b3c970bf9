import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes, type RigUnderTest } from '../../rig/rigUnderTest';
import type { LookItem, StepMaker } from '../procedure';
import { needleAt, step } from './stepParts';

const isDual = ({ unit }: RigUnderTest) => hasCompressor(unit.kind) && unit.circuits === 'dual';

const yesNo = (key: string, ask: string, good: string, bad: string, means: string): LookItem => ({
  key,
  ask,
  options: [
    { value: 'yes', title: good, standing: 'good' },
    { value: 'no', title: bad, standing: 'bad', means },
  ],
});

/** Fewest modulated rear applications that count as right [trade: four or five in all]. */
const MODULATED = ['5', '4', '3', '2', '1', '0'];

/** Primary lost: what is left, and how often the pedal still modulates the rear. */
export const failPrimary: StepMaker = {
  id: 'fail-primary',
  title: 'Primary lost',
  make: ({ rig }) =>
    isDual(rig)
      ? step({
          id: 'fail-primary',
          title: 'Primary lost',
          say: [
            'Full tanks, engine off. Open the drain of the [primary] tank.',
            'Then press the pedal again and again, and count.',
          ],
          cautions: [
            'Chocks in place: the rear brakes come and go.',
            'Eye protection at the drain.',
          ],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'supply',
                'Supply falls with it',
                'falls',
                'stays',
                'The primary check valve is missing or the gauge is not on the [primary] circuit.',
              ),
              yesNo(
                'secondary',
                '[secondary] stays',
                'stays',
                'falls',
                'The check valve of the [secondary] tank, or a double check valve, lets air back.',
              ),
              yesNo(
                'front',
                'Front brakes work',
                'work',
                'no',
                'Foot valve’s second circuit or the front quick-release.',
              ),
              ...(hasSpringBrakes(rig.unit)
                ? [
                    {
                      key: 'modulated',
                      ask: 'Rear applications by the springs',
                      options: MODULATED.map((value) =>
                        Number(value) >= 4
                          ? {
                              value,
                              title: value === '5' ? '5 or more' : value,
                              standing: 'good' as const,
                            }
                          : {
                              value,
                              title: value,
                              standing: 'bad' as const,
                              means:
                                value === '0'
                                  ? 'The modulating valve or its control line: front delivery pressure at its control port.'
                                  : 'Hold-off air is lost too fast: the modulating valve or a spring-side leak.',
                            },
                      ),
                    },
                  ]
                : []),
            ],
          },
        })
      : null,
};

/** Secondary lost: rear and parking must not notice. */
export const failSecondary: StepMaker = {
  id: 'fail-secondary',
  title: 'Secondary lost',
  make: ({ rig }) =>
    isDual(rig)
      ? step({
          id: 'fail-secondary',
          title: 'Secondary lost',
          say: [
            'Close the drain, build up again, engine off.',
            'Open the drain of the [secondary] tank and press the pedal.',
          ],
          cautions: ['Eye protection at the drain.'],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'primary',
                '[primary] stays',
                'stays',
                'falls',
                'The check valve of the [primary] tank lets air back.',
              ),
              yesNo(
                'rear',
                'Rear brakes work',
                'work',
                'no',
                'Foot valve’s first circuit or the rear relay.',
              ),
              yesNo(
                'park',
                'Parking brakes stay off',
                'stay off',
                'come on',
                'The park control is fed from the wrong side of its double check valve.',
              ),
            ],
          },
        })
      : null,
};

/** Parked springs and full pedal: the two forces must not add. */
export const antiCompounding: StepMaker = {
  id: 'anti-compounding',
  title: 'Anti-compounding',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind) && hasSpringBrakes(rig.unit)
      ? step({
          id: 'anti-compounding',
          title: 'Anti-compounding',
          say: [
            'Tanks full, parking brakes set. Tee a gauge into a spring line.',
            'Full pedal: does the spring side follow?',
          ],
          cautions: [
            'Never open a spring chamber.',
            'Without it, pedal and springs add and can break a wheel end.',
          ],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'follows',
                'Spring-side pressure follows the pedal',
                'follows',
                'does not',
                'The park relay’s anti-compounding line is missing, blocked, or the relay is the plain kind.',
              ),
              yesNo(
                'returns',
                'And falls back when the pedal is let go',
                'falls back',
                'stays',
                'The park relay’s exhaust is blocked: the springs come on late.',
              ),
            ],
          },
        })
      : null,
};

/** Eight full strokes on the air that is there [std: UN R13 annex 7, value from memory]. */
export const reserve: StepMaker = {
  id: 'reserve',
  title: 'Eight full strokes',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'reserve',
          title: 'Eight full strokes',
          say: [
            'Tanks full, engine off, supply shut.',
            'Eight full strokes of the pedal, letting it up each time.',
          ],
          act: {
            kind: 'marks',
            marks: [
              needleAt('after-eight', 'Left after eight: {reading}', { from: 'level', psi: 70 }),
            ],
          },
          reckon: [{ kind: 'level', key: 'after-eight', figure: 'reserve-left' }],
        })
      : null,
};

/** The stroke after the eight. */
export const ninthStroke: StepMaker = {
  id: 'ninth-stroke',
  title: 'Ninth stroke',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'ninth-stroke',
          title: 'Ninth stroke',
          say: ['One more full stroke.'],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'ninth',
                'It still gives secondary braking',
                'brakes',
                'too weak',
                'Tanks too small for the chambers, water in them, or strokes too long.',
              ),
            ],
          },
        })
      : null,
};
