import { loudness, startAirSound } from './airSound';

describe('escaping air', () => {
  it('is heard by its logarithm: nothing of a film, all of a blast, and always more of more', () => {
    expect(loudness(0)).toBe(0);
    expect(loudness(0.01)).toBe(0);
    expect(loudness(500)).toBe(1);
    const flows = [0.03, 0.1, 0.5, 2, 10, 50].map(loudness);
    flows.forEach((loud, i) => expect(loud).toBeGreaterThan(flows[i - 1] ?? 0));
    // Ten times the flow is one step louder, wherever it begins.
    expect(loudness(1) - loudness(0.1)).toBeCloseTo(loudness(10) - loudness(1), 9);
  });

  it('is silence on a device that has no sound', () => {
    expect(startAirSound()).toBeNull();
  });

  it('hisses close by, and is a duller, softer rush from the seat', () => {
    const set: Record<string, number> = {};
    const param = (name: string) => ({
      value: 0,
      setTargetAtTime: (value: number) => (set[name] = value),
    });
    const node = (extra: object) => ({ connect: (to: unknown) => to, ...extra });
    class FakeAudio {
      sampleRate = 100;
      currentTime = 0;
      destination = {};
      createBuffer = () => ({ getChannelData: () => new Float32Array(200) });
      createBufferSource = () => node({ start: () => undefined });
      createBiquadFilter = () => node({ frequency: param('hertz') });
      createGain = () => node({ gain: param('gain') });
      close = () => Promise.resolve();
    }
    Object.assign(globalThis, { AudioContext: FakeAudio });
    const sound = startAirSound();
    sound?.hear(20, true);
    const close = { ...set };
    sound?.hear(20, false);
    expect(close.hertz).toBeGreaterThan(set.hertz! * 2);
    expect(close.gain).toBeGreaterThan(set.gain!);
    sound?.hear(0, true);
    expect(set.gain).toBe(0);
    Reflect.deleteProperty(globalThis, 'AudioContext');
  });
});
