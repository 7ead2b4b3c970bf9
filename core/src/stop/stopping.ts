/** Standard gravity, m/s² [std: CGPM 1901, value from memory]. */
export const GRAVITY_MPS2 = 9.80665;
/** The same in ft/s². */
export const GRAVITY_FTPS2 = GRAVITY_MPS2 / 0.3048;
/** Metres a second in one mile an hour: 1,609.344 m in 3,600 s. */
export const MPS_PER_MPH = 0.44704;
/** Feet a second in one mile an hour: 5,280 ft in 3,600 s. */
const FTPS_PER_MPH = 5_280 / 3_600;

/** From this speed on a whole stop counts; below it only what comes after the ramp, mph. House value. */
export const WHOLE_STOP_FROM_MPH = 15;

/**
 * The steady deceleration of a stop that was seen from the wheel, as a share of g: v² ÷ 2(s − v·lost).
 *
 * @param distanceFt from the pedal to the standstill
 * @param lostS travelled at full speed before the brakes bite
 * @returns null where the lost time alone takes the distance
 * @example decelerationByEyeG(5, 4, 0.25) // 0.39
 */
export function decelerationByEyeG(
  speedMph: number,
  distanceFt: number,
  lostS: number,
): number | null {
  const speed = speedMph * FTPS_PER_MPH;
  const braked = distanceFt - speed * lostS;
  return braked > 0 ? speed ** 2 / (2 * braked) / GRAVITY_FTPS2 : null;
}

/**
 * The distance of a stop whose deceleration climbs in a straight line and then stays: the ramp costs half its time at
 * full speed, near enough while it is short beside the stop.
 *
 * @param decelerationFtps2 once it stays
 * @param rampS how long it takes to get there
 * @param lostS before it begins
 * @example stoppingDistanceFt(5, 14) // 1.9
 */
export function stoppingDistanceFt(
  speedMph: number,
  decelerationFtps2: number,
  rampS = 0,
  lostS = 0,
): number {
  const speed = speedMph * FTPS_PER_MPH;
  return speed ** 2 / (2 * decelerationFtps2) + speed * (lostS + rampS / 2);
}
