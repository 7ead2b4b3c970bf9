import type { AirSystem } from '../equations/airSystem';
import type { LatchRole } from '../network/network';
import { Rodas } from './rodas';

/* Taken out of the global object once: where a lookup there is slow, loops as tight as these spend their time on it. */
const { abs, cbrt, max, min } = Math;

/*
 * Error allowed in one step, Pa: by how much of the rig's air a place holds. What is wrong in a short line is gone
 * a moment later; what is wrong in a tank stays, and is read from a gauge.
 */
const TANK_PA = 3.5;
const CHAMBER_PA = 40;
const LINE_PA = 500;
/** A dryer’s body stands a hair over the open air while it blows off: its blast would ring on with a line’s doubt, Pa. */
const BLOWS_OFF = 'dryer';
const BLOWN_PA = 20;
const HAND_PA = 1_000;
const TOLERANCE_K = 0.02;
const FIRST_STEP_S = 3e-3;
/** At the usual tolerance: what is read off between two steps is as true as their length to the third power. */
const LONGEST_STEP_S = 3;
/** A step this short that still fails means the equations, not the step, are wrong. */
const SHORTEST_STEP_S = 1e-9;
/** Errors of a step by which a curve between its ends may be wider than they are apart. */
const SLACK = 20;
/** A switching is placed to within this, s. */
const PLACED_WITHIN_S = 1e-4;

/** A moment of a run, kept to be gone back to. */
export interface SavedRun {
  scalars: readonly [number, number, number, number, number, number, number];
  /** State and rates at both ends of the step, and the state asked for last. */
  arrays: readonly Float64Array[];
  high: readonly boolean[];
  lowPa: readonly number[];
  highPa: readonly number[];
  due: readonly number[];
  told: readonly { latch: number; atS: number }[];
  events: readonly AirEvent[];
}

function refill<T>(list: T[], by: readonly T[]): void {
  list.length = 0;
  list.push(...by);
}

/** Something switched. */
export interface AirEvent {
  atS: number;
  /** Id of the latch, and what it is. */
  name: string;
  role: LatchRole;
  /** It went high, or low. */
  high: boolean;
}

/**
 * Runs an air system through time. The solver goes ahead in steps of its own; what is asked for in between is read
 * off the cubic through both ends of a step, and a hand that moves in between takes the run up from there.
 */
export class AirRun {
  /** What has switched so far, up to the moment asked for last. */
  readonly events: AirEvent[] = [];
  /** By latch. */
  readonly high: boolean[];
  /** By latch: its set points, Pa gauge, as they now are. */
  readonly lowPa: number[];
  readonly highPa: number[];
  steps = 0;
  rejected = 0;

  private nowS = 0;
  private fromS = 0;
  private toS = 0;
  private stepS = FIRST_STEP_S;
  private from: Float64Array;
  private to: Float64Array;
  private fromRates: Float64Array;
  private toRates: Float64Array;
  private readonly sampled: Float64Array;
  private readonly sampledRates: Float64Array;
  private readonly solver: Rodas;
  /** By place: how far from the line between a step's ends its curve may stray for no other reason. */
  private readonly slack: Float64Array;
  /** Latches that switch at `toS`. */
  private due: number[] = [];
  /** The system's flows are those of the moment asked for last. */
  private hasFlows = false;
  /** The solver has taken `to` in. */
  private isStarted = false;
  private readonly longestS: number;
  private errorBefore = 1;
  /** Latches that move no air: which, and when they switch in the step last made. */
  private told: { latch: number; atS: number }[] = [];
  private readonly isSilent: readonly boolean[];
  /** By latch: the node it feels, and another of which and the first the higher counts, or −1. */
  private readonly watched: Int32Array;
  private readonly orNode: Int32Array;

