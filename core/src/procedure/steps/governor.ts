import { hasCompressor } from '../../rig/hasCompressor';
import type { StepMaker } from '../procedure';
import { governorCutOut, needleAt, passing, step } from './stepParts';

/** 85 to 100 psi within 45 s: the dual-circuit build-up [std: model CDL manual 5.3, value from memory]. */
const dualLevels = { fromPsi: 85, toPsi: 100, fanTo: '{75}', engine: '1,100 to 1,500 rpm' };
/** 50 to 90 psi within 3 min: the single-circuit one, before 1975 [std: same, value from memory]. */
const singleLevels = { fromPsi: 50, toPsi: 90, fanTo: '{45}', engine: '600 to 900 rpm' };

const HOT = 'The discharge line is hot.';

/** Build-up between two levels, by the circuits. */
export const buildUp: StepMaker = {
  id: 'build-up',
  title: 'Build up',
  make: ({ rig }) => {
    if (!hasCompressor(rig.unit.kind)) return null;
    const { fromPsi, toPsi, fanTo, engine } =
      rig.unit.circuits === 'dual' ? dualLevels : singleLevels;
    return step({
      id: 'build-up',
      title: 'Build up',
      say: [
        `Start the engine in neutral, let it charge, and fan the pedal down below ${fanTo}.`,
        `Then hold it at ${engine} and let it climb.`,
      ],
      cautions: [HOT],
      act: {
        kind: 'marks',
        marks: [
          passing('from', { from: 'level', psi: fromPsi }),
          passing('to', { from: 'level', psi: toPsi }),
        ],
      },
      reckon: [{ kind: 'build-up', fromKey: 'from', toKey: 'to', spanPsi: toPsi - fromPsi }],
    });
  },
};

/** Rated pressure's share that must stand first [std: UN R13 annex 7, value from memory]. */
const PART = 0.65;

/** Build-up from empty to 65 and 100 % of rated pressure, as the numbered-port school times it. */
export const buildUpRated: StepMaker = {
  id: 'build-up-rated',
  title: 'Build up from empty',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'build-up-rated',
          title: 'Build up from empty',
          say: [
            'Empty the tanks, then start the engine and hold it at the speed of its greatest power.',
            'The clock starts with the engine. Mark 65 % of rated pressure, then all of it.',
          ],
          cautions: [
            HOT,
            'Spring brakes are on until the pressure is there; do not count on them to come off evenly.',
          ],
          act: {
            kind: 'marks',
            marks: [
              passing('empty', { from: 'level', psi: 0 }, 'Engine started, at {reading}'),
              passing('part', {
                from: 'governor',
                field: 'cutOutPsi',
                share: PART,
                otherwisePsi: 78,
              }),
              passing('full', { from: 'governor', field: 'cutOutPsi', otherwisePsi: 120 }),
            ],
          },
          reckon: [
            { kind: 'interval', fromKey: 'empty', toKey: 'part', figure: 'build-up-part' },
            { kind: 'interval', fromKey: 'empty', toKey: 'full', figure: 'build-up-full' },
          ],
        })
      : null,
};

/** Governor cut-out. */
export const cutOut: StepMaker = {
  id: 'cut-out',
  title: 'Cut-out',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'cut-out',
          title: 'Cut-out',
          say: [
            'Let it climb until the needle stops.',
            'Go by the needle: the dryer blast may be from the truck beside you.',
          ],
          cautions: ['Eye protection near the dryer: it purges at cut-out.'],
          act: {
            kind: 'marks',
            marks: [
              needleAt(
                'cut-out',
                'Stopped at {reading}',
                governorCutOut,
                undefined,
                'stops-rising',
              ),
            ],
          },
          reckon: [{ kind: 'level', key: 'cut-out', figure: 'cut-out' }],
          windowFigures: ['cut-out'],
        })
      : null,
};

/** Governor cut-in, and with it the differential. */
export const cutIn: StepMaker = {
  id: 'cut-in',
  title: 'Cut-in',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'cut-in',
          title: 'Cut-in',
          say: [
            'Engine at idle. Fan slowly, with small strokes near the cut-in.',
            'Mark where the needle starts to climb again.',
          ],
          act: {
            kind: 'marks',
            marks: [
              needleAt(
                'cut-in',
                'Climbs from {reading}',
                { from: 'governor', field: 'cutInPsi', otherwisePsi: 100 },
                undefined,
                'starts-rising',
              ),
            ],
          },
          reckon: [
            { kind: 'level', key: 'cut-in', figure: 'cut-in' },
            {
              kind: 'difference',
              key: 'cut-in',
              otherStepId: 'cut-out',
              otherKey: 'cut-out',
              figure: 'governor-differential',
            },
          ],
          windowFigures: ['cut-in'],
        })
      : null,
};

const atCutIn = {
  from: 'mark',
  stepId: 'cut-in',
  key: 'cut-in',
  otherwise: { from: 'level', psi: 100 },
} as const;

/** Time from one cut-in to the next with the brakes untouched: it tells of leaks the dash does not show. */
export const cycle: StepMaker = {
  id: 'cycle',
  title: 'Governor cycle',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'cycle',
          title: 'Governor cycle',
          say: [
            'Engine at idle. Do not touch the brakes.',
            'Mark two starts of the climb, one after the other. Minutes apart is sound.',
          ],
          act: {
            kind: 'marks',
            marks: [
              passing('loads', atCutIn, 'Climbs, from {reading}'),
              passing('loads-again', atCutIn, 'Climbs again, from {reading}'),
            ],
          },
          reckon: [
            { kind: 'interval', fromKey: 'loads', toKey: 'loads-again', figure: 'governor-cycle' },
          ],
        })
      : null,
};
