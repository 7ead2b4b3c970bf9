import fc from 'fast-check';
import type { PadNow } from '../run/awaiting';
import { caughtMark } from './caughtMark';
import { fittedLine } from './fitted';
import { linkedNowPsi, readOver } from './fitted';
import { withSample, type GaugeSample } from './sampleLog';

const log = (psiAt: (s: number) => number, seconds: number): GaugeSample[] =>
  Array.from({ length: seconds * 10 }, (_, seq) => ({
    seq,
    atMs: seq * 100,
    psi: psiAt(seq / 10),
  }));
const pad = (
  method: 'crossing' | 'read',
  shows?: 'stops-rising' | 'starts-rising' | 'steady',
  proposedPsi = 100,
): PadNow => ({
  spec: {
    key: 'key',
    pad: '',
    hint: '',
    at: method === 'crossing' ? 'passing' : 'needle',
    proposal: { from: 'level', psi: proposedPsi },
    ...(shows ? { shows } : {}),
  },
  proposedPsi,
  method,
  between: null,
});

describe('the log of a linked gauge', () => {
  it('is the same whatever comes late, twice or out of turn', () => {
    fc.assert(
      fc.property(
        fc.shuffledSubarray(
          log((s) => s, 3),
          { minLength: 1 },
        ),
        fc.nat(),
        (sent, twice) => {
          const again = [...sent, sent[twice % sent.length] ?? sent[0]!];
          const kept = again.reduce<readonly GaugeSample[]>(withSample, []);
          expect(kept).toEqual([...sent].sort((a, b) => a.seq - b.seq));
        },
      ),
    );
  });
});

describe('the log of a gauge that sends for long', () => {
  const MINUTE_MS = 60_000;
  const at = (minute: number, seq = minute): GaugeSample => ({
    ...{ seq, atMs: minute * MINUTE_MS, psi: 100 },
  });

  it('goes back a quarter of an hour, that moment among it', () => {
    const minutes = Array.from({ length: 40 }, (_, minute) => at(minute));
    const kept = minutes.reduce<readonly GaugeSample[]>(withSample, []);
    expect(kept.map(({ seq }) => seq)).toEqual(Array.from({ length: 16 }, (_, n) => 24 + n));
    // One that went silent for long begins anew.
    expect(withSample(kept, at(400))).toEqual([at(400)]);
  });

  it('is the very same where nothing changed', () => {
    const kept = [at(1), at(2), at(4)];
    expect(withSample(kept, at(2))).toBe(kept);
    expect(withSample(kept, at(4))).toBe(kept);
    expect(withSample(kept, at(3))).toEqual([at(1), at(2), at(3), at(4)]);
    // A newer number with the time of the last stands behind it; an older time before it, whatever its number.
    expect(withSample(kept, at(4, 5)).at(-1)).toEqual(at(4, 5));
    expect(withSample(kept, at(3, 9)).map(({ seq }) => seq)).toEqual([1, 2, 9, 4]);
  });
});

describe('the line through readings', () => {
  it('is none through fewer than three, nor through three of one moment', () => {
    const of = (...atS: number[]) => atS.map((s, n) => ({ seq: n + 1, atMs: s * 1_000, psi: 100 }));
    expect(fittedLine(of(1, 2), 0, 9_000)).toBeNull();
    expect(fittedLine(of(1, 2, 3), 0, 9_000)?.samples).toBe(3);
    expect(fittedLine(of(2, 2, 2), 0, 9_000)).toBeNull();
    // Both ends are among them.
    expect(fittedLine(of(1, 2, 3), 1_000, 3_000)?.samples).toBe(3);
    expect(fittedLine(of(1, 2, 3), 1_001, 3_000)).toBeNull();
  });
});