  /**
   * @param onSwitch told after a latch has switched, so that it can open and shut its ways
   */
  constructor(
    readonly system: AirSystem,
    state: Float64Array,
    private readonly onSwitch: (latch: number, high: boolean) => void,
    { tolerance = 1 }: { tolerance?: number } = {},
  ) {
    const { latches } = system.network;
    this.high = latches.map((latch) => latch.startsHigh);
    this.lowPa = latches.map((latch) => latch.lowPa);
    this.highPa = latches.map((latch) => latch.highPa);
    this.watched = Int32Array.from(latches, ({ node }) => node);
    this.orNode = Int32Array.from(latches, ({ orNode }) => orNode ?? -1);
    this.isSilent = latches.map(({ openHigh, openLow }) => openHigh.length + openLow.length === 0);
    this.longestS = LONGEST_STEP_S * cbrt(tolerance);
    const allowed = tolerances(system, tolerance);
    this.slack = allowed.map((each) => SLACK * each);
    this.solver = new Rodas(system, allowed);
    this.from = Float64Array.from(state);
    this.to = Float64Array.from(state);
    this.sampled = Float64Array.from(state);
    this.sampledRates = new Float64Array(system.size);
    this.fromRates = new Float64Array(system.size);
    this.toRates = new Float64Array(system.size);
    latches.forEach((_, i) => onSwitch(i, this.high[i]!));
    system.rates(this.to, this.toRates);
  }

  get timeS(): number {
    return this.nowS;
  }

  /** State at the moment asked for last: written over by the next one. */
  get state(): Float64Array {
    return this.sampled;
  }

  /** Flow through each element at the moment asked for last, kg/s from its first node to its second. */
  get flows(): Float64Array {
    // The solver is ahead of that moment; asked again, nothing is solved again.
    if (!this.hasFlows) this.system.rates(this.sampled, this.sampledRates);
    this.hasFlows = true;
    return this.system.flows;
  }

  /** Goes on to a moment. @throws RangeError where that is before the last one: air does not run backwards */
  advanceTo(toS: number): void {
    if (!(toS >= this.nowS))
      throw new RangeError(`The air stands at ${this.nowS} s and cannot go back to ${toS} s`);
    while (this.toS < toS) this.step();
    this.tell(toS);
    this.nowS = toS;
    this.hasFlows = false;
    this.sample(toS);
  }

  /** Says that a hand, or a fault, has changed the system at the moment asked for last. */
  changed(): void {
    this.from.set(this.sampled);
    this.to.set(this.sampled);
    this.fromS = this.nowS;
    this.toS = this.nowS;
    this.stepS = FIRST_STEP_S;
    this.due = [];
    this.told = [];
    this.isStarted = false;
    this.hasFlows = false;
    this.system.rates(this.to, this.toRates);
  }

  /** Everything that a run goes on from, to go back to. */
  save(): SavedRun {
    const { nowS, fromS, toS, stepS, errorBefore, steps, rejected } = this;
    return {
      scalars: [nowS, fromS, toS, stepS, errorBefore, steps, rejected],
      arrays: [this.from, this.to, this.fromRates, this.toRates, this.sampled].map((each) =>
        each.slice(),
      ),
      high: [...this.high],
      lowPa: [...this.lowPa],
      highPa: [...this.highPa],
      due: [...this.due],
      told: [...this.told],
      events: [...this.events],
    };
  }

  /** Goes back to a moment of this run, or of another of the same network. */
  restore({ scalars, arrays, high, lowPa, highPa, due, told, events }: SavedRun): void {
    [this.nowS, this.fromS, this.toS, this.stepS, this.errorBefore, this.steps, this.rejected] =
      scalars;
    [this.from, this.to, this.fromRates, this.toRates, this.sampled].forEach((each, i) =>
      each.set(arrays[i]!),
    );
    refill(this.high, high);
    refill(this.lowPa, lowPa);
    refill(this.highPa, highPa);
    refill(this.events, events);
    this.due = [...due];
    this.told = [...told];
    this.isStarted = false;
    this.hasFlows = false;
  }

