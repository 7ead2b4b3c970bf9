/** Says something aloud, where the device has a voice; what was being said is cut short. */
export function speak(text: string): void {
  try {
    speechSynthesis.cancel();
    speechSynthesis.speak(new SpeechSynthesisUtterance(text));
  } catch {
    // A device without a voice still shows it.
  }
}
