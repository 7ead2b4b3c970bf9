import type { PressureUnit } from '@keen-bleed/contract';
import { fromPsi, rounded, sayPressure, toPsi } from '@keen-bleed/core';
import type { CurvePoint } from '@keen-bleed/core/bench';
import type { Check } from '@keen-bleed/core/checks';

const MOST_PSI = 300;
/** On the way down after the way up, psi: the last of them with nothing asked for. */
const DOWN = [40, 20, 10, 0] as const;

/** One pressure that is asked for, and what both gauges then showed. */
export interface AskedRow {
  psi: number;
  way: 'up' | 'down';
  /** Said instead of up and down: a pedal that is not touched. */
  title: 'pedal up' | 'let go' | null;
  inText: string;
  outText: string;
}

/** The rows of a check that reads two ports: the way up, and where the valve is asked to follow, the way down. */
export function askedRows({ doing, answer }: Check): AskedRow[] {
  if (doing.does !== 'compare' || answer.kind !== 'points') return [];
  const drained = doing.by === 'drain' || doing.by === 'bleed';
  const { as = 'follows' } = answer;
  const row = (psi: number, way: AskedRow['way']): AskedRow => ({
    psi,
    way,
    title: drained || psi > 0 ? null : way === 'up' ? 'pedal up' : 'let go',
    inText: '',
    outText: '',
  });
  const goesDown = !drained && (as === 'follows' || as === 'ratio');
  return [
    ...doing.asked.map((psi) => row(psi, drained ? 'down' : 'up')),
    ...(goesDown ? DOWN.map((psi) => row(psi, 'down')) : []),
  ];
}

/** A pressure to press to, as the pad says it. */
export const sayAsked = (psi: number, unit: PressureUnit): string =>
  String(rounded(fromPsi(psi, unit), unit === 'bar' ? 1 : 0));

/** A row as it is called: `up to 20 psi`. */
export const rowName = ({ psi, way, title }: AskedRow, unit: PressureUnit): string =>
  title ?? `${way} to ${sayAsked(psi, unit)} ${unit}`;

/** The rows that are whole, psi; words where one cannot be read. An empty row is one that was not made. */
export function pointsOf(rows: readonly AskedRow[], unit: PressureUnit): CurvePoint[] | string {
  const points: CurvePoint[] = [];
  for (const row of rows) {
    const { inText, outText } = row;
    if (inText.trim() === '' && outText.trim() === '') continue;
    const said = rowName(row, unit);
    const name = `${said.charAt(0).toUpperCase()}${said.slice(1)}`;
    if (inText.trim() === '' || outText.trim() === '') return `${name}: read both gauges.`;
    const [from, to] = [inText, outText].map((text) => Number(text.trim().replace(',', '.')));
    const isNumber = (value: number | undefined): value is number =>
      value !== undefined && Number.isFinite(value) && value >= 0;
    if (!isNumber(from) || !isNumber(to)) {
      return `${name}: give two numbers, such as ${sayAsked(20, unit)} and ${sayAsked(16, unit)}.`;
    }
    const point: CurvePoint = [toPsi(from, unit), toPsi(to, unit)];
    if (Math.max(...point) > MOST_PSI) {
      return `${name}: no brake has over ${sayPressure(MOST_PSI, unit)}.`;
    }
    points.push(point);
  }
  return points;
}