  /** Puts a latch by hand. */
  put(latch: number, high: boolean): void {
    if (this.high[latch] === high) return;
    this.high[latch] = high;
    this.note(latch, this.nowS);
    this.onSwitch(latch, high);
    this.changed();
  }

  private step(): void {
    this.tell(this.toS);
    this.switchDue();
    [this.from, this.to] = [this.to, this.from];
    [this.fromRates, this.toRates] = [this.toRates, this.fromRates];
    this.fromS = this.toS;
    if (!this.isStarted) this.solver.start(this.from, this.fromRates);
    let h = min(this.stepS, this.longestS);
    let again = false;
    for (;;) {
      const error = this.tried(h);
      if (error <= 1) {
        const { at, latches } = this.firstSwitching(h);
        // Up to where something switches the step is made anew; a lucky long one may hide that a short one fails.
        const errorAt = latches.length > 0 && at < h ? this.tried(at) : error;
        if (errorAt <= 1) {
          const longer = Rodas.following(h, error, this.errorBefore);
          this.errorBefore = error;
          // What has just been too long is not tried again at once.
          this.stepS = latches.length > 0 ? FIRST_STEP_S : again ? min(h, longer) : longer;
          this.due = latches;
          this.seeSilent();
          break;
        }
        h = Rodas.shorter(at, errorAt);
      } else {
        h = Rodas.shorter(h, error);
      }
      this.rejected += 1;
      again = true;
      if (h < SHORTEST_STEP_S)
        throw new Error(`The air system cannot be followed past ${this.fromS} s`);
    }
    this.steps += 1;
  }

  /** Tries a step of `h`; where it is good enough, its end is taken. */
  private tried(h: number): number {
    const error = this.solver.attempt(this.from, this.fromRates, h);
    if (error <= 1) this.take(h);
    return error;
  }

  private take(h: number): void {
    this.to.set(this.solver.next);
    this.toS = this.fromS + h;
    // Where nothing switches the step stands, and the next one starts from its end.
    this.isStarted = !this.anySwitches();
    if (this.isStarted) this.solver.start(this.to, this.toRates);
    else this.system.rates(this.to, this.toRates);
  }

  /** Switches what came due at the end of the last step, and what stands on the wrong side already. */
  private switchDue(): void {
    const { latches } = this.system.network;
    let any = false;
    for (let i = 0; i < latches.length; i += 1) {
      if (!this.due.includes(i) && !this.isPast(i, this.to)) continue;
      const high = !this.high[i]!;
      this.high[i] = high;
      this.note(i, this.toS);
      this.onSwitch(i, high);
      any = true;
    }
    this.due = [];
    if (any) {
      this.stepS = FIRST_STEP_S;
      this.isStarted = false;
    }
  }

  /** Whether a latch that moves air is past its set point at the end of the step. */
  private anySwitches(): boolean {
    for (let i = 0; i < this.high.length; i += 1) {
      if (!this.isSilent[i] && this.isPast(i, this.to)) return true;
    }
    return false;
  }

  /** Notes when latches that move no air switch within the step just made: a lamp need not stop the solver. */
  private seeSilent(): void {
    for (let i = 0; i < this.high.length; i += 1) {
      if (!this.isSilent[i] || !this.isPast(i, this.to)) continue;
      this.told.push({ latch: i, atS: this.fromS + this.passing(i, this.toS - this.fromS) });
    }
    if (this.told.length > 1) this.told.sort((a, b) => a.atS - b.atS);
  }

  /** Switches the latches that move no air, up to a moment. */
  private tell(toS: number): void {
    for (let next = this.told[0]; next && next.atS <= toS; next = this.told[0]) {
      this.told.shift();
      const high = !this.high[next.latch]!;
      this.high[next.latch] = high;
      this.note(next.latch, next.atS);
    }
  }

  private isPast(latch: number, state: Float64Array): boolean {
    const or = this.orNode[latch]!;
    let felt = state[this.watched[latch]!]!;
    if (or >= 0 && state[or]! > felt) felt = state[or]!;
    felt -= this.system.outsidePa;
    return this.high[latch] ? felt < this.lowPa[latch]! : felt > this.highPa[latch]!;
  }

