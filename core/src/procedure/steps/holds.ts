import type { FigureId, Gauge } from '@keen-bleed/contract';
import { halfDivisionPsi } from '../../gauge/graduation';
import { holdLengthS, SHORTEST_HOLD_S } from '../../leak/holdPlan';
import { limitFor } from '../../standards/limitFor';
import { sayFigure } from '../../units/say';
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
import { governorCutOut, lineCrossed, needleAt, step } from './stepParts';

/** What one press of “longer” adds, s. */
const LONGER_S = 60;

interface Held {
  start: Proposal;
  /** What has just been done when the air is left alone. */
  settles: Pick<MarkSpec, 'pad' | 'hint'>;
  limitPsiPerMin: number | null;
  both: boolean;
}

/**
 * A hold from a reading on, after heat has been waited for; with both gauges read, the second one is marked at each
 * end too. Its length is what the dial needs for the limit.
 */
function hold({ start, settles, limitPsiPerMin, both }: Held, { rig }: StepContext): HoldAct {
  const { gauge } = rig.unit;
  const seconds =
    limitPsiPerMin === null ? SHORTEST_HOLD_S : holdLengthS(halfDivisionPsi(gauge), limitPsiPerMin);
  return {
    kind: 'hold',
    settle: { ...needleAt('settle', settles.pad, start), hint: settles.hint },
    ...(limitPsiPerMin === null ? {} : { limitPsiPerMin }),
    ...(limitPsiPerMin === null || seconds === SHORTEST_HOLD_S
      ? {}
      : { because: sayLength(limitPsiPerMin, gauge) }),
    seconds,
    extendSeconds: LONGER_S,
    start: needleAt('start', 'Settled at {reading}: start', { from: 'last' }, undefined, 'steady'),
    crossing: lineCrossed,
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

function sayLength(limitPsiPerMin: number, { division, unit }: Gauge): string {
  const limit = `${sayFigure(limitPsiPerMin, 'psi/min', unit)} ${unit}/min`;
  return `So long because divisions of ${division} ${unit} do not tell ${limit} sooner.`;
}

/** Both gauges are read where the rule set says so and there are two. */
export const bothGauges = ({ rig, ruleSet }: StepContext) =>
  ruleSet.switches.gauges === 'both' &&
  hasCompressor(rig.unit.kind) &&
  rig.unit.circuits === 'dual';

function holdStep(
  given: Pick<MadeStep, 'id' | 'title' | 'say' | 'cautions'>,
  held: Pick<Held, 'start' | 'settles'>,
  figures: { leak: FigureId; loss: FigureId; other: FigureId },
  context: StepContext,
): MadeStep {
  const both = bothGauges(context);
  const limitPsiPerMin = limitFor(figures.leak, context.rig, context.ruleSet)?.max ?? null;
  const act = hold({ ...held, limitPsiPerMin, both }, context);
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
          ? ['Shop air closed, brakes released.', 'Press, and wait for the air to cool.']
          : [
              'Full tanks. Engine off, key on.',
              rig.towed.length > 0 && ruleSet.school === 'words'
                ? 'Push [park knob] and [trailer knob] in. Feet off the pedal.'
                : 'Release the parking brakes. Feet off the pedal.',
              'Press when nothing moves the air any more; then wait for it to cool.',
            ],
        cautions: [
          ruleSet.switches.heldBy === 'chocks' || towedAlone
            ? 'Only the chocks hold it now.'
            : 'Only the gear holds it now.',
        ],
      },
      {
        start: {
          from: 'mark',
          stepId: from,
          key: towedAlone ? 'charged' : 'cut-out',
          otherwise: governorCutOut,
        },
        settles: {
          pad: towedAlone ? 'Air closed, at {reading}' : 'Engine off, released, at {reading}',
          hint: 'the wait starts here',
        },
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
          'Press after the first drop; then wait: the air in the tanks warms up again and would hide a leak.',
        ],
        cautions: [
          'Stay clear of pushrods: they move with the pedal.',
          'If the foot moves, press “Foot moved”: the hold begins again.',
        ],
      },
      {
        start: {
          from: 'after-pedal',
          of: { from: 'latest', otherwise: governorCutOut },
          ratio: pedalDropRatio(rig),
        },
        settles: { pad: 'Pedal down, at {reading}', hint: 'the wait starts here' },
      },
      { leak: 'applied-leak', loss: 'applied-loss', other: 'applied-leak-other' },
      context,
    );
  },
};
