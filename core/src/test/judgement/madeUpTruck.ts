import type { SeededNumbers } from '../seededNumbers';

/*
 * A truck's air and a reader of its gauge for measuring verdicts: richer than what the verdicts reckon with, and not
 * the twin. A tank is mass and heat with a steel wall whose film grows with the temperature difference; the dial bends
 * and sticks; the eye scatters, the thumb is late, and one reading in fifty is a slip.
 */

const R = 287;
const CP = 1005;
const CV = 718;
const GAMMA = 1.4;
const PSI = 6_895;
const ATM = 101_325;
const AMBIENT_K = 293;

/** What differs from one made-up truck and reader to the next. */
export interface TruckDraw {
  /** Seconds for air 10 K too warm at 9 bar. */
  filmS: number;
  wallJPerKPerL: number;
  /** Air from the compressor over outside, K. */
  inletOverK: number;
  startPsi: number;
  /** What the dial shows too much at 20 and at 125 psi, psi. */
  dial: readonly [number, number];
  /** A needle moves when it is off by so much, psi. */
  stickPsi: number;
  eyePsi: number;
  lateS: readonly [number, number];
  slips: number;
}

/** @param dialPsi what the dial may be off by */
export function drawTruck(random: SeededNumbers, dialPsi = 8.75): TruckDraw {
  const even = random.between;
  return {
    filmS: even(20, 45),
    wallJPerKPerL: even(150, 260),
    inletOverK: even(0, 25),
    startPsi: even(60, 75),
    dial: [even(-dialPsi, dialPsi), even(-dialPsi, dialPsi)],
    stickPsi: even(0.25, 0.5),
    eyePsi: even(0.3, 1),
    lateS: [0.2, 0.6],
    slips: 0.02,
  };
}

/** One tank, its wall, and the needle that shows it. */
export class MadeUpTruck {
  atS = 0;
  /** How far the other tank stands over this one, psi. */
  otherOverPsi = 0;
  private readonly litres = 34.4;
  private massKg: number;
  private airK: number;
  private wallK = AMBIENT_K;
  private needle: number;
  private slipped = false;

  constructor(
    readonly draw: TruckDraw,
    readonly random: SeededNumbers,
  ) {
    this.airK = AMBIENT_K - random.between(0, 6);
    this.massKg = ((draw.startPsi * PSI + ATM) * this.volume) / (R * this.airK);
    this.needle = this.shown;
  }

  get psi(): number {
    return ((this.massKg * R * this.airK) / this.volume - ATM) / PSI;
  }

  /** Where the needle stands. */
  get needlePsi(): number {
    return this.needle;
  }

  /**
   * Lets time pass.
   *
   * @param fillPsiPerS what the compressor puts in
   * @param leakPsiPerMin what leaks at this pressure, as a fall at one temperature
   */
  pass(seconds: number, { fillPsiPerS = 0, leakPsiPerMin = 0 } = {}): void {
    const steps = Math.max(1, Math.ceil(seconds / 0.1));
    const dt = seconds / steps;
    for (let n = 0; n < steps; n += 1) this.step(dt, fillPsiPerS, leakPsiPerMin);
    this.atS += seconds;
  }

  /** Lets air out at a stroke: so many psi once it is as warm again. */
  letOut(psi: number): void {
    const share = (psi * PSI) / (this.psi * PSI + ATM);
    this.massKg *= 1 - share;
    this.airK *= (1 - share) ** (GAMMA - 1);
    this.stick();
  }

  /** What somebody reads, to half a division of 2 psi. */
  read(): number {
    const { draw, random } = this;
    this.slipped = random.between(0, 1) < draw.slips;
    const slip = this.slipped
      ? (random.between(0, 1) < 0.5 ? -1 : 1) * [2, 4, 10][Math.floor(random.between(0, 3))]!
      : 0;
    return Math.max(0, Math.round(this.needle + draw.eyePsi * random.normal()) + slip);
  }

  /** What somebody reads of the other tank's needle, whose dial is off in its own way. */
  readOther(otherDialPsi: number): number {
    const { draw, random } = this;
    return Math.max(
      0,
      Math.round(this.psi + this.otherOverPsi + otherDialPsi + draw.eyePsi * random.normal()),
    );
  }

  /** How late a thumb comes, s. */
  late(): number {
    return this.random.between(...this.draw.lateS);
  }

  private get volume(): number {
    return this.litres / 1000;
  }

  /** What the dial shows at a pressure, with nothing of the needle's sticking. */
  shows(psi: number): number {
    const [low, high] = this.draw.dial;
    return Math.max(0, psi + low + ((high - low) * (Math.min(psi, 125) - 20)) / 105);
  }

  private get shown(): number {
    return this.shows(this.psi);
  }

  private step(dt: number, fillPsiPerS: number, leakPsiPerMin: number): void {
    const { draw } = this;
    const inKg = ((fillPsiPerS * PSI * this.volume) / (GAMMA * R * AMBIENT_K)) * GAMMA * dt;
    const outKg = (((leakPsiPerMin / 60) * PSI * this.volume) / (R * AMBIENT_K)) * dt;
    const over = this.airK - this.wallK;
    const usualKg = (9e5 * this.volume) / (R * AMBIENT_K);
    const conductance =
      ((usualKg * CV) / draw.filmS) *
      Math.max(0.3, Math.abs(over) / 10) ** (1 / 3) *
      (this.massKg / usualKg) ** (2 / 3);
    const heat = conductance * over * dt;
    const energy =
      this.massKg * CV * this.airK +
      inKg * CP * (AMBIENT_K + draw.inletOverK) -
      outKg * CP * this.airK -
      heat;
    this.massKg += inKg - outKg;
    this.airK = energy / (this.massKg * CV);
    const wall = draw.wallJPerKPerL * this.litres;
    this.wallK += (heat - 4 * (this.wallK - AMBIENT_K) * dt) / wall;
    this.stick();
  }

  private stick(): void {
    const off = this.shown - this.needle;
    const { stickPsi } = this.draw;
    if (Math.abs(off) > stickPsi) this.needle += off - Math.sign(off) * stickPsi;
  }
}
