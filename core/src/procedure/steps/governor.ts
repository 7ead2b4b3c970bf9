import { hasCompressor } from '../../rig/hasCompressor';
import { limitFor } from '../../standards/limitFor';
import type { StepMaker } from '../procedure';
import { governorCutOut, needleAt, never, passing, step } from './stepParts';

/** 85 to 100 psi within 45 s: the dual-circuit build-up [std: model CDL manual 5.3, value from memory]. */
const dualLevels = { fromPsi: 85, toPsi: 100, fanTo: '{75}', engine: '1,100 to 1,500 rpm' };
/** 50 to 90 psi within 3 min: the single-circuit one, before 1975 [std: same, value from memory]. */
const singleLevels = { fromPsi: 50, toPsi: 90, fanTo: '{45}', engine: '600 to 900 rpm' };

/** The limit that is of the engine's governed speed alone. */
const GOVERNED_LIMIT = 'build-up-governed';

const HOT = 'The discharge line is hot.';

/** Build-up between two levels, by the circuits. */
export const buildUp: StepMaker = {
  id: 'build-up',
  title: 'Build up',
  make: ({ rig, ruleSet }) => {
    if (!hasCompressor(rig.unit.kind)) return null;
    const levels = rig.unit.circuits === 'dual' ? dualLevels : singleLevels;
    const { fromPsi, toPsi, fanTo } = levels;
    // 25 s is the standard's at governed speed, and no other's.
    const isGoverned = limitFor('build-up-time', rig, ruleSet)?.id === GOVERNED_LIMIT;
    const engine = isGoverned ? 'governed speed' : levels.engine;
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
            never: never('Cut-out', [
              'climbs',
              'climbs past the safety valve',
              'Stop the engine. The governor is stuck, its sense line blocked, or the unloader stuck.',
            ]),
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

const atCutOut = {
  from: 'mark',
  stepId: 'cut-out',
  key: 'cut-out',
  otherwise: governorCutOut,
} as const;

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

/** How long the dryer blows after cut-out: a purge that does not end empties what it should keep. */
export const purge: StepMaker = {
  id: 'purge',
  title: 'Purge',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'purge',
          title: 'Purge',
          say: ['At the next cut-out, mark where the dryer begins to blow, and where it ends.'],
          cautions: ['Keep clear of the dryer: it blows off without warning. Eye protection.'],
          act: {
            kind: 'marks',
            marks: [
              passing('blows', atCutOut, 'Blows, at {reading}'),
              passing('ends', atCutOut, 'Blast over, at {reading}'),
            ],
            never: {
              key: 'never',
              ask: 'Purge',
              options: [
                {
                  value: 'none',
                  title: 'did not blow',
                  standing: 'bad',
                  means: 'The purge valve or the governor’s signal to it: the desiccant stays wet.',
                },
                {
                  value: 'goes-on',
                  title: 'blew on and on',
                  standing: 'bad',
                  means: 'The dryer’s outlet check or its purge valve lets the supply tank out.',
                },
              ],
            },
          },
          reckon: [{ kind: 'interval', fromKey: 'blows', toKey: 'ends', figure: 'purge-time' }],
        })
      : null,
};

/** Getting full air, where nothing else in the run makes it: for a retest of what needs full tanks. */
export const fill: StepMaker = {
  id: 'fill',
  title: 'Charge',
  make: ({ rig }) =>
    hasCompressor(rig.unit.kind)
      ? step({
          id: 'fill',
          title: 'Charge',
          say: ['Start the engine in neutral and let it charge to cut-out.'],
          cautions: [HOT],
          act: {
            kind: 'marks',
            marks: [
              needleAt('full', 'Full, at {reading}', governorCutOut, undefined, 'stops-rising'),
            ],
          },
          maySkip: false,
        })
      : null,
};
