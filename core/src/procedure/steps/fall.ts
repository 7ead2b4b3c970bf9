import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes } from '../../rig/rigUnderTest';
import type { LookItem, MarkSpec, StepMaker } from '../procedure';
import { bothGauges } from './holds';
import { needleAt, never, step, yesNo } from './stepParts';

/** The low-air warning, on the way down. */
export const warning: StepMaker = {
  id: 'warning',
  title: 'Low-air warning',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'warning',
          title: 'Low-air warning',
          say: [
            'Engine off, key on. Fan the pedal down, with small strokes from {80} on.',
            'Mark where light or buzzer comes on; read the lower of the two needles.',
          ],
          act: {
            kind: 'marks',
            marks: [needleAt('on', 'Warning at {reading}', { from: 'level', psi: 60 })],
            never: never('Low-air warning', [
              'silent',
              'never came on',
              'Nothing warns the driver: the switch, its wire, the bulb and the buzzer. Master gauge first.',
            ]),
          },
          reckon: [{ kind: 'level', key: 'on', figure: 'warning' }],
          windowFigures: ['warning'],
        })
      : null,
};

/** Where the dash controls pop out by themselves; the fanning of the warning goes on. */
export const popOut: StepMaker = {
  id: 'pop-out',
  title: 'Pop-out',
  make: ({ rig, ruleSet }) => {
    if (!hasCompressor(rig.unit.kind)) return null;
    const marks: MarkSpec[] = [];
    if (rig.unit.kind === 'tractor' || rig.towed.length > 0) {
      marks.push(needleAt('trailer', 'Red out at {reading}', { from: 'level', psi: 40 }));
    }
    if (hasSpringBrakes(rig.unit)) {
      marks.push(
        needleAt('park', 'Yellow out at {reading}', {
          from: 'mark',
          stepId: 'pop-out',
          key: 'trailer',
          otherwise: { from: 'level', psi: 40 },
        }),
      );
    }
    if (marks.length === 0) return null;
    const reckoned = [...marks];
    if (bothGauges({ rig, ruleSet })) {
      marks.push(needleAt('other', 'Other needle at {reading}', { from: 'last' }));
    }
    return step({
      id: 'pop-out',
      title: 'Pop-out',
      say: [
        'Go on fanning, with small strokes from {50} on.',
        reckoned.length > 1
          ? 'Mark each knob as it pops; read the higher of the two needles, which the knobs follow.'
          : 'Mark where the knob pops; read the higher of the two needles, which it follows.',
      ],
      cautions: ['The springs come on: nobody near the pushrods.'],
      act: { kind: 'marks', marks, never: stayedIn(reckoned.map(({ key }) => key)) },
      reckon: reckoned.map(({ key }) => ({
        kind: 'level',
        key,
        figure: key === 'park' ? 'pop-out-park' : 'pop-out-trailer',
      })),
      windowFigures: reckoned.map(({ key }) =>
        key === 'park' ? 'pop-out-park' : 'pop-out-trailer',
      ),
    });
  },
};

const STAYS = 'It does not trip at its set point: springs would be held off by air that runs out.';

/** A knob that does not pop; which of two is said. */
function stayedIn(keys: readonly string[]): LookItem {
  const park = ['park', '[park knob] stayed in', STAYS] as const;
  const trailer = [
    'trailer',
    '[trailer knob] stayed in',
    'The trailer would lose its brakes’ air unseen: the trailer supply control sticks.',
  ] as const;
  const both = ['both', 'both stayed in', STAYS] as const;
  return never(
    'Pop-out',
    ...[park, trailer].filter(([value]) => keys.includes(value)),
    ...(keys.length > 1 ? [both] : []),
  );
}

/** Up again; the warning must go off. */
export const rebuild: StepMaker = {
  id: 'rebuild',
  title: 'Rebuild',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'rebuild',
          title: 'Rebuild',
          say: [
            'Start the engine. Mark where the warning goes off.',
            'Then let it climb to cut-out.',
          ],
          cautions: ['The discharge line is hot.'],
          act: {
            kind: 'marks',
            marks: [
              needleAt('off', 'Warning off at {reading}', {
                from: 'mark',
                stepId: 'warning',
                key: 'on',
                addPsi: 15,
                otherwise: { from: 'level', psi: 75 },
              }),
            ],
            never: {
              key: 'never',
              ask: 'Low-air warning',
              options: [
                {
                  value: 'stays-on',
                  title: 'never went off',
                  standing: 'bad',
                  means: 'The low-pressure switch sticks: nobody would believe the next warning.',
                },
              ],
            },
          },
          reckon: [{ kind: 'level', key: 'off', figure: 'warning-reset' }],
          windowFigures: ['warning-reset'],
        })
      : null,
};

/** Light and buzzer apart: either alone leaves a driver who cannot see it, or cannot hear it, unwarned. */
export const warningParts: StepMaker = {
  id: 'warning-parts',
  title: 'Light and buzzer',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'warning-parts',
          title: 'Light and buzzer',
          say: ['While the warning is on, look at the light and listen to the buzzer.'],
          act: {
            kind: 'look',
            items: [
              yesNo('light', 'Low-air light', 'lit', 'dark', 'The bulb or its wiring.'),
              {
                key: 'buzzer',
                ask: 'Low-air buzzer',
                options: [
                  { value: 'yes', title: 'sounds', standing: 'good' },
                  {
                    value: 'no',
                    title: 'silent',
                    standing: 'bad',
                    means: 'The buzzer or its wiring.',
                  },
                  { value: 'not-fitted', title: 'none fitted', standing: 'noted' },
                ],
              },
            ],
          },
        })
      : null,
};

/** The park control must not stay in below its set point: springs would be held off by air that is running out. */
export const parkStays: StepMaker = {
  id: 'park-stays',
  title: 'Park control with low air',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind) && hasSpringBrakes(rig.unit)
      ? step({
          id: 'park-stays',
          title: 'Park control with low air',
          say: ['Before the engine is started: try to release the parking brakes.'],
          cautions: ['Chocks in place: the springs may come off.'],
          act: {
            kind: 'look',
            items: [
              yesNo(
                'stays-out',
                'The parking brakes cannot be released and kept off',
                'they stay on',
                'they come off',
                'The park control does not trip at its set point: change it.',
              ),
            ],
          },
        })
      : null,
};
