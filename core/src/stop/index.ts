/* The service stop: what a distance proves, and what a roller tester or a phone on the floor measures. */
export {
  decelerationByEyeG,
  GRAVITY_MPS2,
  MPS_PER_MPH,
  stoppingDistanceFt,
  WHOLE_STOP_FROM_MPH,
} from './stopping';
export { brakingOf, SHORTEST_PART_S, type Braking, type NoBraking } from './stopMeasured';
export { simulatedStop, type SimulatedStop } from './simulatedMotion';
