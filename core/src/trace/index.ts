/* Traces stand apart from the rest of core, so that a page that does not need them does not load them. */
export {
  brakeMoves,
  judgeMove,
  timedKinds,
  TIMING_MOST_S,
  type BrakeMove,
  type TimedKind,
} from './brakeMoves';
export { forDrawing } from './forDrawing';
export { HEAD_WITHIN_ROWS, headRow } from './headRow';
export { columnHeads, readMoment, readNumber, TraceReader, type ColumnHead } from './readTable';
export {
  firstAt,
  lineThrough,
  psiAt,
  segmentKinds,
  segmentsOf,
  type Segment,
  type SegmentKind,
  type Trace,
} from './segments';
export { purgesOf } from './purges';
export { steadyPoints } from './steadyPoints';
export { factsOf, type TraceFact } from './factsOf';
