/** A number as people type it, with a comma or a point and spaces or commas between thousands; null where it is none. */
export function readNumber(text: string): number | null {
  const plain = text.trim().replace(/[\s\u00a0']/g, '');
  if (!/^\d[\d.,]*$/.test(plain)) return null;
  // A single comma before anything but three digits is a decimal comma; all others part thousands.
  const pointed = /^\d+,\d{1,2}$|^\d+,\d{4,}$/.test(plain)
    ? plain.replace(',', '.')
    : plain.replaceAll(',', '');
  const value = Number(pointed);
  return Number.isFinite(value) ? value : null;
}
