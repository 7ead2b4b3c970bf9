export { dryerHealth, dryerStates, settlesPerKg } from './dryerHealth';
export type { DryerHealth, DryerState, Duty, WouldLeave } from './dryerHealth';
export {
  AMOUNT_ML,
  amountOfGrade,
  drainAmounts,
  gradeOfAmount,
  totalMl,
  type DrainAmount,
  type Drained,
} from './drained';
export { frostRisks, type FrostRisk } from './frost';
export { dewPointC, humidityRatio, saturatedRatio, saturationPa, SEA_LEVEL_PA } from './moistAir';
