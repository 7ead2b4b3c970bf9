import { normalCdf } from '../statistics/normal';
import { crossingUncertaintyPsi, LINE_SHARE_OF_HALF_DIVISION } from '../gauge/uncertainty';
import { readingUncertaintyPsi } from '../gauge/uncertainty';
import { leakRate, type HoldMark, type LeakRate } from './leakRate';

/** A stretch at the end of a hold in which the needle reached no line: it stayed between two of them. */
export interface QuietEnd {
  untilMs: number;
  /** The next line down, which was not reached. */
  belowPsi: number;
  /** The next line up, which was not reached either. */
  abovePsi: number;
}

/** A first fall that dies away: air that cools after the build-up, or the pedal's first drop. */
export interface Settling {
  /** How much of the fall it was, psi. */
  dropPsi: number;
  /** When, from the first mark, less than {@link SETTLED_PSI_PER_MIN} of it was left, s. */
  settledAfterS: number;
}

/** What a hold says of the leak, with the shape of its doubt. */
export interface LeakEstimate extends LeakRate {
  /** The rate is this or less, 95 times in 100, psi/min. */
  upperPsiPerMin: number;
  /** What an inspector writes: the fall from the first reading to the last over the time watched, psi/min. */
  readPsiPerMin: number;
  /** Only an upper bound is known: no mark after the first. */
  onlyBounded: boolean;
  settling: Settling | null;
  /** Chance that the true rate is at most this, psi/min. */
  chanceAtMost: (ratePsiPerMin: number) => number;
}

/** A fall slower than this counts as settled, psi/min. House value. */
const SETTLED_PSI_PER_MIN = 0.2;
/** Marks from which a bend can be told from a straight fall. */
const MARKS_FOR_A_BEND = 4;
/** How likely a bend must be before it is taken for one. House value. */
const SURE_OF_A_BEND = 0.9;
/** Chance, before any mark, that a hold begins unsettled; and how large the drop then is, psi. House values. */
const BEND_PRIOR = 0.3;
const DROP_SCALE_PSI = 3;
const DROPS_PSI = Array.from({ length: 16 }, (_, n) => (n + 1) / 2);
const TIMES_S = [6, 12, 25, 50];
const GRID_POINTS = 161;
/** Reach of the grid on either side, in standard uncertainties. */
const GRID_REACH = 7;

interface Shape {
  dropPsi: number;
  timeS: number;
  prior: number;
}

const STRAIGHT: Shape = { dropPsi: 0, timeS: 1, prior: 1 - BEND_PRIOR };

const bends: readonly Shape[] = (() => {
  const raw = DROPS_PSI.flatMap((dropPsi) =>
    TIMES_S.map((timeS) => ({ dropPsi, timeS, prior: Math.exp(-dropPsi / DROP_SCALE_PSI) })),
  );
  const sum = raw.reduce((total, each) => total + each.prior, 0);
  return raw.map((each) => ({ ...each, prior: (BEND_PRIOR * each.prior) / sum }));
})();

/**
 * Leak rate from everything a hold says: readings to the half division, taps as lines were crossed, and the
 * stretch at its end in which no line was reached, which is used as what it is: a pair of bounds, not a
 * reading. With marks enough, a first fall that dies away is told from the steady leak by weighing a straight
 * fall against bent ones (posterior odds over a grid of drops and times).
 *
 * @param marks in any order
 * @param quiet the watched end without a crossing, or null where the last mark ended the hold
 * @returns null where nothing can be said: no mark, or one mark and no time watched
 */
