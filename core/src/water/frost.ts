import { SEA_LEVEL_PA, dewPointC, vapourPaOf, ratioOf, saturationPa } from './moistAir';
import { dryerStates, type DryerHealth } from './dryerHealth';

const PA_PER_PSI = 6_894.757;

/** Lines that freeze first, and the pressure the air in them has. */
export const frostLines = [
  { id: 'supply', title: 'Supply lines and tanks', psi: 120 },
  { id: 'service', title: 'Service lines', psi: 30 },
  { id: 'trailer', title: 'Trailer lines and relays', psi: 90 },
] as const;

/** What may freeze tonight. */
export interface FrostRisk {
  id: (typeof frostLines)[number]['id'];
  title: string;
  /** The dew point in that line where the dryer is as it most likely is, °C. */
  dewPointC: number;
  /** Chance that water settles there and freezes, 0 to 1. */
  chance: number;
}

/**
 * Where air gives up its water at tonight's low and freezes: the same air carries more at less pressure, so lines at
 * full pressure freeze first.
 *
 * @param tankPsi pressure the dew points of `health` are for
 */
export function frostRisks(health: DryerHealth, lowC: number, tankPsi: number): FrostRisk[] {
  const { chances, dewPointC: dew } = health;
  const tankPa = SEA_LEVEL_PA + tankPsi * PA_PER_PSI;
  const by = chances ?? { 'in order': 0.8, spent: 0.15, none: 0.05 };
  const likeliest = dryerStates.reduce((best, state) => (by[state] > by[best] ? state : best));
  return frostLines.map(({ id, title, psi }) => {
    const pa = SEA_LEVEL_PA + psi * PA_PER_PSI;
    const at = (state: (typeof dryerStates)[number]) =>
      dewPointC(vapourPaOf(ratioOf(saturationPa(dew[state]), tankPa), pa));
    const chance =
      lowC >= 0
        ? 0
        : dryerStates.reduce((sum, state) => sum + (at(state) > lowC ? by[state] : 0), 0);
    return { id, title, dewPointC: at(likeliest), chance };
  });
}
