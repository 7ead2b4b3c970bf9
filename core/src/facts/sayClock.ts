/** From here on it is said that a clock was off, ms: less than this is nothing to a record. */
export const CLOCK_SAID_FROM_MS = 60_000;

/** How far a clock is off, as people say it: “12 min ahead”, “3 days behind”. */
export function sayClockAhead(aheadMs: number): string {
  const minutes = Math.abs(aheadMs) / 60_000;
  const count = (value: number, one: string, many = `${one}s`) => {
    const whole = Math.round(value);
    return `${whole} ${whole === 1 ? one : many}`;
  };
  const by =
    minutes < 1
      ? count(minutes * 60, 's', 's')
      : minutes < 90
        ? count(minutes, 'min', 'min')
        : minutes < 48 * 60
          ? count(minutes / 60, 'hour')
          : minutes < 730 * 24 * 60
            ? count(minutes / 1_440, 'day')
            : count(minutes / 525_960, 'year');
  return `${by} ${aheadMs >= 0 ? 'ahead' : 'behind'}`;
}
