/* What is made of a valve's readings at its ports. */
export {
  climbing,
  CRACK_WITHIN_PSI,
  curveOf,
  deliveryAt,
  judgeCrack,
  sweepsOf,
  type CrackVerdict,
  type Curve,
  type CurvePoint,
  type NoCurve,
} from './curve';
export { BUBBLE_LEAST_S, BUBBLE_WAIT_S, bubbleScfm, bubbleSeconds } from './bubbles';
export {
  ALIKE_WITHIN_PSI,
  BEHIND_MOST_PSI,
  besideOther,
  judgeFigure,
  pairFigures,
  type BenchFigure,
  type BenchVerdict,
  type Beside,
  type FigureLimit,
  type PairKind,
} from './pairs';
export { sayCurve } from './sayCurve';
export type { Sure } from './sure';
