import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes, type RigUnderTest } from '../../rig/rigUnderTest';
import type { School } from '@keen-bleed/contract';
import { modulatedApplications } from '../../rig/modulatedApplications';
import type { LookItem, LookOption, StepMaker } from '../procedure';
import { needleAt, step, yesNo } from './stepParts';

type Circuit = 'primary' | 'secondary';

const isDual = ({ unit }: RigUnderTest) => hasCompressor(unit.kind) && unit.circuits === 'dual';

/** What every one of these tests leaves behind. */
const restored = (what: string): LookItem =>
  yesNo(
    'restored',
    what,
    'done',
    'not yet',
    'What is left open or teed in is a temporary measure: undo it before the vehicle moves.',
    true,
  );

/** With either tank lost the springs can still be let off once [std: 571.121 S5.7.1, value from memory]. */
const releasedOnce = ({ unit }: RigUnderTest): LookItem[] =>
  hasSpringBrakes(unit)
    ? [
        yesNo(
          'release-once',
          'Parking brakes still come off once',
          'come off',
          'stay on',
          'The park control is not fed from the tank that is left: its double check valve.',
        ),
      ]
    : [];

/** What tells the driver, and those behind, of a lost circuit. */
const lampsAndWarning = (circuit: Circuit): LookItem[] => [
  yesNo(
    'warning',
    `Low-air warning comes on with the [${circuit} tank]`,
    'comes on',
    'stays off',
    'The switch of that tank or its wiring.',
    true,
  ),
  yesNo(
    'lamps',
    'Stop lamps light with the pedal',
    'light',
    'dark',
    'The stop-lamp switch of the circuit that is left, or the two-way check before it.',
    true,
  ),
];

/**
 * What the needles do while one tank is emptied. Behind one-way checks the supply tank falls with it and the other
 * tank stays; behind a four-circuit protection valve the other circuit drops to the valve's closing pressure.
 */
function whatHolds(school: School, lost: Circuit, left: Circuit): LookItem[] {
  const supply = yesNo(
    'supply',
    'Supply falls with it',
    'falls',
    'stays',
    `The check valve between the [supply tank] and the [${lost} tank] is stuck closed, or the line is blocked.`,
  );
  if (school === 'words') {
    return [
      supply,
      yesNo(
        left,
        `[${left}] stays`,
        'stays',
        'falls',
        `The check valve of the [${left} tank], or a double check valve, lets air back.`,
        true,
      ),
    ];
  }
  return [
    supply,
    yesNo(
      left,
      `[${left}] falls to the protection valve’s closing pressure and stays there`,
      'stays there',
      'falls on',
      'The four-circuit protection valve does not close.',
      true,
    ),
  ];
}

const MODULATED = ['5', '4', '3', '2', '1', '0'];
/** Fewest modulated rear applications that count as right [trade: four or five in all]. */
const ENOUGH = 4;

/** Whether a rig's springs are let on by the pedal once primary is gone; unknown counts as yes. */
const modulates = ({ unit }: RigUnderTest): boolean =>
  hasSpringBrakes(unit) && unit.air?.modulatingValve !== false;

/** The rear brakes by the springs, counted; what this rig should give stands in the question. */
function modulatedItem({ unit }: RigUnderTest): LookItem {
  const expected = modulatedApplications(unit);
  const enough = Math.min(ENOUGH, expected ?? ENOUGH);
  const options = MODULATED.map((value): LookOption => {
    const title = value === '5' ? '5 or more' : value;
    if (Number(value) >= enough) return { value, title, standing: 'good' };
    return value === '0'
      ? {
          value,
          title,
          standing: 'bad',
          means:
            'The modulating valve or its control line: front delivery pressure at its control port.',
        }
      : {
          value,
          title,
          standing: 'bad',
          means: 'Hold-off air is lost too fast: the modulating valve or a spring-side leak.',
        };
  });
  return {
    key: 'modulated',
    ask: `Rear applications by the springs${expected === null ? '' : `, about ${expected} on this rig`}`,
    options: [
      ...options,
      ...(unit.air?.modulatingValve === true
        ? []
        : [{ value: 'not-fitted', title: 'no such valve', standing: 'noted' } as const]),
    ],
  };
}

