import type { GaugeChannel, SentSample } from '@keen-bleed/contract';
import type { RigUnderTest } from '@keen-bleed/core';
import { Twin } from '@keen-bleed/core/twin';
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

/**
 * A made-up wireless gauge set on a made-up rig that somebody runs through a test: built up to cut-out, fanned to
 * cut-in, held released and applied, fanned down past the warning and the pop-out, and built up again.
 */
export class GaugeSet {
  private readonly twin: Twin;
  private readonly channels: readonly GaugeChannel[];
  private readonly seq = new Map<GaugeChannel, number>();
  private held: { due: number; sample: SentSample }[] = [];
  private nextMs: number;
  private silentUntilMs = 0;
  private phase = 0;
  private phaseFromS = 0;

  constructor(
    rig: RigUnderTest,
    private readonly startedMs: number,
    private readonly random: SeededRandom,
  ) {
    this.twin = new Twin(rig, { tanksPsi: FOUND_PSI });
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
      this.twin.advanceTo((atMs - this.startedMs) / 1000);
      this.drive();
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

  /** The hand and foot in the cab: each phase goes on until what it waits for has happened. */
  private drive(): void {
    const { twin } = this;
    const forS = twin.timeS - this.phaseFromS;
    const next = () => {
      this.phase += 1;
      this.phaseFromS = twin.timeS;
    };
    /** Down for two seconds and up for two. */
    const fan = () => twin.ask('pedal', forS % 4 < 2 ? FULL_PSI : 0);
    switch (this.phase) {
      case 0:
        twin.engine(2100);
        twin.dash('park valve', true);
        next();
        break;
      case 1:
        if (forS > 3) {
          twin.dash('trailer supply valve', true);
          next();
        }
        break;
      case 2:
      case 6:
        // The needle is left to stand where the climb stopped.
        if (twin.isHigh('governor')) next();
        break;
      case 3:
        if (forS > 20) {
          twin.engine(650);
          next();
        }
        break;
      case 4:
        fan();
        if (!twin.isHigh('governor')) {
          twin.ask('pedal', 0);
          next();
        }
        break;
      case 5:
        if (forS > 15) {
          twin.engine(2100);
          next();
        }
        break;
      case 7:
        if (forS > 12) {
          twin.engine(0);
          next();
        }
        break;
      case 8:
        if (forS > 110) {
          twin.ask('pedal', FULL_PSI);
          next();
        }
        break;
      case 9:
        if (forS > 100) {
          twin.ask('pedal', 0);
          next();
        }
        break;
      case 10:
        fan();
        if (twin.psi('primary tank') < 18) {
          twin.ask('pedal', 0);
          next();
        }
        break;
      case 11:
        if (forS > 15) {
          twin.engine(2100);
          next();
        }
        break;
      default:
        break;
    }
  }
}
