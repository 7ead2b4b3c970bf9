import { drawsOf } from '../twin/random';
import { dewPointC, humidityRatio, saturatedRatio, SEA_LEVEL_PA, vapourPaOf } from './moistAir';

const PA_PER_PSI = 6_894.757;
/** Free air, kg in a standard cubic foot. */
const KG_PER_SCF = 1.204 / 35.3147;

/** How a dryer may be. */
export const dryerStates = ['in order', 'spent', 'none'] as const;
/** In order; its desiccant spent but its sump still purging; or as good as none: no purge, or no dryer. */
export type DryerState = (typeof dryerStates)[number];

/** What a compressor breathed since the tanks were drained. */
export interface Duty {
  airC: number;
  /** Relative, 0 to 1. */
  humidity: number;
  /** Hours the engine ran, and the share of them in which the compressor worked. */
  engineHours: number;
  loadedShare: number;
  /** Free air it delivers while it works, scfm. */
  scfm: number;
  tankPsi: number;
  hasDryer: boolean;
}

/** Desiccant takes out so much of the vapour [trade: about 95 %]. */
const TAKES_OUT = 0.95;
/** Tanks are warmer than the air outside by about so much while the engine runs, and a dryer by so much more, K [common practice, no source]. */
const TANK_WARMER = { mean: 8, by: 5 } as const;
const DRYER_WARMER = { mean: 12, by: 5 } as const;
/** Hours, share and delivery are known within about a third. */
const DUTY_BY = 0.35;
/** A sound dryer lets this much through all the same, ml: oil mist, what stood in a line. */
const ALWAYS_ML = 1;
const DRAWN = 300;

/**
 * Water that settles in the tanks for each kilogram of air that is pumped, kg: none under a dryer in order, what the air
 * gives up between the dryer and the tank past a spent one, and all that it cannot carry where there is none.
 */
export function settlesPerKg(
  state: DryerState,
  { airC, humidity, tankPsi }: Pick<Duty, 'airC' | 'humidity' | 'tankPsi'>,
  tankC: number,
  dryerC: number,
): number {
  const pa = SEA_LEVEL_PA + tankPsi * PA_PER_PSI;
  const breathed = humidityRatio(airC, humidity);
  const stays = saturatedRatio(tankC, pa);
  switch (state) {
    case 'in order':
      return Math.max(0, (1 - TAKES_OUT) * Math.min(breathed, saturatedRatio(dryerC, pa)) - stays);
    case 'spent':
      // Its sump still throws out what has turned to water by there.
      return Math.max(0, Math.min(breathed, saturatedRatio(dryerC, pa)) - stays);
    case 'none':
      return Math.max(0, breathed - stays);
  }
}

/** What each state of a dryer would have left in the tanks, ml: its middle, and 10 and 90 of 100. */
export interface WouldLeave {
  state: DryerState;
  ml: number;
  fromMl: number;
  toMl: number;
}

/** How a dryer is, by the water its tanks gave. */
export interface DryerHealth {
  leaves: readonly WouldLeave[];
  /** By state; null where nothing was drained. */
  chances: Readonly<Record<DryerState, number>> | null;
  /** The pressure dew point in the tanks, °C, by state. */
  dewPointC: Readonly<Record<DryerState, number>>;
  /** What cannot be told apart: all of them would have left as little. */
  cannotTell: boolean;
}

/** How often each is met where tanks are drained daily [common practice, no source]. */
const PRIOR: Readonly<Record<DryerState, number>> = { 'in order': 0.8, spent: 0.15, none: 0.05 };

/**
 * What the water in the tanks says of the dryer: what each state of it would have left, given what the compressor
 * breathed, with the doubt of duty and temperatures.
 *
 * @param foundMl what came out of all drains, ml, from and to; null where nothing was drained
 */
export function dryerHealth(duty: Duty, foundMl: readonly [number, number] | null): DryerHealth {
  const draws = drawsOf(7);
  const { airC, engineHours, loadedShare, scfm, tankPsi, hasDryer } = duty;
  const kg = engineHours * 60 * loadedShare * scfm * KG_PER_SCF;
  const leaves: WouldLeave[] = [];
  const likely: Record<DryerState, number> = { 'in order': 0, spent: 0, none: 0 };
  for (const state of dryerStates) {
    const mls: number[] = [];
    for (let n = 0; n < DRAWN; n += 1) {
      const tankC = airC + TANK_WARMER.mean + TANK_WARMER.by * draws.normal(2);
      const dryerC = tankC + DRYER_WARMER.mean + DRYER_WARMER.by * draws.normal(2);
      const pumped = kg * Math.exp(DUTY_BY * draws.normal(2.5));
      const ml =
        1_000 * pumped * settlesPerKg(state, duty, tankC, dryerC) + ALWAYS_ML * draws.even();
      mls.push(ml);
      if (foundMl) likely[state] += within(foundMl, ml) / DRAWN;
    }
    mls.sort((a, b) => a - b);
    const at = (share: number) => mls[Math.floor(share * (DRAWN - 1))]!;
    leaves.push({ state, ml: at(0.5), fromMl: at(0.1), toMl: at(0.9) });
  }
  const prior = (state: DryerState) => (hasDryer ? PRIOR[state] : state === 'none' ? 1 : 0);
  const all = dryerStates.reduce((sum, state) => sum + prior(state) * likely[state], 0);
  const pa = SEA_LEVEL_PA + tankPsi * PA_PER_PSI;
  const tankC = airC + TANK_WARMER.mean;
  const breathed = humidityRatio(airC, duty.humidity);
  const carried = (state: DryerState) =>
    state === 'in order'
      ? (1 - TAKES_OUT) * Math.min(breathed, saturatedRatio(tankC + DRYER_WARMER.mean, pa))
      : Math.min(breathed, saturatedRatio(tankC, pa));
  const spread = leaves.map(({ ml }) => ml);
  return {
    leaves,
    chances:
      foundMl && all > 0
        ? {
            'in order': (prior('in order') * likely['in order']) / all,
            spent: (prior('spent') * likely.spent) / all,
            none: (prior('none') * likely.none) / all,
          }
        : null,
    dewPointC: {
      'in order': dewPointC(vapourPaOf(carried('in order'), pa)),
      spent: dewPointC(vapourPaOf(carried('spent'), pa)),
      none: dewPointC(vapourPaOf(carried('none'), pa)),
    },
    cannotTell: Math.max(...spread) < 2 * ALWAYS_ML,
  };
}

/** An eye and a cup are off by about this factor, as a logarithm. */
const EYE = 0.4;

/** How well an amount that lies between two goes with what would be there: full between them, falling off beyond. */
function within([from, to]: readonly [number, number], ml: number): number {
  const log = (value: number) => Math.log(value + 1);
  const [low, high, at] = [log(from), log(to), log(ml)];
  const off = at < low ? low - at : at > high ? at - high : 0;
  return Math.exp(-0.5 * (off / EYE) ** 2) + 1e-4;
}
