import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** Draws that come out the same for the same seed. */
export interface Draws {
  /** Even between 0 and 1. */
  even: () => number;
  /** Normal with mean 0 and deviation 1, cut off at `most` either way. */
  normal: (most?: number) => number;
}

/** Draws from a seed, any whole number. */
export function drawsOf(seed: number): Draws {
  const generator = xoroshiro128plus(seed);
  const even = () => uniformFloat64(generator);
  const normal = (most = Infinity): number => {
    for (;;) {
      // Box and Muller's; 1 − x, because the logarithm of 0 is not there.
      const z = Math.sqrt(-2 * Math.log(1 - even())) * Math.cos(2 * Math.PI * even());
      if (Math.abs(z) <= most) return z;
    }
  };
  return { even, normal };
}
