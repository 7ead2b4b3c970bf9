import type { AirSystem } from '../equations/airSystem';
import type { Factors } from '../algebra/sparseLu';

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { max, min, sqrt } = Math;

/*
 * RODAS3, a stiffly accurate Rosenbrock method of order 3 with an embedded one of order 2
 * (Sandu, Verwer, Blom, Spee, Carmichael and Potra, Atmospheric Environment 31, 1997; coefficients from memory,
 * the order is measured in a test).
 */
const GAMMA = 0.5;
const SAFETY = 0.9;
const MOST_GROWTH = 4;
const LEAST_GROWTH = 0.2;
/*
 * After a good step the next one is set by its error and by the error before (a PI controller, after Gustafsson,
 * ACM Transactions on Mathematical Software 17, 1991): where valves begin to open, fewer steps turn out too long.
 */
const BY_ERROR = 0.3;
const BY_ERROR_BEFORE = 0.1;
/** An error smaller than this says nothing about the next one. */
const LEAST_ERROR = 0.01;

/** Steps an air system forwards; its own arrays are written over by each attempt. */
export class Rodas {
  /** State at the end of the last attempt. */
  readonly next: Float64Array;
  private readonly perTolerance: Float64Array;
  private readonly k1: Float64Array;
  private readonly k2: Float64Array;
  private readonly k3: Float64Array;
  private readonly k4: Float64Array;
  private readonly stage: Float64Array;
  private readonly rate: Float64Array;
  private matrix = new Float64Array(0);
  /** Derivatives of the rates, all with their sign turned. */
  private jacobian = new Float64Array(0);
  private factors: Factors;

  /**
   * @param tolerance error allowed in each place of the state in one step
   */
  constructor(
    private readonly system: AirSystem,
    tolerance: Float64Array,
  ) {
    const { size } = system;
    this.perTolerance = tolerance.map((each) => 1 / each);
    this.next = new Float64Array(size);
    this.k1 = new Float64Array(size);
    this.k2 = new Float64Array(size);
    this.k3 = new Float64Array(size);
    this.k4 = new Float64Array(size);
    this.stage = new Float64Array(size);
    this.rate = new Float64Array(size);
    this.factors = system.lu.newFactors();
  }

  /** Takes the state in from which the next attempts start; leaves its rates in `rates`. */
  start(state: Float64Array, rates: Float64Array): void {
    const length = this.system.lu.slots + 1;
    if (this.jacobian.length !== length) {
      this.jacobian = new Float64Array(length);
      this.matrix = new Float64Array(length);
      this.factors = this.system.lu.newFactors();
    }
    const { jacobian } = this;
    this.system.linearise(state, rates, jacobian);
    for (let i = 0; i < length; i += 1) jacobian[i] = -jacobian[i]!;
  }

  /**
   * Tries a step of `h` seconds from the state started from, whose rates are `rates`; the end is in `next`.
   *
   * @returns the error against the tolerance: over 1 the step must be tried again, shorter
   */
  attempt(state: Float64Array, rates: Float64Array, h: number): number {
    const { system, k1, k2, k3, k4, stage, rate, matrix, next, jacobian, perTolerance } = this;
    const { factors } = this;
    const { size, lu } = system;
    // I/(hγ) − J, of which −J is at hand; the diagonal has the first slots.
    const diagonal = 1 / (h * GAMMA);
    matrix.set(jacobian);
    for (let i = 0; i < size; i += 1) matrix[i] = matrix[i]! + diagonal;
    lu.factorise(matrix, factors);
    const c = 1 / h;
    k1.set(rates);
    lu.solve(factors, k1);
    for (let i = 0; i < size; i += 1) {
      k2[i] = rates[i]! + 4 * c * k1[i]!;
      stage[i] = state[i]! + 2 * k1[i]!;
    }
    lu.solve(factors, k2);
    system.rates(stage, rate);
    for (let i = 0; i < size; i += 1) {
      k3[i] = rate[i]! + c * (k1[i]! - k2[i]!);
    }
    lu.solve(factors, k3);
    for (let i = 0; i < size; i += 1) stage[i] = stage[i]! + k3[i]!;
    system.rates(stage, rate);
    for (let i = 0; i < size; i += 1) {
      k4[i] = rate[i]! + c * (k1[i]! - k2[i]! - (8 / 3) * k3[i]!);
    }
    lu.solve(factors, k4);
    let sum = 0;
    for (let i = 0; i < size; i += 1) {
      const error = k4[i]!;
      next[i] = stage[i]! + error;
      const share = error * perTolerance[i]!;
      sum += share * share;
    }
    return system.holds(next) ? sqrt(sum / size) : Infinity;
  }

  /** The step to try next after one of `h` that came out too long, with `error`. */
  static shorter(h: number, error: number): number {
    if (!Number.isFinite(error)) return h * LEAST_GROWTH;
    return h * max(LEAST_GROWTH, SAFETY * (1 / error) ** (1 / 3));
  }

  /** The step to try next after a good one of `h` with `error`, the good one before it having had `before`. */
  static following(h: number, error: number, before: number): number {
    const growth =
      SAFETY * max(error, 1e-6) ** -BY_ERROR * max(before, LEAST_ERROR) ** BY_ERROR_BEFORE;
    return h * min(MOST_GROWTH, max(LEAST_GROWTH, growth));
  }
}
