import type { GaugeChannel, SentSample } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import {
  act,
  pump,
  RoutinePlayer,
  Twin,
  wait,
  type Routine,
  type RoutineStep,
} from '@keen-bleed/core/twin';
import type { SeededRandom } from '../random/seededRandom';

/** Ten readings a second. */
export const SAMPLE_MS = 100;
/** The set's own noise, psi, and the steps it sends in. */
const NOISE_PSI = 0.05;
const STEP_PSI = 0.05;
const FOUND_PSI = 82;
const FULL_PSI = 150;
/** Shares of readings that are lost, sent again, or held up. */
const LOST = 0.03;
const TWICE = 0.03;
const LATE = 0.05;
const LATE_BY_MS = 700;
/** Now and then nothing comes for a while: somebody stands in between. */
const GAP = 0.0008;
const GAP_MS = 2_500;
const BATTERY_FULL = 0.62;
const BATTERY_PER_HOUR = 0.08;

const places: Readonly<Record<GaugeChannel, string>> = {
  primary: 'primary tank',
  secondary: 'secondary tank',
  supply: 'supply tank',
};

const governor = (high: boolean): RoutineStep => ({
  step: 'until',
  until: { latch: 'governor', high },
  mostS: 900,
});
/** Down for two seconds and up for two. */
const fan = (until: Extract<RoutineStep, { step: 'repeat' }>['until']): RoutineStep => ({
  step: 'repeat',
  steps: pump(FULL_PSI, 2, 2),
  until,
  most: 100,
});

/** A test as somebody in the cab does it: each part goes on until what it waits for has happened. */
const test: Routine = [
  act({ kind: 'engine', rpm: 2100 }, { kind: 'park', isIn: true }),
  wait(3),
  act({ kind: 'trailer', isIn: true }),
  governor(true),
  // The needle is left to stand where the climb stopped.
  wait(20),
  act({ kind: 'engine', rpm: 650 }),
  fan({ latch: 'governor', high: false }),
  wait(15),
  act({ kind: 'engine', rpm: 2100 }),
  governor(true),
  wait(12),
  act({ kind: 'engine', rpm: 0 }),
  wait(110),
  act({ kind: 'pedal', psi: FULL_PSI }),
  wait(100),
  act({ kind: 'pedal', psi: 0 }),
  fan({ needle: 'primary tank', under: 18 }),
  wait(15),
  act({ kind: 'engine', rpm: 2100 }),
];

/**
 * A made-up wireless gauge set on a made-up rig that somebody runs through a test: built up to cut-out, fanned to
 * cut-in, held released and applied, fanned down past the warning and the pop-out, and built up again.
 */
export class GaugeSet {
  private readonly twin: Twin;
  private readonly player: RoutinePlayer;
  private readonly channels: readonly GaugeChannel[];
  private readonly seq = new Map<GaugeChannel, number>();
  private held: { due: number; sample: SentSample }[] = [];
  private nextMs: number;
  private silentUntilMs = 0;

  constructor(
    rig: RigUnderTest,
    private readonly startedMs: number,
    private readonly random: SeededRandom,
  ) {
    this.twin = new Twin(rig, { tanksPsi: FOUND_PSI });
    this.player = new RoutinePlayer(this.twin, test);
    this.channels = (['primary', 'secondary', 'supply'] as const).filter((channel) =>
      this.twin.hasPlace(places[channel]),
    );
    this.nextMs = startedMs;
  }

  /** What the set sends up to a moment, in the order it is sent. */
  samplesTo(nowMs: number): SentSample[] {
    const sent: SentSample[] = [];
    while (this.nextMs <= nowMs) {
      const atMs = this.nextMs;
      this.nextMs += SAMPLE_MS;
      this.player.advanceTo((atMs - this.startedMs) / 1000);
      if (this.random.next() < GAP) this.silentUntilMs = atMs + GAP_MS;
      for (const channel of this.channels) {
        const seq = (this.seq.get(channel) ?? 0) + 1;
        this.seq.set(channel, seq);
        if (atMs < this.silentUntilMs || this.random.next() < LOST) continue;
        const psi = this.twin.psi(places[channel]) + NOISE_PSI * this.random.normal();
        const sample: SentSample = {
          channel,
          seq,
          atMs,
          sentAtMs: atMs,
          psi: Math.max(0, Math.round(psi / STEP_PSI) * STEP_PSI),
          battery: Math.max(
            0,
            BATTERY_FULL - ((atMs - this.startedMs) / 3_600_000) * BATTERY_PER_HOUR,
          ),
        };
        if (this.random.next() < LATE) {
          this.held.push({ due: atMs + LATE_BY_MS, sample });
          continue;
        }
        sent.push(sample);
        if (this.random.next() < TWICE) sent.push(sample);
      }
      const due = this.held.filter((each) => each.due <= atMs);
      this.held = this.held.filter((each) => each.due > atMs);
      sent.push(...due.map(({ sample }) => ({ ...sample, sentAtMs: atMs })));
    }
    return sent;
  }
}
