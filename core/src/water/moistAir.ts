/* Moist air: how much water it carries, and when it gives it up. */

/** Mass of a mole of water against one of dry air. */
const MOLES = 0.621945;
const KELVIN = 273.15;
/** Outside air at sea level, Pa. */
export const SEA_LEVEL_PA = 101_325;

/**
 * Pressure of water vapour over a flat surface of water, or of ice under 0.01 °C, Pa
 * [std: ASHRAE Handbook Fundamentals 2017, chapter 1, equations 5 and 6, after Hyland and Wexler 1983; values from memory].
 *
 * @param celsius −100 to 200 °C
 */
export function saturationPa(celsius: number): number {
  const k = celsius + KELVIN;
  const log =
    celsius <= 0.01
      ? -5.6745359e3 / k +
        6.3925247 -
        9.677843e-3 * k +
        6.2215701e-7 * k ** 2 +
        2.0747825e-9 * k ** 3 -
        9.484024e-13 * k ** 4 +
        4.1635019 * Math.log(k)
      : -5.8002206e3 / k +
        1.3914993 -
        4.8640239e-2 * k +
        4.1764768e-5 * k ** 2 -
        1.4452093e-8 * k ** 3 +
        6.5459673 * Math.log(k);
  return Math.exp(log);
}

/** Water that each kilogram of dry air carries, kg/kg, by the pressure of its vapour and the whole pressure, Pa. */
export const ratioOf = (vapourPa: number, pa: number): number =>
  (MOLES * vapourPa) / Math.max(1, pa - vapourPa);

/** Pressure of the vapour in air that carries so much, Pa. */
export const vapourPaOf = (ratio: number, pa: number): number => (pa * ratio) / (MOLES + ratio);

/**
 * Water that outside air carries, kg per kg of dry air.
 *
 * @param humidity relative, 0 to 1
 */
export const humidityRatio = (celsius: number, humidity: number, pa = SEA_LEVEL_PA): number =>
  ratioOf(humidity * saturationPa(celsius), pa);

/** The most that air can carry at a temperature and whole pressure, kg per kg of dry air. */
export const saturatedRatio = (celsius: number, pa: number): number =>
  ratioOf(saturationPa(celsius), pa);

const COLDEST = -100;
const HOTTEST = 200;

/** The temperature at which vapour of this pressure begins to settle, °C: `saturationPa` turned round, by halving. */
export function dewPointC(vapourPa: number): number {
  let [low, high] = [COLDEST, HOTTEST];
  for (let n = 0; n < 60; n += 1) {
    const middle = (low + high) / 2;
    if (saturationPa(middle) > vapourPa) high = middle;
    else low = middle;
  }
  return (low + high) / 2;
}
