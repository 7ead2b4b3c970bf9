/** Made-up numbers for tests that come out the same for the same seed. */
export interface SeededNumbers {
  between: (low: number, high: number) => number;
  normal: () => number;
}

/** Two multiply-with-carry sources, mixed (Marsaglia). */
export function seededNumbers(seed: number): SeededNumbers {
  let a = seed * 2 + 1;
  let b = 362_436_069;
  const next = () => {
    a = (Math.imul(36_969, a & 65_535) + (a >>> 16)) >>> 0;
    b = (Math.imul(18_000, b & 65_535) + (b >>> 16)) >>> 0;
    return (((a << 16) + (b & 65_535)) >>> 0) / 4_294_967_296;
  };
  for (let warm = 0; warm < 50; warm += 1) next();
  return {
    between: (low, high) => low + (high - low) * next(),
    // Box and Muller's way from two even numbers to a normal one.
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}
