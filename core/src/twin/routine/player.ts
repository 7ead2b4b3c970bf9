import { needlePsi } from '../senses/seenGauge';
import { outflowScfm } from '../senses/freeAir';
import type { Twin } from '../twin';
import { actOn } from './act';
import { exactReader, lateness, readingOf, type Reader } from './reader';
import type { Routine, RoutineStep, Sight, Sighting, Until } from './routine';

/** How often somebody who waits looks, s. */
const LOOKS_EVERY_S = 0.05;

/** A needle as it stands, and since when. */
interface Needle {
  psi: number;
  atS: number;
}

/** What the routine waits for: a moment, or something that comes before it. */
interface Wait {
  untilS: number;
  until: Until | null;
}

/**
 * Plays a routine on a twin: does what is to be done, and gives what somebody with this gauge and this eye would have
 * written down. The one way in which a rig is run by the book, whoever asks.
 */
export class RoutinePlayer {
  readonly sightings: Sighting[] = [];
  private readonly startS: number;
  private readonly needles = new Map<string, Needle>();
  private readonly steps: Iterator<Wait, void>;
  private waiting: Wait | null = null;
  private isOver = false;

  constructor(
    readonly twin: Twin,
    routine: Routine,
    private readonly reader: Reader = exactReader,
  ) {
    this.startS = twin.timeS;
    this.steps = this.play(routine);
    this.next();
  }

  /** Nothing more is to be done. */
  get done(): boolean {
    return this.isOver;
  }

  /** Goes on to a moment of the twin's time, doing on the way what falls due. */
  advanceTo(toS: number): void {
    while (this.waiting) {
      const { untilS, until } = this.waiting;
      const lastS = Math.min(toS, untilS);
      if (until) this.watch(until, lastS);
      else if (lastS > this.twin.timeS) this.twin.advanceTo(lastS);
      const came = until !== null && this.holds(until);
      if (!came && this.twin.timeS < untilS) break;
      this.next();
    }
    if (this.twin.timeS < toS) this.twin.advanceTo(toS);
  }

  /** Plays to the end. */
  finish(): Sighting[] {
    while (this.waiting) this.advanceTo(this.waiting.untilS);
    return this.sightings;
  }

  private next(): void {
    const { done, value } = this.steps.next();
    this.waiting = done ? null : value;
    this.isOver = done ?? false;
  }

  private *play(steps: Routine): Generator<Wait, void> {
    for (const step of steps) yield* this.playStep(step);
  }

  private *playStep(step: RoutineStep): Generator<Wait, void> {
    const { twin } = this;
    switch (step.step) {
      case 'act':
        for (const act of step.acts) actOn(twin, act);
        break;
      case 'wait':
        yield { untilS: twin.timeS + step.s, until: null };
        break;
      case 'at':
        yield { untilS: this.startS + step.s, until: null };
        break;
      case 'until':
        if (!this.holds(step.until)) yield { untilS: twin.timeS + step.mostS, until: step.until };
        break;
      case 'see': {
        const late = lateness(this.reader);
        if (late > 0) yield { untilS: twin.timeS + late, until: null };
        for (const sight of step.sees) this.see(sight);
        break;
      }
      case 'repeat':
        for (let n = 0; n < step.most && !this.holds(step.until); n += 1) {
          yield* this.play(step.steps);
        }
        break;
    }
  }

  /** Looks again and again until something comes, or to a moment. */
  private watch(until: Until, toS: number): void {
    const { twin } = this;
    while (!this.holds(until) && twin.timeS < toS) {
      twin.advanceTo(Math.min(toS, twin.timeS + LOOKS_EVERY_S));
    }
  }

  private holds(until: Until): boolean {
    if ('latch' in until) return this.twin.isHigh(until.latch) === until.high;
    if ('some' in until) return this.isSome(until.some, until.high);
    const psi = this.needleAt(until.needle);
    return 'over' in until ? psi >= until.over : psi < until.under;
  }

  private isSome(role: Extract<Until, { some: unknown }>['some'], high: boolean): boolean {
    const { latches } = this.twin.system.network;
    return latches.some((latch, i) => latch.role === role && this.twin.run.high[i] === high);
  }

  private see(sight: Sight): void {
    const { twin } = this;
    const note = (value: number) =>
      this.sightings.push({ key: sight.key, atS: twin.timeS - this.startS, value });
    switch (sight.sees) {
      case 'needle':
        note(readingOf(this.reader, this.needleAt(sight.place)));
        break;
      case 'clock':
        note(twin.timeS - this.startS);
        break;
      case 'some':
        note(this.isSome(sight.role, true) ? 1 : 0);
        break;
      case 'exhaust':
        note(outflowScfm(twin, sight.way));
        break;
    }
  }

  /** Where the needle of a place stands now, psi. */
  private needleAt(place: string): number {
    const { dampingS, stickPsi, errorPsi } = this.reader;
    const { timeS } = this.twin;
    const truePsi = this.twin.psi(place);
    const before = this.needles.get(place);
    const seen = { errorPsi: errorPsi(place), dampingS: Math.max(1e-6, dampingS), tremblePsi: 0 };
    const follows = needlePsi(
      seen,
      before?.psi ?? truePsi + seen.errorPsi,
      truePsi,
      before ? timeS - before.atS : Infinity,
    );
    // A pivot lets go once it is pulled by more than it holds back.
    const psi = before && Math.abs(follows - before.psi) < stickPsi ? before.psi : follows;
    this.needles.set(place, { psi, atS: psi === before?.psi ? before.atS : timeS });
    return psi;
  }
}

/** Plays a routine to its end, and gives what was seen by key; the last where a key comes more than once. */
export function played(
  twin: Twin,
  routine: Routine,
  reader: Reader = exactReader,
): ReadonlyMap<string, number> {
  const sightings = new RoutinePlayer(twin, routine, reader).finish();
  return new Map(sightings.map(({ key, value }) => [key, value]));
}