export function leakEstimate(
  marks: readonly HoldMark[],
  quiet: QuietEnd | null,
): LeakEstimate | null {
  const ordered = [...marks].sort((a, b) => a.atMs - b.atMs);
  const first = ordered[0];
  const last = ordered.at(-1);
  if (!first || !last) return null;
  const line = leakRate(ordered);
  const watched = quiet && quiet.untilMs > last.atMs ? quiet : null;
  if (!line && !watched) return null;
  const endMs = watched?.untilMs ?? last.atMs;
  const readPsiPerMin = ((first.readingPsi - last.readingPsi) / (endMs - first.atMs)) * 60_000 + 0;
  const base = {
    readPsiPerMin,
    spanS: (endMs - first.atMs) / 1000,
    meanPsi: line?.meanPsi ?? first.readingPsi,
  };
  const mayBend = ordered.length >= MARKS_FOR_A_BEND;
  if (line && !watched && !mayBend) return { ...base, ...plain(line) };

  const fitted = new Fit(ordered, watched, line);
  const straight = fitted.weigh(STRAIGHT);
  const bent = mayBend ? bends.map((shape) => fitted.weigh(shape)) : [];
  const bentEvidence = bent.reduce((sum, each) => sum + each.evidence, 0);
  const isBent = bentEvidence > SURE_OF_A_BEND * (bentEvidence + straight.evidence);
  if (!isBent && line && !watched) return { ...base, ...plain(line) };
  const density = fitted.mix(isBent ? bent : [straight]);
  return {
    ...base,
    ...summary(fitted.rates, density),
    onlyBounded: !line,
    settling: isBent ? settlingOf(bent, bentEvidence) : null,
  };
}

function plain(line: LeakRate): Omit<LeakEstimate, 'readPsiPerMin' | 'spanS' | 'meanPsi'> {
  const { ratePsiPerMin, standardUncertaintyPsiPerMin } = line;
  return {
    ratePsiPerMin,
    standardUncertaintyPsiPerMin,
    upperPsiPerMin: ratePsiPerMin + 1.645 * standardUncertaintyPsiPerMin,
    onlyBounded: false,
    settling: null,
    chanceAtMost: (rate) => normalCdf((rate - ratePsiPerMin) / standardUncertaintyPsiPerMin),
  };
}

interface Weighed {
  shape: Shape;
  /** Not normalised, over the grid of rates. */
  density: Float64Array;
  evidence: number;
}

/** The marks of one hold, ready to be weighed against any shape of fall over one grid of rates. */
class Fit {
  readonly rates: Float64Array;
  private readonly timesS: number[];
  private readonly roughPsiPerS: number;

  constructor(
    private readonly marks: readonly HoldMark[],
    private readonly quiet: QuietEnd | null,
    line: LeakRate | null,
  ) {
    const startMs = marks[0]?.atMs ?? 0;
    this.timesS = marks.map((mark) => (mark.atMs - startMs) / 1000);
    this.roughPsiPerS = Math.abs(line?.ratePsiPerMin ?? 0) / 60;
    const [low, high] = line ? this.reachOf(line) : this.reachOfBound();
    this.rates = Float64Array.from(
      { length: GRID_POINTS },
      (_, n) => low + ((high - low) * n) / (GRID_POINTS - 1),
    );
  }

  private reachOf(line: LeakRate): [number, number] {
    const reach = GRID_REACH * line.standardUncertaintyPsiPerMin;
    const spanS = this.timesS.at(-1) ?? 1;
    const mostBent =
      this.marks.length >= MARKS_FOR_A_BEND ? ((DROPS_PSI.at(-1) ?? 0) * 60) / spanS : 0;
    // A bend takes part of the fall away from the leak; what is left is not below a small rise.
    const low = Math.max(line.ratePsiPerMin - mostBent, Math.min(0, line.ratePsiPerMin)) - reach;
    return [low, line.ratePsiPerMin + reach];
  }

  /** With one mark alone: from no leak, as no air comes in, to one that would have reached the line below. */
  private reachOfBound(): [number, number] {
    const { quiet } = this;
    const mark = this.marks[0];
    if (!quiet || !mark) return [0, 1];
    const room =
      mark.readingPsi - quiet.belowPsi + GRID_REACH * readingUncertaintyPsi(mark.resolutionPsi);
    return [0, (room * 60_000) / (quiet.untilMs - mark.atMs)];
  }

