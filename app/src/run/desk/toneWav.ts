/** Samples a second: twice the highest tone and room to spare. */
const RATE_HZ = 16_000;
/** Full scale is 32,767. */
const LOUDEST = 5_000;
const HEADER_BYTES = 44;
const BYTES_A_SAMPLE = 2;

/**
 * A tone that dies away, as the bytes of a WAV file: one channel of 16-bit samples (RIFF, format 1; Multimedia
 * Programming Interface and Data Specifications 1.0, 1991).
 *
 * @param hertz its pitch
 * @param lengthS how long it lasts, s; it ends at 1/150 of how loud it begins
 */
export function toneWav(hertz: number, lengthS: number): ArrayBuffer {
  const count = Math.round(RATE_HZ * lengthS);
  const dataBytes = count * BYTES_A_SAMPLE;
  const file = new ArrayBuffer(HEADER_BYTES + dataBytes);
  const view = new DataView(file);
  const word = (at: number, text: string) =>
    [...text].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  word(0, 'RIFF');
  view.setUint32(4, HEADER_BYTES - 8 + dataBytes, true);
  word(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, RATE_HZ, true);
  view.setUint32(28, RATE_HZ * BYTES_A_SAMPLE, true);
  view.setUint16(32, BYTES_A_SAMPLE, true);
  view.setUint16(34, 8 * BYTES_A_SAMPLE, true);
  word(36, 'data');
  view.setUint32(40, dataBytes, true);
  const dying = Math.log(150) / count;
  for (let i = 0; i < count; i += 1) {
    const sample = LOUDEST * Math.exp(-dying * i) * Math.sin((2 * Math.PI * hertz * i) / RATE_HZ);
    view.setInt16(HEADER_BYTES + i * BYTES_A_SAMPLE, Math.round(sample), true);
  }
  return file;
}
