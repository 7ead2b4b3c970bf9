import { hasCompressor } from '../../rig/hasCompressor';
import { hasSpringBrakes } from '../../rig/rigUnderTest';
import type { MarkSpec, StepMaker } from '../procedure';
import { needleAt, step } from './stepParts';

/** The low-air warning, on the way down. */
export const warning: StepMaker = {
  id: 'warning',
  title: 'Low-air warning',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'warning',
          title: 'Low-air warning',
          say: ['Engine off, key on. Fan the pedal down.', 'Mark where light or buzzer comes on.'],
          act: {
            kind: 'marks',
            marks: [needleAt('on', 'Warning at {reading}', { from: 'level', psi: 60 })],
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
  make: ({ rig }) => {
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
    return step({
      id: 'pop-out',
      title: 'Pop-out',
      say: [
        'Go on fanning.',
        marks.length > 1 ? 'Mark each knob as it pops.' : 'Mark where the knob pops.',
      ],
      cautions: ['The springs come on: nobody near the pushrods.'],
      act: { kind: 'marks', marks },
      reckon: marks.map(({ key }) => ({
        kind: 'level',
        key,
        figure: key === 'park' ? 'pop-out-park' : 'pop-out-trailer',
      })),
      windowFigures: marks.map(({ key }) => (key === 'park' ? 'pop-out-park' : 'pop-out-trailer')),
    });
  },
};

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
          },
          reckon: [{ kind: 'level', key: 'off', figure: 'warning-reset' }],
          windowFigures: ['warning-reset'],
        })
      : null,
};
