import {
  crossingUncertaintyPsi,
  LINE_SHARE_OF_HALF_DIVISION,
  readingUncertaintyPsi,
  SLIP_CHANCE,
  SLIP_HALF_DIVISIONS,
} from '../gauge/uncertainty';
import { normalCdf } from '../statistics/normal';
import { quantile } from '../statistics/quantile';
import { heatTimes, settled, type Heat } from './heat';
import { leakRate, type HoldMark } from './leakRate';
import { needleAtEnd } from './needleAtEnd';

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { abs, exp, hypot, log, max, min, sqrt } = Math;

/** A stretch at the end of a hold in which the needle reached no line: it stayed between two of them. */
export interface QuietEnd {
  untilMs: number;
  /** The next line down, which was not reached. */
  belowPsi: number;
  /** The next line up, which was not reached either. */
  abovePsi: number;
}

/** What is known of a hold beside its marks. */
export interface HoldKnown {
  /** What heat is still to do at the first mark. */
  heat: Heat;
  /** What a difference on this gauge is off by, as a share of it (standard deviation). */
  slopeShare: number;
}

/** What a hold says of the leak, with the shape of its doubt. */
export interface LeakEstimate {
  /** Positive when the pressure falls; what heat did is taken out. */
  ratePsiPerMin: number;
  standardUncertaintyPsiPerMin: number;
  /** From the first mark to the end. */
  spanS: number;
  /** Mean reading over the hold, psi gauge. */
  meanPsi: number;
  /** The rate is this or less, 95 times in 100, psi/min. */
  upperPsiPerMin: number;
  /**
   * What an inspector writes: how far the needle fell over the time watched, psi/min. What was read at the end counts;
   * where nothing was, where the needle must have stood between two lines.
   */
  readPsiPerMin: number;
  /** How far the needle was seen to fall, psi; it may have fallen further towards the next line. */
  fallenPsi: number;
  /** Only an upper bound is known: no mark after the first. */
  onlyBounded: boolean;
  /** What heat did to the needle within the hold, psi: over 0 a fall that is no leak, under 0 a rise that hides one. */
  heatPsi: number;
  /** The needle rises faster than heat and eye can explain, psi/min; 0 where it does not. */
  risesPsiPerMin: number;
  /** Chance that the true rate is at most this, psi/min. */
  chanceAtMost: (ratePsiPerMin: number) => number;
}

const GRID_POINTS = 241;
/** Reach of the grid, in standard uncertainties. */
const GRID_REACH = 8;
/** Rise, in standard uncertainties, from which air must be coming in. */
const RISES = 3;
/** With more marks than this a slip is looked for among the worst fitting ones alone. */
const SLIPS_AMONG = 12;

const nothingElse: HoldKnown = { heat: settled, slopeShare: 0 };

/**
 * Leak rate from everything a hold says: readings to the half division, taps as lines were crossed, and the
 * stretch at its end in which no line was reached, which is used as what it is: a pair of bounds, not a
 * reading. Heat that is still to leave or to come is fitted beside the leak, from what is known before; any one mark
 * may be a slip. The posterior of the rate stands on a grid, with every rate from none up held alike beforehand.
 *
 * @param marks in any order
 * @param quiet the watched end without a crossing, or null where the last mark ended the hold
 * @returns null where nothing can be said: no mark, or one mark and no time watched
 */
export function leakEstimate(
  marks: readonly HoldMark[],
  quiet: QuietEnd | null,
  { heat, slopeShare }: HoldKnown = nothingElse,
): LeakEstimate | null {
  const ordered = [...marks].sort((a, b) => a.atMs - b.atMs);
  const first = ordered[0];
  const last = ordered.at(-1);
  if (!first || !last) return null;
  const line = leakRate(ordered);
  const watched = quiet && quiet.untilMs > last.atMs ? quiet : null;
  if (!line && !watched) return null;
  const endMs = watched?.untilMs ?? last.atMs;
  const spanS = (endMs - first.atMs) / 1000;
  const endPsi = watched ? needleAtEnd(ordered, watched) : last.readingPsi;
  const hold = new Hold(ordered, watched, spanS);
  const fits = heatTimes.flatMap(({ timeS, chance }) => {
    const still = heat(timeS);
    return hold.slips().map((slip) => hold.weigh(timeS, still.meanPsi, still.sdPsi, slip, chance));
  });
  const { density, heatPsi } = hold.mix(fits);
  return {
    ...hold.summary(density, slopeShare),
    spanS,
    meanPsi: line?.meanPsi ?? first.readingPsi,
    readPsiPerMin: ((first.readingPsi - endPsi) / spanS) * 60 + 0,
    fallenPsi: first.readingPsi - last.readingPsi,
    onlyBounded: !line,
    heatPsi,
    risesPsiPerMin: line ? hold.rises(heat) : 0,
  };
}

