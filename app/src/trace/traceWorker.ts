import type { OpenRun, PressureUnit } from '@keen-bleed/contract';
import {
  columnHead,
  factsOf,
  forDrawing,
  lineThrough,
  segmentsOf,
  TraceReader,
  type ColumnHead,
  type Segment,
  type Trace,
  type TraceFact,
} from '@keen-bleed/core/trace';
import Papa from 'papaparse';

/** How a file is to be read. */
export interface TraceColumns {
  time: number;
  pressure: number;
  timeUnit: 's' | 'ms' | 'min';
  pressureUnit: PressureUnit;
}

/** What was found in a file. */
export interface TraceFound {
  rows: number;
  leftOut: number;
  endS: number;
  lowPsi: number;
  highPsi: number;
  segments: readonly Segment[];
}

export interface DrawnPoint {
  s: number;
  psi: number;
}

/** The worker's side of a trace: reads the file in pieces, keeps the readings, and answers about them. */
export interface TraceWorker {
  heads: (file: File) => Promise<ColumnHead[]>;
  read: (
    file: File,
    columns: TraceColumns,
    onProgress: (share: number) => void,
  ) => Promise<TraceFound>;
  draw: (fromS: number, toS: number, columns: number) => DrawnPoint[];
  /** What a straight line leaves over a stretch, psi. */
  residuals: (fromS: number, toS: number, columns: number) => DrawnPoint[];
  facts: (
    header: Pick<OpenRun, 'unit' | 'towed' | 'ruleSet' | 'leftOut'>,
    startedAtMs: number,
  ) => TraceFact[];
  csv: () => string;
}

/** Makes the worker's side. */
export function makeTraceWorker(): TraceWorker {
  let trace: Trace = { seconds: new Float64Array(0), psi: new Float64Array(0) };
  let segments: readonly Segment[] = [];
  return {
    heads: (file) =>
      new Promise((resolve, reject) => {
        Papa.parse<string[]>(file, {
          preview: 1,
          skipEmptyLines: true,
          complete: ({ data }) => resolve((data[0] ?? []).map(columnHead)),
          error: reject,
        });
      }),
    read: (file, columns, onProgress) =>
      new Promise((resolve, reject) => {
        const reader = new TraceReader(columns.timeUnit, columns.pressureUnit);
        let isHead = true;
        Papa.parse<string[]>(file, {
          skipEmptyLines: true,
          chunk: ({ data, meta }) => {
            for (const row of data) {
              if (isHead) {
                isHead = false;
                continue;
              }
              reader.add(row[columns.time] ?? '', row[columns.pressure] ?? '');
            }
            onProgress(file.size === 0 ? 1 : Math.min(1, meta.cursor / file.size));
          },
          complete: () => {
            trace = reader.trace();
            segments = segmentsOf(trace);
            let low = Infinity;
            let high = -Infinity;
            for (const psi of trace.psi) {
              if (psi < low) low = psi;
              if (psi > high) high = psi;
            }
            resolve({
              rows: trace.seconds.length,
              leftOut: reader.leftOut,
              endS: trace.seconds.at(-1) ?? 0,
              lowPsi: Number.isFinite(low) ? low : 0,
              highPsi: Number.isFinite(high) ? high : 0,
              segments,
            });
          },
          error: reject,
        });
      }),
    draw: (fromS, toS, columns) => forDrawing(trace, fromS, toS, columns),
    residuals(fromS, toS, columns) {
      const line = lineThrough(trace, fromS, toS);
      if (!line) return [];
      return forDrawing(trace, fromS, toS, columns)
        .filter(({ s }) => s >= fromS && s <= toS)
        .map(({ s, psi }) => ({ s, psi: psi - line.at(s) }));
    },
    facts: (header, startedAtMs) => factsOf(header, trace, segments, startedAtMs),
    csv: () =>
      Papa.unparse({
        fields: ['time_s', 'pressure_psi'],
        data: Array.from(trace.seconds, (s, i) => [s.toFixed(3), (trace.psi[i] ?? 0).toFixed(3)]),
      }),
  };
}
