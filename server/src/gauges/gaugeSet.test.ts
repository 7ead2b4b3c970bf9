import type { SentSample } from '@keen-bleed/contract';
import { seededRandom } from '../random/seededRandom';
import { madeUpRig } from '../test/madeUpRig';
import { GaugeSet, SAMPLE_MS } from './gaugeSet';

const STARTED_MS = 1_760_000_000_000;
const MINUTES = 25;

/** What a set sends in so many minutes, asked for at an uneven pace. */
function sent(minutes = MINUTES, seed = 1): SentSample[] {
  const set = new GaugeSet(madeUpRig, STARTED_MS, seededRandom(seed));
  const all: SentSample[] = [];
  for (let ms = 0; ms <= minutes * 60_000; ms += 230) all.push(...set.samplesTo(STARTED_MS + ms));
  return all;
}

describe('what a made-up gauge set sends', () => {
  const all = sent();
  const primary = all.filter(({ channel }) => channel === 'primary');
  const seqs = new Set(primary.map(({ seq }) => seq));
  const slots = (MINUTES * 60_000) / SAMPLE_MS;

  it('is a reading of every gauge ten times a second, from when it was switched on', () => {
    expect(new Set(all.map(({ channel }) => channel))).toEqual(
      new Set(['primary', 'secondary', 'supply']),
    );
    expect(primary.filter(({ seq, atMs }) => atMs !== STARTED_MS + (seq - 1) * SAMPLE_MS)).toEqual(
      [],
    );
    expect(Math.max(...seqs)).toBeLessThanOrEqual(slots + 1);
  });

  it('is the same for the same seed, whatever the pace it is asked at', () => {
    const set = new GaugeSet(madeUpRig, STARTED_MS, seededRandom(1));
    expect(set.samplesTo(STARTED_MS + 60_000)).toEqual(
      all.slice(
        0,
        all.findIndex(({ sentAtMs }) => sentAtMs > STARTED_MS + 60_000),
      ),
    );
    expect(sent(1, 2)).not.toEqual(sent(1, 1));
  });

  // Shares as they were drawn, within four standard deviations of a binomial count.
  const share = (part: number, of: number, expected: number) =>
    Math.abs(part / of - expected) / Math.sqrt((expected * (1 - expected)) / of);
  it('loses three in a hundred, sends three twice and holds up five by 0.7 s', () => {
    // A gap takes all at once: it is counted out by looking at short holes alone.
    const ordered = [...seqs].sort((a, b) => a - b);
    let single = 0;
    for (let n = 1; n < ordered.length; n += 1) {
      const hole = ordered[n]! - ordered[n - 1]! - 1;
      if (hole < 5) single += hole;
    }
    expect(share(single, ordered.length + single, 0.03)).toBeLessThan(4);
    const late = primary.filter(({ sentAtMs, atMs }) => sentAtMs > atMs);
    expect(share(late.length, seqs.size, 0.05)).toBeLessThan(4);
    expect(new Set(late.map(({ sentAtMs, atMs }) => sentAtMs - atMs))).toEqual(new Set([700]));
    const twice = primary.length - seqs.size;
    expect(share(twice, seqs.size - late.length, 0.03)).toBeLessThan(4);
  });

  it('is silent now and then for two and a half seconds, in every gauge', () => {
    const holes = (channel: string) => {
      const at = [...new Set(all.filter((each) => each.channel === channel).map(({ seq }) => seq))];
      const ordered = at.sort((a, b) => a - b);
      return ordered
        .map((seq, n) => ({ from: ordered[n - 1] ?? 0, gap: seq - (ordered[n - 1] ?? 0) - 1 }))
        .filter(({ gap }) => gap >= 24);
    };
    const found = holes('primary');
    expect(found.length).toBeGreaterThan(2);
    expect(found.length).toBeLessThan(30);
    expect(Math.min(...found.map(({ gap }) => gap))).toBeLessThanOrEqual(30);
    // The other gauge lacks a reading beside the gap at most.
    for (const { from } of found)
      expect(holes('secondary').some((each) => Math.abs(each.from - from) <= 5)).toBe(true);
  });

  it('is in steps of 0.05 psi, not below nothing, with some noise on it', () => {
    const psi = all.map((each) => each.psi);
    expect(Math.min(...psi)).toBeGreaterThanOrEqual(0);
    expect(
      Math.max(...psi.map((each) => Math.abs(each / 0.05 - Math.round(each / 0.05)))),
    ).toBeLessThan(1e-6);
    // Standing after the climb, before the fan: what moves within half a second is noise, twice in a difference.
    const differences = primary
      .slice(1)
      .map((each, n) => each.psi - primary[n]!.psi)
      .sort((a, b) => a - b);
    const quartile = (q: number) => differences[Math.floor(q * differences.length)]!;
    expect(quartile(0.75) - quartile(0.25)).toBeGreaterThan(0.04);
    expect(quartile(0.75) - quartile(0.25)).toBeLessThan(0.25);
  });

  it('goes through a test: up to cut-out, fanned to cut-in, held, fanned down past the pop-out', () => {
    const at = (minute: number) =>
      primary.find(({ atMs }) => atMs >= STARTED_MS + minute * 60_000)?.psi ?? NaN;
    // As it was found, less what the trailer's side takes at once.
    expect(at(0)).toBeGreaterThan(80);
    expect(at(0)).toBeLessThan(83);
    const most = Math.max(...primary.map(({ psi }) => psi));
    expect(most).toBeGreaterThan(115);
    expect(most).toBeLessThan(145);
    const low = primary.findIndex(({ psi }) => psi < 18);
    const high = primary.findIndex(({ psi }) => psi > most - 2);
    expect(high).toBeGreaterThan(0);
    expect(low).toBeGreaterThan(high);
  });

  it('has a battery that goes down by eight in a hundred an hour, from 62', () => {
    expect(primary[0]?.battery).toBeCloseTo(0.62, 5);
    const last = primary.at(-1)!;
    expect(last.battery).toBeCloseTo(0.62 - (0.08 * (last.atMs - STARTED_MS)) / 3_600_000, 5);
    const longOn = new GaugeSet(madeUpRig, STARTED_MS, seededRandom(1));
    expect(
      Math.min(...longOn.samplesTo(STARTED_MS + 1000).map(({ battery }) => battery)),
    ).toBeGreaterThan(0.6);
  });
});
