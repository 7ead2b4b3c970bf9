/** Density of free air, kg/m³, and cubic feet in a cubic metre. */
const FREE_AIR = 1.204;
const FT3_PER_M3 = 35.3147;

/** Mass flow of one standard cubic foot of free air a minute, kg/s. */
export const KG_PER_S_PER_SCFM = FREE_AIR / FT3_PER_M3 / 60;

/** Free air in a mass flow, scfm. */
export const scfmOf = (kgPerS: number): number => kgPerS / KG_PER_S_PER_SCFM;

/** What blows out of a way to the open, scfm; air that is drawn in is not heard as a blast. */
export const outflowScfm = (twin: { flowKgPerS: (way: string) => number }, way: string): number =>
  Math.max(0, scfmOf(twin.flowKgPerS(way)));
