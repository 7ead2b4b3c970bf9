import { pressuresIn } from './pressuresIn';

describe('pressures in a sentence', () => {
  it.each([
    ['Time the build-up, 85 to 100 psi', 'bar', 'Time the build-up, 5.86 to 6.89 bar'],
    ['press the pedal to 40 psi and read', 'kPa', 'press the pedal to 276 kPa and read'],
    ['Over 55 psi, before 20 psi.', 'bar', 'Over 3.79 bar, before 1.38 bar.'],
    ['two of 3 psi/min', 'psi', 'two of 3 psi/min'],
    ['an inch in 5 seconds', 'bar', 'an inch in 5 seconds'],
  ] as const)('%s in %s', (text, unit, said) => {
    expect(pressuresIn(text, unit)).toBe(said);
  });
});
