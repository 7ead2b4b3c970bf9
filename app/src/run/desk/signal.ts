let audio: AudioContext | null = null;

function tone(hertz: number, lengthS: number): void {
  try {
    audio ??= new AudioContext();
    const oscillator = audio.createOscillator();
    const gain = audio.createGain();
    oscillator.frequency.value = hertz;
    gain.gain.setValueAtTime(0.15, audio.currentTime);
    gain.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + lengthS);
    oscillator.connect(gain).connect(audio.destination);
    oscillator.start();
    oscillator.stop(audio.currentTime + lengthS);
  } catch {
    // A device without sound still marks.
  }
}

/** A short tone and a tap in the hand: the mark is kept. */
export function signalMark(): void {
  navigator.vibrate?.(30);
  tone(660, 0.12);
}

/** A longer one: the hold is over, look at the needle. */
export function signalHoldOver(): void {
  navigator.vibrate?.([180, 90, 180]);
  tone(880, 0.5);
}