/** Primary lost: what is left, and how often the pedal still modulates the rear. */
export const failPrimary: StepMaker = {
  id: 'fail-primary',
  title: 'Primary lost',
  make: ({ rig, ruleSet }) =>
    isDual(rig)
      ? step({
          id: 'fail-primary',
          title: 'Primary lost',
          say: [
            'Full tanks, engine off, key on. Open the drain of the [primary tank]; do not touch the pedal, and watch.',
            modulates(rig)
              ? 'Only then release the parking brakes and press the pedal again and again, counting rear applications.'
              : 'Only then press the pedal.',
            'At the end close the drain.',
          ],
          cautions: [
            'Chock both ways first: the rear brakes come and go.',
            'Nobody near the pushrods. Eye protection at the drain.',
          ],
          act: {
            kind: 'look',
            items: [
              ...whatHolds(ruleSet.school, 'primary', 'secondary'),
              ...lampsAndWarning('primary'),
              yesNo(
                'front',
                'Front brakes work',
                'work',
                'no',
                'Foot valve’s second circuit or the front quick-release.',
                true,
              ),
              ...(modulates(rig) ? [modulatedItem(rig)] : []),
              ...releasedOnce(rig),
              restored('Drain closed'),
            ],
          },
        })
      : null,
};

/** Secondary lost: rear and parking must not notice. */
export const failSecondary: StepMaker = {
  id: 'fail-secondary',
  title: 'Secondary lost',
  make: ({ rig, ruleSet }) =>
    isDual(rig)
      ? step({
          id: 'fail-secondary',
          title: 'Secondary lost',
          say: [
            'Build up again, engine off, key on.',
            'Open the drain of the [secondary tank]; watch, then press the pedal. At the end close the drain.',
          ],
          cautions: [
            'Chock both ways first: the parking brakes come off and on, and the pedal is worked.',
            'Nobody near the pushrods. Eye protection at the drain.',
          ],
          act: {
            kind: 'look',
            items: [
              ...whatHolds(ruleSet.school, 'secondary', 'primary').slice(1),
              ...lampsAndWarning('secondary'),
              yesNo(
                'rear',
                'Rear brakes work',
                'work',
                'no',
                'Foot valve’s first circuit or the rear relay.',
                true,
              ),
              yesNo(
                'park',
                'Parking brakes stay off',
                'stay off',
                'come on',
                'The park control is fed from the wrong side of its double check valve.',
              ),
              ...releasedOnce(rig),
              restored('Drain closed'),
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
    hasCompressor(rig.unit.kind) &&
    hasSpringBrakes(rig.unit) &&
    rig.unit.air?.antiCompounding !== false
      ? step({
          id: 'anti-compounding',
          title: 'Anti-compounding',
          say: [
            'Parking brakes set, so that the spring line is empty: tee a gauge into it. Then fill the tanks.',
            'Full pedal: does the spring side follow?',
            'At the end park, take the gauge out, make the line up again and wet the joint.',
          ],
          cautions: [
            'Never open a spring chamber, nor a line that has air in it.',
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
              restored('Gauge out, line made up and wetted'),
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
                true,
              ),
            ],
          },
        })
      : null,
};

/** The supply tank alone emptied: the service tanks must not notice. */
export const failSupply: StepMaker = {
  id: 'fail-supply',
  title: 'Supply alone lost',
  make: ({ rig }) =>
    isDual(rig)
      ? step({
          id: 'fail-supply',
          title: 'Supply alone lost',
          say: ['Full tanks, engine off. Open the drain of the [supply tank], and close it again.'],
          cautions: ['Eye protection at the drain.'],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'primary',
                '[primary] holds',
                'holds',
                'falls',
                'The check valve of the [primary tank] lets air back.',
              ),
              yesNo(
                'secondary',
                '[secondary] holds',
                'holds',
                'falls',
                'The check valve of the [secondary tank] lets air back.',
              ),
              restored('Drain closed'),
            ],
          },
        })
      : null,
};

/** The safety valve of the supply tank, which opens at some 150 psi [trade]. */
export const safetyValve: StepMaker = {
  id: 'safety-valve',
  title: 'Safety valve',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'safety-valve',
          title: 'Safety valve',
          say: ['With some air in the supply tank pull the ring of its safety valve, and let go.'],
          cautions: ['Eye and ear protection; stand to one side of it.'],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'blows-shuts',
                'It blows, and closes tight',
                'does',
                'does not',
                'A safety valve that sticks or leaks is changed, not mended.',
              ),
            ],
          },
        })
      : null,
};