  /** When the first latches that move air switch within the step just made, counted from its start. */
  private firstSwitching(h: number): { at: number; latches: number[] } {
    let at = h;
    let found: number[] = [];
    for (let i = 0; i < this.high.length; i += 1) {
      if (this.isSilent[i] || !this.isPast(i, this.to)) continue;
      const after = this.passing(i, h);
      if (after < at - PLACED_WITHIN_S) {
        at = after;
        found = [i];
      } else if (after <= at + PLACED_WITHIN_S) {
        found.push(i);
      }
    }
    return { at, latches: found };
  }

  /** When a latch that is past at the end of a step of `h` passes its set point, from the step's start. */
  private passing(latch: number, h: number): number {
    const level = (this.high[latch] ? this.lowPa : this.highPa)[latch]!;
    let before = 0;
    let after = h;
    while (after - before > PLACED_WITHIN_S) {
      const middle = (before + after) / 2;
      const value = this.feltWithin(latch, middle / h, h);
      if (this.high[latch] ? value < level : value > level) after = middle;
      else before = middle;
    }
    return after;
  }

  /** What a latch feels at a share of the last step, Pa. */
  private feltWithin(latch: number, x: number, h: number): number {
    const or = this.orNode[latch]!;
    const felt = this.cubic(this.watched[latch]!, x, h);
    const higher = or < 0 ? felt : max(felt, this.cubic(or, x, h));
    return higher - this.system.outsidePa;
  }

  /**
   * Value of one place of the state at a share of the last step. A short line settles within a fraction of a step:
   * its slope at the start says nothing of the step's middle, and is held down so that the curve stays by its ends
   * (after Fritsch and Carlson, SIAM Journal on Numerical Analysis 17, 1980).
   */
  private cubic(i: number, x: number, h: number): number {
    const a = this.from[i]!;
    const b = this.to[i]!;
    const rise = b - a;
    const slack = this.slack[i]!;
    const slopeA = heldDown(h * this.fromRates[i]!, rise, slack);
    const slopeB = heldDown(h * this.toRates[i]!, rise, slack);
    const x2 = x * x;
    const x3 = x2 * x;
    const value =
      (2 * x3 - 3 * x2 + 1) * a +
      (x3 - 2 * x2 + x) * slopeA +
      (3 * x2 - 2 * x3) * b +
      (x3 - x2) * slopeB;
    // Whatever is drawn between two pressures is one that air can have.
    return max(value, 0.5 * min(a, b));
  }

  private sample(atS: number): void {
    const h = this.toS - this.fromS;
    if (h <= 0 || atS >= this.toS) {
      this.sampled.set(this.to);
      return;
    }
    const x = (atS - this.fromS) / h;
    for (let i = 0; i < this.sampled.length; i += 1) this.sampled[i] = this.cubic(i, x, h);
  }

  private note(latch: number, atS: number): void {
    const { id, role } = this.system.network.latches[latch]!;
    this.events.push({ atS, name: id, role, high: this.high[latch]! });
  }
}

/** A slope over a whole step, held down to what a curve that stays by its ends can have. */
function heldDown(slope: number, rise: number, slack: number): number {
  const most = (slope * rise > 0 ? 3 : 1) * abs(rise) + slack;
  return min(most, max(-most, slope));
}

function tolerances(system: AirSystem, share: number): Float64Array {
  const { nodes, followers } = system.network;
  const all = new Float64Array(system.size).fill(TOLERANCE_K * share);
  nodes.forEach((node, i) => {
    const allowed =
      node.wall !== null
        ? TANK_PA
        : node.strokeM3 > 0
          ? CHAMBER_PA
          : node.id === BLOWS_OFF
            ? BLOWN_PA
            : LINE_PA;
    all[i] = allowed * share;
  });
  followers.forEach((_, f) => (all[system.nodeCount + f] = HAND_PA * share));
  return all;
}
