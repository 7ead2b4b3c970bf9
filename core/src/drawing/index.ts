export { keyOf as planKey, planOf } from './planOf';
export type {
  Box,
  Facing,
  Level,
  Plan,
  PlanLabel,
  PlanLine,
  PlanSymbol,
  PlanUnit,
  Point,
} from './plan';
export { planAir, type LineAir, type PlanAir, type SymbolAir } from './live';
export { LABEL } from './sizes';
export { GOOD_PLAN, measured, type PlanMeasures } from './planMeasures';
