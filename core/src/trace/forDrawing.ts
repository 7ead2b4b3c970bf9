import { firstAt, type Trace } from './segments';

/**
 * A trace for a drawing of so many columns: the lowest and the highest reading of each column, so that no spike is
 * lost; what is not a number is left out. Only for drawing: what is computed is computed from every reading.
 *
 * @returns points in the order of their times, at most two for each column
 */
export function forDrawing(
  trace: Trace,
  fromS: number,
  toS: number,
  columns: number,
): { s: number; psi: number }[] {
  const { seconds, psi } = trace;
  const points: { s: number; psi: number }[] = [];
  const first = Math.max(0, firstAt(seconds, fromS) - 1);
  const last = Math.min(seconds.length - 1, firstAt(seconds, toS));
  const point = (i: number) => ({ s: seconds[i] ?? 0, psi: psi[i] ?? 0 });
  if (last - first + 1 <= 2 * columns) {
    for (let i = first; i <= last; i += 1) if (!Number.isNaN(psi[i])) points.push(point(i));
    return points;
  }
  const width = (toS - fromS) / columns;
  let i = first;
  for (let column = 0; column < columns && i <= last; column += 1) {
    const until = fromS + (column + 1) * width;
    let low = i;
    let high = i;
    let any = false;
    for (; i <= last && (column === columns - 1 || (seconds[i] ?? Infinity) < until); i += 1) {
      if (Number.isNaN(psi[i])) continue;
      if (!any || (psi[i] ?? 0) < (psi[low] ?? 0)) low = i;
      if (!any || (psi[i] ?? 0) > (psi[high] ?? 0)) high = i;
      any = true;
    }
    if (!any) continue;
    points.push(point(Math.min(low, high)));
    if (low !== high) points.push(point(Math.max(low, high)));
  }
  return points;
}