interface Fit {
  /** Not normalised, over the grid of rates. */
  density: Float64Array;
  evidence: number;
  /** What heat does within the hold by this fit, psi, at its best rate. */
  heatPsi: number;
}

/** The marks of one hold, ready to be weighed over one grid of rates. */
class Hold {
  private readonly rates: Float64Array;
  private readonly timesS: number[];
  private readonly psi: number[];
  private readonly doubts: number[];
  private readonly originPsi: number;

  constructor(
    private readonly marks: readonly HoldMark[],
    private readonly quiet: QuietEnd | null,
    private readonly spanS: number,
  ) {
    const startMs = marks[0]!.atMs;
    this.originPsi = marks[0]!.readingPsi;
    this.timesS = marks.map((mark) => (mark.atMs - startMs) / 1000);
    this.psi = marks.map((mark) => mark.readingPsi - this.originPsi);
    const roughPsiPerS = abs(leakRate(marks)?.ratePsiPerMin ?? 0) / 60;
    this.doubts = marks.map(({ method, resolutionPsi }) =>
      method === 'crossing'
        ? crossingUncertaintyPsi(resolutionPsi, roughPsiPerS)
        : readingUncertaintyPsi(resolutionPsi),
    );
    const most = this.mostPsiPerMin();
    this.rates = Float64Array.from(
      { length: GRID_POINTS },
      (_, n) => (most * n) / (GRID_POINTS - 1),
    );
  }

  /** No rate beyond this explains the marks, psi/min. */
  private mostPsiPerMin(): number {
    const worst = max(...this.doubts);
    const lowest = min(...this.psi, this.quiet ? this.quiet.belowPsi - this.originPsi : 0);
    return ((GRID_REACH * worst - lowest) / this.spanS) * 60;
  }

  /** Which mark may be a slip: none (−1), or one of them. */
  slips(): number[] {
    const all = this.marks.map((_, i) => i);
    if (all.length < 2) return [-1];
    if (all.length <= SLIPS_AMONG) return [-1, ...all];
    const line = leakRate(this.marks)!;
    const meanS = this.timesS.reduce((sum, each) => sum + each, 0) / all.length;
    const meanPsi = this.psi.reduce((sum, each) => sum + each, 0) / all.length;
    const off = (i: number) =>
      abs(this.psi[i]! - meanPsi + (line.ratePsiPerMin / 60) * (this.timesS[i]! - meanS)) /
      this.doubts[i]!;
    return [-1, ...all.sort((a, b) => off(b) - off(a)).slice(0, SLIPS_AMONG)];
  }

