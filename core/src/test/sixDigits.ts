/** A value with its numbers to six digits: as much as anything is told by, and the same on every machine. */
export function sixDigits(value: unknown): string {
  return JSON.stringify(value, (_, each: unknown) => {
    if (typeof each === 'number') return Number(each.toPrecision(6));
    if (typeof each === 'function') return undefined;
    return each instanceof Map ? [...each] : each;
  });
}
