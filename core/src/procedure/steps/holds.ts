import type { FigureId } from '@keen-bleed/contract';
import { pedalDropRatio } from '../../rig/pedalDrop';
import { hasCompressor } from '../../rig/hasCompressor';
import type {
  HoldAct,
  MadeStep,
  MarkSpec,
  Proposal,
  Reckoning,
  StepContext,
  StepMaker,
} from '../procedure';
import { governorCutOut, needleAt, step } from './stepParts';

const HOLD_S = 60;

/** A hold from a reading on; with both gauges read, the second one is marked at each end too. */
function hold(start: Proposal, both: boolean): HoldAct {
  const crossing: MarkSpec = {
    key: 'crossing',
    pad: 'Needle on {reading}',
    hint: 'tap only when it crosses this line',
    at: 'passing',
    proposal: { from: 'last' },
  };
  return {
    kind: 'hold',
    seconds: HOLD_S,
    extendSeconds: HOLD_S,
    start: needleAt('start', 'Settled at {reading}: start', start, undefined, 'steady'),
    crossing,
    reading: needleAt(
      'reading',
      'Reads {reading} now',
      { from: 'last' },
      'tap while it stands there',
    ),
    end: needleAt('end', 'Now at {reading}', { from: 'last' }),
    other: both
      ? {
          start: needleAt('start-other', 'Other gauge at {reading}', { from: 'last' }),
          end: needleAt('end-other', 'Other gauge now {reading}', {
            from: 'mark',
            stepId: '',
            key: 'start-other',
            otherwise: { from: 'last' },
          }),
        }
      : null,
  };
}

const bothGauges = ({ rig, ruleSet }: StepContext) =>
  ruleSet.switches.gauges === 'both' &&
  hasCompressor(rig.unit.kind) &&
  rig.unit.circuits === 'dual';

function holdStep(
  given: Pick<MadeStep, 'id' | 'title' | 'say' | 'cautions'>,
  start: Proposal,
  figures: { leak: FigureId; loss: FigureId; other: FigureId },
  context: StepContext,
): MadeStep {
  const both = bothGauges(context);
  const act = hold(start, both);
  const other = act.other;
  if (other?.end.proposal.from === 'mark') other.end.proposal.stepId = given.id;
  const reckon: Reckoning[] = [
    { kind: 'leak', figure: figures.leak, loss: figures.loss, gauge: 'read' },
    ...(both ? [{ kind: 'leak', figure: figures.other, loss: null, gauge: 'other' } as const] : []),
  ];
  return step({ ...given, act, reckon });
}

/** Brakes released, engine off: what the whole system loses. */
export const staticHold: StepMaker = {
  id: 'static-hold',
  title: 'Brakes released, hold',
  make: (context) => {
    const { rig, ruleSet } = context;
    const towedAlone = !hasCompressor(rig.unit.kind);
    if (!towedAlone && ruleSet.switches.leakTests === 'applied-only') return null;
    const from = towedAlone ? 'charge' : 'cut-out';
    return holdStep(
      {
        id: 'static-hold',
        title: 'Brakes released, hold',
        say: towedAlone
          ? ['Shop air closed, brakes released.', 'Let the needle settle.']
          : [
              'Full tanks. Engine off, key on.',
              rig.towed.length > 0
                ? 'Push [park knob] and [trailer knob] in. Feet off the pedal.'
                : 'Release the parking brakes. Feet off the pedal.',
              'Let the needle settle.',
            ],
        cautions: [
          ruleSet.switches.heldBy === 'chocks' || towedAlone
            ? 'Only the chocks hold it now.'
            : 'Only the gear holds it now.',
        ],
      },
      {
        from: 'mark',
        stepId: from,
        key: towedAlone ? 'charged' : 'cut-out',
        otherwise: governorCutOut,
      },
      { leak: 'static-leak', loss: 'static-loss', other: 'static-leak-other' },
      context,
    );
  },
};

/** Full pedal, engine off: what the service side loses. */
export const appliedHold: StepMaker = {
  id: 'applied-hold',
  title: 'Pedal down, hold',
  make: (context) => {
    const { rig } = context;
    if (!hasCompressor(rig.unit.kind)) return null;
    return holdStep(
      {
        id: 'applied-hold',
        title: 'Pedal down, hold',
        say: [
          'Engine still off. Full pedal, and hold it still.',
          'Pass over the first drop; let the needle settle.',
        ],
        cautions: ['Stay clear of pushrods: they move with the pedal.'],
      },
      {
        from: 'after-pedal',
        of: { from: 'latest', otherwise: governorCutOut },
        ratio: pedalDropRatio(rig),
      },
      { leak: 'applied-leak', loss: 'applied-loss', other: 'applied-leak-other' },
      context,
    );
  },
};
