/** Halvings: a millionth of a millionth of the way between the bounds. */
const HALVINGS = 40;

/**
 * Where a distribution function reaches a share, by halving between two bounds.
 *
 * @returns the bound on whose side it lies where it is not between them
 */
export function quantile(
  cdf: (value: number) => number,
  share: number,
  from: number,
  to: number,
): number {
  let low = from;
  let high = to;
  for (let n = 0; n < HALVINGS; n += 1) {
    const middle = (low + high) / 2;
    if (cdf(middle) < share) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
