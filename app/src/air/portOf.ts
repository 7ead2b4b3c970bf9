/**
 * Numbers of the ports a place is joined to in the numbered-port school: 1 supply, 2 delivery, 4 control, a second
 * digit for the circuit [std: ISO 6786, value from memory]. By what a place is, the first that fits.
 */
const ports: readonly (readonly [RegExp, string])[] = [
  [/^discharge line$/, '2 · 1'],
  [/^dryer$/, '1'],
  [/^purge volume$/, '22'],
  [/^governor line$/, '4'],
  [/^supply tank$/, '21 · 1'],
  [/^primary tank$/, '21 · 11'],
  [/^secondary tank$/, '22 · 12'],
  [/^dash feed$/, '23 · 1'],
  [/^rear signal$/, '21 · 41'],
  [/^front signal$/, '22 · 42'],
  [/^trailer foot signal$/, '41 · 42'],
  [/^hand brake line$/, '22 · 43'],
  [/^hand signal$/, '43'],
  [/^trailer signal$/, '4'],
  [/^trailer service line$/, '22'],
  [/^trailer supply line$/, '21'],
  [/^park line$/, '21 · 4'],
  [/^park relay control$/, '4'],
  [/^spring line$/, '2 · 12'],
  [/relay control$|load control$/, '4'],
  [/^front delivery$/, '2'],
  [/delivery$/, '2'],
  [/service line$/, '4'],
  [/supply line$/, '1'],
  [/^tank$/, '1'],
];

/** Port numbers of a place by its role, on a powered or a towed unit; null where it has none. */
export function portOf(role: string, isTowed = false): string | null {
  // A trailer's springs hang on its supply, not on a relay with numbers of its own.
  if (isTowed && role === 'spring line') return null;
  return ports.find(([fits]) => fits.test(role))?.[1] ?? null;
}
