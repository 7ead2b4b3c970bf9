/** A flow that cannot be heard, and one as loud as it gets, scfm. */
const SILENT_SCFM = 0.02;
const LOUDEST_SCFM = 60;
/** Escaping air close by hisses; from the seat, through the floor, it is a dull rush. Hz. */
const CLOSE_HZ = 5_000;
const AFAR_HZ = 900;
const MOST_GAIN = 0.25;
const NOISE_S = 2;

/** How loud a flow is, 0 to 1: by its logarithm, as ears have it. */
export function loudness(scfm: number): number {
  if (scfm <= SILENT_SCFM) return 0;
  return Math.min(1, Math.log(scfm / SILENT_SCFM) / Math.log(LOUDEST_SCFM / SILENT_SCFM));
}

/** Air that is heard to escape. */
export interface AirSound {
  /** Sets what is heard from now on. */
  hear: (scfm: number, close: boolean) => void;
  stop: () => void;
}

/** Starts the sound of air; null where the device has none. */
export function startAirSound(): AirSound | null {
  try {
    const audio = new AudioContext();
    const noise = audio.createBuffer(1, audio.sampleRate * NOISE_S, audio.sampleRate);
    const samples = noise.getChannelData(0);
    for (let i = 0; i < samples.length; i += 1) samples[i] = Math.random() * 2 - 1;
    const source = audio.createBufferSource();
    source.buffer = noise;
    source.loop = true;
    const filter = audio.createBiquadFilter();
    filter.type = 'bandpass';
    const gain = audio.createGain();
    gain.gain.value = 0;
    source.connect(filter).connect(gain).connect(audio.destination);
    source.start();
    return {
      hear: (scfm, close) => {
        filter.frequency.setTargetAtTime(close ? CLOSE_HZ : AFAR_HZ, audio.currentTime, 0.05);
        const loud = loudness(scfm) ** 2 * (close ? MOST_GAIN : MOST_GAIN / 2);
        gain.gain.setTargetAtTime(loud, audio.currentTime, 0.08);
      },
      stop: () => void audio.close(),
    };
  } catch {
    return null;
  }
}
