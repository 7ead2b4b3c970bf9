import type { PressureUnit } from '@keen-bleed/contract';
import { hasCompressor } from '../../rig/hasCompressor';
import { limitFor } from '../../standards/limitFor';
import { stopLimit } from '../../standards/stopLimit';
import { decelerationByEyeG } from '../../stop/stopping';
import { sayFigure } from '../../units/say';
import { figureUnitIn } from '../../units/say';
import type { LookItem, StepContext, StepMaker } from '../procedure';
import { step } from './stepParts';

/** Where a rule set has no figures of its own: walking pace, and about 4 ft from it [trade]. */
const SPEED_MPH = { min: 5, max: 6 };
const DISTANCE_FT = 4;
/** Somebody who watches loses about this before and after, s. House value. */
const LOST_S = 0.25;
/** A speed at which the same distance proves next to nothing, mph. */
const TOO_SLOW_MPH = 3;

const UNLIKE =
  'brakes less: stroke, lining or a restricted line there; or a tyre, or the suspension.';

/** How a stop goes; the first is how it should. */
const went = (): LookItem => ({
  key: 'stop',
  ask: 'How it stopped',
  options: [
    { value: 'straight', title: 'at once and straight', standing: 'good' },
    {
      value: 'long',
      title: 'long',
      standing: 'bad',
      means: 'Long strokes, worn linings, unlike crack pressures or a restricted control line.',
      holds: true,
    },
    {
      value: 'pull-left',
      title: 'pulls left',
      standing: 'bad',
      means: `The right side ${UNLIKE}`,
      holds: true,
    },
    {
      value: 'pull-right',
      title: 'pulls right',
      standing: 'bad',
      means: `The left side ${UNLIKE}`,
      holds: true,
    },
    {
      value: 'no-stop',
      title: 'did not stop',
      standing: 'bad',
      means: 'Out of service: do not move it.',
      holds: true,
    },
  ],
});

/**
 * The service stop: rolled up to walking pace and braked. By eye it needs speed and distance; measured, the braking of
 * its rule set.
 */
export const serviceStop: StepMaker = {
  id: 'service-stop',
  title: 'Service stop',
  make: (context) => {
    const { rig, ruleSet } = context;
    if (!hasCompressor(rig.unit.kind)) return null;
    const unit = rig.unit.gauge.unit;
    const speed = limitFor('stop-speed', rig, ruleSet) ?? SPEED_MPH;
    const leastMph = speed.min ?? SPEED_MPH.min;
    const say = (feet: number) => sayIn(feet, 'ft', unit);
    const pace = `${sayFigure(leastMph, 'mph', unit)} to ${sayIn(speed.max ?? SPEED_MPH.max, 'mph', unit)}`;
    return step({
      id: 'service-stop',
      title: 'Service stop',
      say: [
        `Chocks away. Roll ${sayFigure(15, 'ft', unit)} to ${say(20)} to pick up ${pace}, then brake hard.`,
        'Nowhere to drive? Roller tester, or the vehicle stays held.',
      ],
      cautions: [
        'Moving tests only in a clear yard: nobody in front, belts on.',
        'Any doubt whether it stops: do not drive it, use a roller tester.',
      ],
      act: {
        kind: 'stop',
        items: [went(), speedItem(pace, leastMph, context), distanceItem(context)],
        measures: ['roller', 'phone'],
        leastPct: stopLimit(rig, ruleSet)?.min ?? null,
      },
      reckon: [{ kind: 'stop', figure: 'stop-braking' }],
    });
  },
};

const sayIn = (value: number, figure: 'ft' | 'mph', unit: PressureUnit) =>
  `${sayFigure(value, figure, unit)} ${figureUnitIn(figure, unit)}`;

/** What a stop by eye shows at best, as a share of g to two places. */
const shownG = (mph: number, feet: number) =>
  (decelerationByEyeG(mph, feet, LOST_S) ?? 0).toFixed(2);

function speedItem(pace: string, leastMph: number, { rig, ruleSet }: StepContext): LookItem {
  const unit = rig.unit.gauge.unit;
  const feet = limitFor('stop-distance', rig, ruleSet)?.max ?? DISTANCE_FT;
  const again = `Stop again from ${pace}.`;
  return {
    key: 'speed',
    ask: 'Speedometer as the brakes went on',
    options: [
      { value: 'right', title: pace, standing: 'good' },
      {
        value: 'slower',
        title: 'slower',
        standing: 'open',
        means: `${sayIn(feet, 'ft', unit)} from ${sayIn(TOO_SLOW_MPH, 'mph', unit)} is ${shownG(TOO_SLOW_MPH, feet)} g, from ${sayIn(leastMph, 'mph', unit)} ${shownG(leastMph, feet)} g. ${again}`,
      },
      {
        value: 'faster',
        title: 'faster',
        standing: 'open',
        means: `The distance is for ${pace}. ${again}`,
      },
      {
        value: 'not-read',
        title: 'not read',
        standing: 'open',
        means: `Without the speed the distance proves nothing. ${again}`,
      },
    ],
  };
}

function distanceItem({ rig, ruleSet }: StepContext): LookItem {
  const unit = rig.unit.gauge.unit;
  const feet = limitFor('stop-distance', rig, ruleSet)?.max ?? DISTANCE_FT;
  const mph = limitFor('stop-speed', rig, ruleSet)?.min ?? SPEED_MPH.min;
  const distance = sayIn(feet, 'ft', unit);
  return {
    key: 'distance',
    ask: 'Distance from the pedal to standstill',
    options: [
      {
        value: 'short',
        title: `about ${distance}, or less`,
        standing: 'good',
        means: `By eye: ${distance} from ${sayIn(mph, 'mph', unit)} is ${shownG(mph, feet)} g if ${LOST_S} s was lost. It proves no more.`,
      },
      {
        value: 'longer',
        title: 'longer',
        standing: 'bad',
        means: 'Long strokes, worn linings, unlike crack pressures or a restricted control line.',
        holds: true,
      },
      {
        value: 'not-seen',
        title: 'not seen',
        standing: 'open',
        means: 'Without the distance the stop proves nothing. Have somebody stand clear and watch.',
      },
    ],
  };
}
