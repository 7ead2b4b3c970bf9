import { Solver } from 'odex';
import { heatAfter, heatLater, heatTimes, settled, USUAL_HEAT_S } from './heat';

/** Ratio of specific heats of dry air [value from memory: 1.400 at 300 K, standard tables]. */
const GAMMA = 1.4;

/**
 * By how much air is above (or below) what it will read once it has its tank's temperature: a first law for a tank that
 * is filled or let down, integrated by a general-purpose solver.
 *
 * @param climbs each from and to a time, s, at a pace, psi/s
 * @param strokes each at a time, s, by psi
 */
function warmth(
  timeS: number,
  climbs: readonly (readonly [from: number, to: number, pace: number])[],
  strokes: readonly (readonly [at: number, psi: number])[],
  untilS: number,
): number {
  const edges = [
    ...new Set([0, untilS, ...climbs.flatMap(([a, b]) => [a, b]), ...strokes.map(([at]) => at)]),
  ].sort((a, b) => a - b);
  let above = 0;
  for (let n = 1; n < edges.length; n += 1) {
    const [from, to] = [edges[n - 1]!, edges[n]!];
    for (const [at, psi] of strokes) if (at === from) above -= (1 - 1 / GAMMA) * psi;
    const pace = climbs
      .filter(([a, b]) => a <= from && to <= b)
      .reduce((sum, [, , each]) => sum + each, 0);
    const slope = (_t: number, [y]: number[]) => [(1 - 1 / GAMMA) * pace - y! / timeS];
    const solver = new Solver(1);
    solver.absoluteTolerance = 1e-10;
    solver.relativeTolerance = 1e-10;
    above = solver.solve(slope, from, [above], to).y[0]!;
  }
  const last = strokes.find(([at]) => at === untilS)?.[1] ?? 0;
  return above - (1 - 1 / GAMMA) * last;
}

describe('heat that is still to come', () => {
  it.each([20, 32, 60])('after a climb is what a filled tank still has over, τ = %d s', (timeS) => {
    for (const [risePsi, pace, sinceS] of [
      [40, 0.8, 0],
      [25, 2.5, 12],
      [60, 0.4, 45],
    ] as const) {
      const seen = heatAfter([{ risePsi, ratePsiPerS: pace, sinceS: [sinceS, sinceS] }], [])(timeS);
      const lasts = risePsi / pace;
      expect(seen.meanPsi).toBeCloseTo(warmth(timeS, [[0, lasts, pace]], [], lasts + sinceS), 3);
    }
  });

  it('after a stroke is what the air was chilled by, dying away', () => {
    for (const [dropPsi, sinceS] of [
      [20, 0],
      [8, 10],
      [45, 70],
    ] as const) {
      const seen = heatAfter([], [{ dropPsi, sinceS }])(32);
      expect(seen.meanPsi).toBeCloseTo(warmth(32, [], [[5, dropPsi]], 5 + sinceS), 3);
      expect(seen.meanPsi).toBeLessThan(0);
    }
  });

  it('adds up over climbs and strokes', () => {
    const seen = heatAfter(
      [{ risePsi: 30, ratePsiPerS: 1, sinceS: [20, 20] }],
      [{ dropPsi: 12, sinceS: 10 }],
    )(32);
    expect(seen.meanPsi).toBeCloseTo(warmth(32, [[0, 30, 1]], [[40, 12]], 50), 3);
  });

  it('lies between the two where it is not known when a climb ended, and is surer the closer they are', () => {
    const between = (least: number, most: number) =>
      heatAfter([{ risePsi: 30, ratePsiPerS: 1, sinceS: [least, most] }], [])(32);
    const wide = between(0, 40);
    expect(wide.meanPsi).toBeLessThan(between(0, 0).meanPsi);
    expect(wide.meanPsi).toBeGreaterThan(between(40, 40).meanPsi);
    expect(wide.sdPsi).toBeGreaterThan(between(20, 20).sdPsi);
    // Even odds between two ends: a uniform distribution's deviation is its width over √12.
    const width = between(0, 0).meanPsi - between(40, 40).meanPsi;
    expect(wide.sdPsi ** 2).toBeCloseTo(0.15 ** 2 + (0.4 * wide.meanPsi) ** 2 + width ** 2 / 12, 6);
  });

  it('is not known where nothing was marked before, and next to none after a long stand', () => {
    expect(heatAfter([], [])(32)).toEqual({ meanPsi: 0.5, sdPsi: 1.5 });
    expect(settled(32).meanPsi).toBe(0);
    expect(settled(32).sdPsi).toBeLessThan(0.2);
  });

  it('dies away by its time constant, and never becomes certain', () => {
    const heat = heatAfter([{ risePsi: 30, ratePsiPerS: 1, sinceS: [0, 0] }], []);
    const later = heatLater(heat, 32);
    expect(later(32).meanPsi).toBeCloseTo(heat(32).meanPsi / Math.E, 9);
    expect(heatLater(heat, 0)(32).meanPsi).toBe(heat(32).meanPsi);
    expect(heatLater(heat, 3_600)(32).meanPsi).toBeCloseTo(0, 6);
    expect(heatLater(heat, 3_600)(32).sdPsi).toBeCloseTo(0.05, 3);
    expect(later(32).sdPsi).toBeCloseTo(Math.hypot(heat(32).sdPsi / Math.E, 0.05), 9);
  });
});

describe('time constants a hold is weighed with', () => {
  it('have chances that add up to one, the usual one the likeliest, as often shorter as longer', () => {
    expect(heatTimes.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 12);
    const likeliest = [...heatTimes].sort((a, b) => b.chance - a.chance)[0]!;
    expect(likeliest.timeS).toBeCloseTo(USUAL_HEAT_S, 9);
    for (const { timeS, chance } of heatTimes) {
      const mirror = heatTimes.find(
        (each) => Math.abs(each.timeS * timeS - USUAL_HEAT_S ** 2) < 1e-6,
      );
      expect(mirror?.chance).toBeCloseTo(chance, 12);
    }
  });

  it('lie about where a film of 15 to 20 W/(m²K) puts them, two thirds of them within 25 to 48 s', () => {
    const within = heatTimes
      .filter(({ timeS }) => timeS > 23 && timeS < 48)
      .reduce((sum, { chance }) => sum + chance, 0);
    expect(within).toBeGreaterThan(0.6);
    expect(within).toBeLessThan(0.9);
  });
});
