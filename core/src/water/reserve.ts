const ML_PER_IN3 = 16.387064;
const ATMOSPHERE_PSI = 14.696;

/** What water in a tank takes from its reserve. */
export interface Reserve {
  /** Share of the tank that holds water, 0 to 1. */
  lost: number;
  /** Full applications from one pressure to another, dry and as it is. */
  dry: number;
  now: number;
}

/**
 * Full applications that a tank gives between two pressures, without and with water in it. By Boyle's law: each takes the
 * chambers' volume of the tank's air, so that p·V = p'·(V + v).
 *
 * @param tankIn3 the tank, in³
 * @param chambersIn3 what it fills at each application, in³
 * @param fromPsi gauge pressure at first; `toPsi` at the end
 */
export function reserveOf(
  tankIn3: number,
  waterMl: number,
  chambersIn3: number,
  fromPsi: number,
  toPsi: number,
): Reserve {
  const air = Math.max(1, tankIn3 - waterMl / ML_PER_IN3);
  const lasts = (volume: number) =>
    Math.log((fromPsi + ATMOSPHERE_PSI) / (toPsi + ATMOSPHERE_PSI)) /
    Math.log1p(chambersIn3 / volume);
  return { lost: 1 - air / tankIn3, dry: lasts(tankIn3), now: lasts(air) };
}