  /**
   * How well heat of a size and pace, and one mark as a slip, explain the marks, for each rate. The pressure at the
   * start and what heat does are fitted for each and integrated out.
   */
  weigh(timeS: number, meanPsi: number, sdPsi: number, slip: number, chance: number): Fit {
    const done = (s: number) => 1 - exp(-s / timeS);
    const sums = { w: 0, g: 0, gg: 0, y: 0, t: 0, gy: 0, gt: 0, yy: 0, yt: 0, tt: 0 };
    let logScale = log(chance * (slip < 0 ? 1 - SLIP_CHANCE : SLIP_CHANCE));
    this.marks.forEach(({ resolutionPsi }, i) => {
      const doubt =
        i === slip ? hypot(this.doubts[i]!, SLIP_HALF_DIVISIONS * resolutionPsi) : this.doubts[i]!;
      const w = 1 / doubt ** 2;
      const g = -done(this.timesS[i]!);
      const y = this.psi[i]!;
      const t = this.timesS[i]! / 60;
      logScale -= log(doubt);
      sums.w += w;
      sums.g += w * g;
      sums.gg += w * g * g;
      sums.y += w * y;
      sums.t += w * t;
      sums.gy += w * g * y;
      sums.gt += w * g * t;
      sums.yy += w * y * y;
      sums.yt += w * y * t;
      sums.tt += w * t * t;
    });
    const { w } = sums;
    const prior = 1 / sdPsi ** 2;
    const spread = sums.gg - (sums.g * sums.g) / w + prior;
    logScale -= 0.5 * log(w) + 0.5 * log(spread / prior);
    const gMean = sums.g / w;
    const endG = -done(this.spanS);
    const endS = this.spanS;
    const { quiet } = this;
    const endDoubt = hypot(
      sqrt(1 / w + (endG - gMean) ** 2 / spread),
      LINE_SHARE_OF_HALF_DIVISION * this.marks[0]!.resolutionPsi,
    );
    const density = new Float64Array(GRID_POINTS);
    let best = 0;
    let heatPsi = 0;
    let evidence = 0;
    for (let n = 0; n < GRID_POINTS; n += 1) {
      const rate = this.rates[n]!;
      // As if no air leaked: y + L·t.
      const y = sums.y + rate * sums.t;
      const gy = sums.gy + rate * sums.gt;
      const yy = sums.yy + 2 * rate * sums.yt + rate * rate * sums.tt;
      const centred = gy - (sums.g * y) / w + prior * meanPsi;
      const heat = centred / spread;
      const chi2 = yy - (y * y) / w + prior * meanPsi * meanPsi - centred * heat;
      let value = exp(logScale - chi2 / 2);
      if (quiet) {
        const endPsi = this.originPsi + y / w - heat * gMean + heat * endG - (rate * endS) / 60;
        value *=
          normalCdf((endPsi - quiet.belowPsi) / endDoubt) -
          normalCdf((endPsi - quiet.abovePsi) / endDoubt);
      }
      density[n] = value;
      evidence += value;
      if (value > best) {
        best = value;
        heatPsi = -heat * endG;
      }
    }
    return { density, evidence, heatPsi };
  }

  /** The densities of several fits together, normalised to a sum of one. */
  mix(fits: readonly Fit[]): { density: Float64Array; heatPsi: number } {
    const density = new Float64Array(GRID_POINTS);
    let total = 0;
    let heat = 0;
    for (const fit of fits) {
      for (let n = 0; n < GRID_POINTS; n += 1) density[n] = density[n]! + fit.density[n]!;
      total += fit.evidence;
      heat += fit.evidence * fit.heatPsi;
    }
    // Marks that nothing explains leave nothing: then every rate is as good as another.
    if (!(total > 0)) return { density: density.fill(1 / GRID_POINTS), heatPsi: 0 };
    return { density: density.map((each) => each / total), heatPsi: heat / total };
  }

  summary(
    density: Float64Array,
    slopeShare: number,
  ): Pick<
    LeakEstimate,
    'ratePsiPerMin' | 'standardUncertaintyPsiPerMin' | 'upperPsiPerMin' | 'chanceAtMost'
  > {
    const { rates } = this;
    const step = rates[1]! - rates[0]!;
    let mean = 0;
    let square = 0;
    density.forEach((chance, n) => {
      mean += chance * rates[n]!;
      square += chance * rates[n]! ** 2;
    });
    const chanceAtMost = (rate: number) => {
      if (rate < 0) return 0;
      let sum = 0;
      for (let n = 0; n < GRID_POINTS; n += 1) {
        const scale = slopeShare * rates[n]!;
        const share =
          scale > step / 4
            ? normalCdf((rate - rates[n]!) / scale)
            : // Each point of the grid stands for the cell around it.
              min(1, max(0, (rate - rates[n]!) / step + 0.5));
        sum += density[n]! * share;
      }
      return min(1, sum);
    };
    return {
      ratePsiPerMin: mean,
      standardUncertaintyPsiPerMin: hypot(sqrt(max(0, square - mean * mean)), slopeShare * mean),
      upperPsiPerMin: quantile(chanceAtMost, 0.95, 0, 2 * rates.at(-1)!),
      chanceAtMost,
    };
  }

  /** How fast the needle rises beyond what heat explains, psi/min; 0 where it does not. */
  rises(heat: Heat): number {
    const line = leakRate(this.marks)!;
    const lastS = this.timesS.at(-1)!;
    const explained = heatTimes.map(({ timeS }) => {
      const { meanPsi, sdPsi } = heat(timeS);
      const done = 1 - exp(-lastS / timeS);
      return { psi: meanPsi * done, sd: sdPsi * done };
    });
    const rise = (-line.ratePsiPerMin * lastS) / 60;
    const doubt = (line.standardUncertaintyPsiPerMin * lastS) / 60;
    return explained.every(({ psi, sd }) => rise + psi > RISES * hypot(doubt, sd))
      ? -line.ratePsiPerMin
      : 0;
  }
}
