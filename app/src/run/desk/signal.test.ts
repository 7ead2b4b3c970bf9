/** @jest-environment node */
import { WaveFile } from 'wavefile';
import type * as Signal from './signal';
import { toneWav } from './toneWav';

/** How often a sound goes up through nothing. */
const rises = (samples: readonly number[]) =>
  samples.filter((sample, i) => i > 0 && samples[i - 1]! < 0 && sample >= 0).length;

/** Read by a library that knows nothing of ours. */
function heard(hertz: number, lengthS: number) {
  const file = new WaveFile(new Uint8Array(toneWav(hertz, lengthS)));
  const { sampleRate, numChannels } = file.fmt as { sampleRate: number; numChannels: number };
  const samples = [...file.getSamples(false)];
  return { file, sampleRate, numChannels, samples };
}

describe('the tones of a run', () => {
  it.each([
    [660, 0.12],
    [880, 0.5],
  ])('are %i Hz over %d s in a file that others read', (hertz, lengthS) => {
    const { file, sampleRate, numChannels, samples } = heard(hertz, lengthS);
    expect(file.container).toBe('RIFF');
    expect(file.bitDepth).toBe('16');
    expect(numChannels).toBe(1);
    expect(samples.length / sampleRate).toBeCloseTo(lengthS, 3);
    // Each period rises through nothing once.
    expect(Math.abs(rises(samples) / lengthS - hertz)).toBeLessThan(1.5 / lengthS);
  });

  it('die away and never clip', () => {
    const { samples } = heard(880, 0.5);
    const loudest = (part: readonly number[]) =>
      part.reduce((most, each) => Math.max(most, Math.abs(each)), 0);
    const tenth = samples.length / 10;
    expect(loudest(samples)).toBeLessThan(32_767 / 4);
    expect(loudest(samples.slice(-tenth))).toBeLessThan(loudest(samples.slice(0, tenth)) / 50);
  });
});

describe('the player', () => {
  const played: string[] = [];
  class Player {
    src = '';
    currentTime = 5;
    play() {
      played.push(`${this.src} from ${this.currentTime}`);
      return Promise.reject(new Error('told to be quiet'));
    }
  }

  beforeEach(() => {
    played.length = 0;
    jest.resetModules();
    Object.assign(globalThis, { Audio: Player, navigator: {} });
    let made = 0;
    jest.spyOn(URL, 'createObjectURL').mockImplementation(() => `tone ${(made += 1)}`);
  });
  afterEach(() => jest.restoreAllMocks());

  it('plays a mark twice from its start, and the end of a hold, each tone made once', () => {
    const { signalMark, signalHoldOver } = jest.requireActual<typeof Signal>('./signal');
    signalMark();
    signalMark();
    signalHoldOver();
    expect(played).toEqual(['tone 1 from 5', 'tone 1 from 0', 'tone 2 from 0']);
  });

  it('is not missed where a device makes no sound', () => {
    Object.assign(globalThis, { Audio: undefined });
    const { signalMark } = jest.requireActual<typeof Signal>('./signal');
    expect(() => signalMark()).not.toThrow();
  });
});
