import { toneWav } from './toneWav';

/**
 * One player for all tones: a phone that lets a page sound only at a touch lets this one go on once it has. It is a
 * sound file rather than the browser's synthesiser, whose start holds a slow phone's screen up for a tenth of a second.
 */
let player: HTMLAudioElement | null = null;

/** A tone, ready to be played; made once. */
function toneOf(hertz: number, lengthS: number): () => string {
  let url: string | null = null;
  return () =>
    (url ??= URL.createObjectURL(new Blob([toneWav(hertz, lengthS)], { type: 'audio/wav' })));
}

const kept = toneOf(660, 0.12);
const over = toneOf(880, 0.5);

function play(tone: () => string): void {
  try {
    const url = tone();
    player ??= new Audio();
    if (player.src === url) player.currentTime = 0;
    else player.src = url;
    // A device without sound, or one that is told to be quiet, still marks.
    void player.play().catch(() => undefined);
  } catch {
    // Likewise.
  }
}

/** A short tone and a tap in the hand: the mark is kept. */
export function signalMark(): void {
  navigator.vibrate?.(30);
  play(kept);
}

/** A longer one: the hold is over, look at the needle. */
export function signalHoldOver(): void {
  navigator.vibrate?.([180, 90, 180]);
  play(over);
}
