import type { RunHeader, PressureUnit } from '@keen-bleed/contract';
import {
  brakeMoves,
  columnHeads,
  factsOf,
  forDrawing,
  HEAD_WITHIN_ROWS,
  headRow,
  lineThrough,
  psiAt,
  purgesOf,
  segmentsOf,
  steadyPoints,
  TraceReader,
  type BrakeMove,
  type ColumnHead,
  type Segment,
  type Trace,
  type TraceFact,
} from '@keen-bleed/core/trace';
import Papa from 'papaparse';

/** A column of pressures, and what they are in. */
export interface PressureColumn {
  at: number;
  title: string;
  unit: PressureUnit;
}

/** How a file is to be read. */
export interface TraceColumns {
  time: number;
  timeUnit: 's' | 'ms' | 'min';
  /** The first is the tank's, in which a run is sought. */
  pressures: readonly PressureColumn[];
}

/** What was found in a file. */
export interface TraceFound {
  rows: number;
  leftOut: number;
  endS: number;
  titles: readonly string[];
  segments: readonly Segment[];
  /** Stamps on the pedal and letting go, by the column they are seen in. */
  moves: readonly (BrakeMove & { title: string })[];
}

export interface DrawnPoint {
  s: number;
  psi: number;
}

/** Readings of a trace that is played go this far apart, s. */
const PLAYED_EVERY_S = 0.1;
const NO_TRACE: Trace = { seconds: new Float64Array(0), psi: new Float64Array(0) };

/** The worker's side of a trace: reads the file in pieces, keeps the readings, and answers about them. */
export interface TraceWorker {
  heads: (file: File) => Promise<ColumnHead[]>;
  read: (
    file: File,
    columns: TraceColumns,
    onProgress: (share: number) => void,
  ) => Promise<TraceFound>;
  /** Points of each column, in their order. */
  draw: (fromS: number, toS: number, columns: number) => DrawnPoint[][];
  /** What a straight line leaves over a stretch, psi. */
  residuals: (fromS: number, toS: number, columns: number) => DrawnPoint[];
  facts: (header: RunHeader, startedAtMs: number) => TraceFact[];
  /** The tank's readings after one moment and up to another, as a gauge would have sent them. */
  played: (afterS: number, toS: number) => DrawnPoint[];
  csv: () => string;
  /** The points of a curve: the first column's pressure against the second's, where both stood still. */
  points: () => (readonly [from: number, to: number])[];
}

/** Makes the worker's side. */
export function makeTraceWorker(): TraceWorker {
  let traces: readonly Trace[] = [NO_TRACE];
  let titles: readonly string[] = [];
  let segments: readonly Segment[] = [];
  const tank = () => traces[0] ?? NO_TRACE;
  return {
    heads: (file) =>
      new Promise((resolve, reject) => {
        Papa.parse<string[]>(file, {
          preview: HEAD_WITHIN_ROWS,
          skipEmptyLines: 'greedy',
          complete: ({ data }) => {
            const at = headRow(data);
            const widest = data[Math.max(0, at + 1)] ?? [];
            const heads = at < 0 ? [] : (data[at] ?? []);
            resolve(columnHeads(widest.map((_, column) => heads[column] ?? '')));
          },
          error: reject,
        });
      }),
    read: (file, columns, onProgress) =>
      new Promise((resolve, reject) => {
        const { pressures } = columns;
        const reader = new TraceReader(
          columns.timeUnit,
          pressures.map(({ unit }) => unit),
        );
        let passed: number | null = null;
        Papa.parse<string[]>(file, {
          skipEmptyLines: 'greedy',
          chunk: ({ data, meta }) => {
            const from: number = passed ?? headRow(data.slice(0, HEAD_WITHIN_ROWS)) + 1;
            passed = 0;
            for (const row of data.slice(from)) {
              reader.add(
                row[columns.time] ?? '',
                pressures.map(({ at }) => row[at] ?? ''),
              );
            }
            onProgress(file.size === 0 ? 1 : Math.min(1, meta.cursor / file.size));
          },
          complete: () => {
            traces = reader.traces();
            titles = pressures.map(({ title }) => title);
            const inTank = segmentsOf(tank());
            segments = [...inTank, ...purgesOf(traces.slice(1), inTank)].sort(
              (a, b) => a.fromS - b.fromS || a.toS - b.toS,
            );
            resolve({
              rows: tank().seconds.length,
              leftOut: reader.leftOut,
              endS: tank().seconds.at(-1) ?? 0,
              titles,
              segments,
              moves: traces.flatMap((trace, n) =>
                brakeMoves(trace).map((move) => ({ ...move, title: titles[n] ?? '' })),
              ),
            });
          },
          error: reject,
        });
      }),
    draw: (fromS, toS, columns) => traces.map((trace) => forDrawing(trace, fromS, toS, columns)),
    residuals(fromS, toS, columns) {
      const line = lineThrough(tank(), fromS, toS);
      if (!line) return [];
      return forDrawing(tank(), fromS, toS, columns)
        .filter(({ s }) => s >= fromS && s <= toS)
        .map(({ s, psi }) => ({ s, psi: psi - line.at(s) }));
    },
    facts: (header, startedAtMs) => factsOf(header, tank(), segments, startedAtMs),
    played(afterS, toS) {
      const points: DrawnPoint[] = [];
      for (let n = Math.floor(afterS / PLAYED_EVERY_S) + 1; n * PLAYED_EVERY_S <= toS; n += 1) {
        const s = n * PLAYED_EVERY_S;
        points.push({ s, psi: psiAt(tank(), s) });
      }
      return points;
    },
    points: () => steadyPoints(tank(), traces[1] ?? NO_TRACE),
    csv: () =>
      Papa.unparse({
        fields: [
          'time_s',
          ...titles.map((title) => `${title.replace(/\s*[([][^)\]]*[)\]]/, '')} (psi)`),
        ],
        data: Array.from(tank().seconds, (s, i) => [
          s.toFixed(3),
          ...traces.map(({ psi }) => (Number.isNaN(psi[i]) ? '' : (psi[i] ?? 0).toFixed(3))),
        ]),
      }),
  };
}