  /** How well a shape explains the marks, for each rate; the starting pressure is integrated out. */
  weigh(shape: Shape): Weighed {
    const { dropPsi, timeS } = shape;
    const fallen = (atS: number) => dropPsi * (1 - Math.exp(-atS / timeS));
    let w = 0;
    let wa = 0;
    let wb = 0;
    let waa = 0;
    let wab = 0;
    let wbb = 0;
    let logScale = 0;
    const origin = this.marks[0]?.readingPsi ?? 0;
    this.marks.forEach((mark, index) => {
      const atS = this.timesS[index] ?? 0;
      const slope = this.roughPsiPerS + (dropPsi / timeS) * Math.exp(-atS / timeS);
      const u =
        mark.method === 'crossing'
          ? crossingUncertaintyPsi(mark.resolutionPsi, slope)
          : readingUncertaintyPsi(mark.resolutionPsi);
      const weight = 1 / u ** 2;
      const a = mark.readingPsi - origin + fallen(atS);
      const b = atS / 60;
      logScale -= Math.log(u);
      w += weight;
      wa += weight * a;
      wb += weight * b;
      waa += weight * a * a;
      wab += weight * a * b;
      wbb += weight * b * b;
    });
    const saa = waa - (wa * wa) / w;
    const sab = wab - (wa * wb) / w;
    const sbb = wbb - (wb * wb) / w;
    const quiet = this.quietOf(w, fallen, origin);
    const density = this.rates.map((rate) => {
      const chi2 = saa + 2 * rate * sab + rate * rate * sbb;
      const startPsi = (wa + rate * wb) / w;
      return (
        Math.exp(logScale - 0.5 * Math.log(w) - chi2 / 2) * quiet(startPsi, rate) * shape.prior
      );
    });
    return { shape, density, evidence: density.reduce((sum, each) => sum + each, 0) };
  }

  /** Chance that the needle stayed between its two lines to the end, as a function of start and rate. */
  private quietOf(
    w: number,
    fallen: (atS: number) => number,
    origin: number,
  ): (startPsi: number, rate: number) => number {
    const { quiet } = this;
    const mark = this.marks[0];
    if (!quiet || !mark) return () => 1;
    const atS = (quiet.untilMs - mark.atMs) / 1000;
    const doubt = Math.hypot(1 / Math.sqrt(w), LINE_SHARE_OF_HALF_DIVISION * mark.resolutionPsi);
    const below = quiet.belowPsi - origin;
    const above = quiet.abovePsi - origin;
    return (startPsi, rate) => {
      const endPsi = startPsi - fallen(atS) - (rate * atS) / 60;
      return normalCdf((endPsi - below) / doubt) - normalCdf((endPsi - above) / doubt);
    };
  }

  /** The densities of several shapes together, normalised to a sum of one. */
  mix(weighed: readonly Weighed[]): Float64Array {
    const sum = new Float64Array(GRID_POINTS);
    for (const { density } of weighed)
      density.forEach((value, at) => (sum[at] = (sum[at] ?? 0) + value));
    const total = sum.reduce((all, each) => all + each, 0);
    return sum.map((value) => value / total);
  }
}

function summary(
  rates: Float64Array,
  density: Float64Array,
): Pick<
  LeakEstimate,
  'ratePsiPerMin' | 'standardUncertaintyPsiPerMin' | 'upperPsiPerMin' | 'chanceAtMost'
> {
  let mean = 0;
  let square = 0;
  density.forEach((chance, at) => {
    const rate = rates[at] ?? 0;
    mean += chance * rate;
    square += chance * rate * rate;
  });
  const stepPsiPerMin = (rates[1] ?? 1) - (rates[0] ?? 0);
  const chanceAtMost = (rate: number) => {
    let sum = 0;
    for (let at = 0; at < density.length; at += 1) {
      // Each point of the grid stands for the cell around it.
      const share = (rate - (rates[at] ?? 0)) / stepPsiPerMin + 0.5;
      if (share <= 0) break;
      sum += (density[at] ?? 0) * Math.min(1, share);
    }
    return Math.min(1, sum);
  };
  let upper = rates.at(-1) ?? mean;
  let sum = 0;
  for (let at = 0; at < density.length; at += 1) {
    sum += density[at] ?? 0;
    if (sum >= 0.95) {
      upper = rates[at] ?? mean;
      break;
    }
  }
  return {
    ratePsiPerMin: mean,
    standardUncertaintyPsiPerMin: Math.sqrt(Math.max(0, square - mean * mean)),
    upperPsiPerMin: upper,
    chanceAtMost,
  };
}

function settlingOf(bent: readonly Weighed[], evidence: number): Settling {
  let dropPsi = 0;
  let settledAfterS = 0;
  for (const { shape, evidence: share } of bent) {
    const startRate = (60 * shape.dropPsi) / shape.timeS;
    dropPsi += (share / evidence) * shape.dropPsi;
    settledAfterS +=
      (share / evidence) * shape.timeS * Math.max(0, Math.log(startRate / SETTLED_PSI_PER_MIN));
  }
  return { dropPsi, settledAfterS };
}