describe('a linked gauge catches', () => {
  it('the moment a level is passed, between two readings', () => {
    // 0.57 psi/s from 80: at 100 after 35.09 s.
    const caught = caughtMark(
      pad('crossing'),
      log((s) => 80 + 0.57 * s, 60),
      0,
    );
    expect(caught?.atMs).toBeCloseTo(35_088, -1);
    expect(caught?.psi).toBe(100);
  });

  it('the moment a needle leaves a level that it stood on, and nothing while it stands there', () => {
    const standing = log(() => 100, 8);
    expect(caughtMark(pad('crossing'), standing, 0)).toBeNull();
    const leaving = log((s) => 100 + Math.max(0, s - 8), 14);
    const caught = caughtMark(pad('crossing'), leaving, 0);
    expect(caught?.psi).toBe(100);
    // From the line through three seconds to either side of where it began.
    expect(Math.abs((caught?.atMs ?? NaN) - 8_000)).toBeLessThan(3_000);
  });

  it('nothing that lies before the newest mark', () => {
    expect(
      caughtMark(
        pad('crossing'),
        log((s) => 80 + 0.57 * s, 60),
        40_000,
      ),
    ).toBeNull();
  });

  it('cut-out where the climb stops, and not while it goes on', () => {
    const climbs = (s: number) => Math.min(126, 100 + 0.6 * s) - Math.max(0, s - 43.3) * 0.05;
    expect(caughtMark(pad('read', 'stops-rising'), log(climbs, 40), 0)).toBeNull();
    const caught = caughtMark(pad('read', 'stops-rising'), log(climbs, 60), 0);
    expect(caught?.psi).toBeCloseTo(126, 0);
    expect((caught?.atMs ?? 0) / 1000).toBeCloseTo(43.3, 0);
  });

  it('cut-in where the fall turns', () => {
    const turns = (s: number) => (s < 20 ? 125 - s : 105 + (s - 20) * 0.4);
    const caught = caughtMark(pad('read', 'starts-rising'), log(turns, 30), 0);
    expect(caught?.psi).toBeCloseTo(105, 0);
    expect(caughtMark(pad('read', 'starts-rising'), log(turns, 15), 0)).toBeNull();
  });

  it('a needle that has come to rest, and no other', () => {
    const settles = (s: number) => 120 + 6 * Math.exp(-s / 2);
    expect(caughtMark(pad('read', 'steady'), log(settles, 5), 0)).toBeNull();
    expect(caughtMark(pad('read', 'steady'), log(settles, 20), 0)?.psi).toBeCloseTo(120, 1);
  });

  it('nothing where the moment does not show in the pressure', () => {
    expect(
      caughtMark(
        pad('read'),
        log((s) => 100 - s, 30),
        0,
      ),
    ).toBeNull();
  });
});

/** Noise of a size that is the same in every run of the test: a sum of waves of no common period. */
const noise = (seq: number, psi: number) =>
  psi * (Math.sin(seq * 1.7) + Math.sin(seq * 2.9 + 1) + Math.sin(seq * 5.3 + 2)) * 0.8;
const noisy = (psiAt: (s: number) => number, seconds: number, psi: number, stepPsi = 0.01) =>
  log(psiAt, seconds).map((sample) => ({
    ...sample,
    psi: Math.round((sample.psi + noise(sample.seq, psi)) / stepPsi) * stepPsi,
  }));

describe('a linked gauge with half a psi of noise, or a digit of one psi', () => {
  // Closed form: 0.57 psi/s from 80 passes 100 after 35.088 s.
  it.each([
    ['half a psi of noise', 0.5, 0.01],
    ['a digit of one psi', 0.05, 1],
  ])('times the passing of a level to a third of a second: %s', (_title, psi, stepPsi) => {
    const sent = noisy((s) => 80 + 0.57 * s, 60, psi, stepPsi);
    const caught = caughtMark(pad('crossing'), sent, 0);
    expect(Math.abs((caught?.atMs ?? 0) - 35_088)).toBeLessThan(350);
    expect(caught?.resolutionPsi).toBeGreaterThan(0.1);
  });

  it('finds the same stop whether a gauge sends ten times a second or twice', () => {
    const climbs = (s: number) => Math.min(126, 100 + 0.6 * s);
    const often = noisy(climbs, 70, 0.2);
    const seldom = often.filter((_, n) => n % 5 === 0);
    const [one, other] = [often, seldom].map((sent) =>
      caughtMark(pad('read', 'stops-rising'), sent, 0),
    );
    // 26 psi at 0.6 psi/s.
    for (const caught of [one, other]) {
      expect(Math.abs((caught?.atMs ?? 0) - 43_333)).toBeLessThan(1_500);
      expect(Math.abs((caught?.psi ?? 0) - 126)).toBeLessThan(0.5);
    }
  });

  it('finds where a climb stops, and not where a single reading stands out', () => {
    const climbs = (s: number) => Math.min(126, 100 + 0.6 * s);
    const caught = caughtMark(pad('read', 'stops-rising'), noisy(climbs, 70, 0.5), 0);
    expect(Math.abs((caught?.atMs ?? 0) / 1000 - 43.3)).toBeLessThan(1.5);
    expect(caught?.psi).toBeCloseTo(126, 0);
    expect(caughtMark(pad('read', 'stops-rising'), noisy(climbs, 42, 0.5), 0)).toBeNull();
  });

  it('waits for what follows a crossing before it says when that was', () => {
    const sent = noisy((s) => 80 + 0.57 * s, 37, 0.1);
    expect(caughtMark(pad('crossing'), sent, 0)).toBeNull();
  });

  it('is good to less where readings are lost on a moving needle', () => {
    const whole = noisy((s) => 80 + 2 * s, 30, 0.2);
    const lossy = whole.filter(({ seq }) => seq % 20 < 3);
    expect(linkedNowPsi(lossy)).toBeGreaterThan(1.5 * linkedNowPsi(whole));
  });

  it('reads a slow fall from all it has sent to a tenth of a psi', () => {
    const fall = (s: number) => 120 - s / 60;
    const read = readOver(noisy(fall, 30, 0.3), 0, 29_900);
    expect(Math.abs((read?.psi ?? 0) - fall(29.9))).toBeLessThan(0.1);
    expect(read?.resolutionPsi).toBeLessThan(0.3);
  });
});
