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
export { sayCurve } from './sayCurve';
