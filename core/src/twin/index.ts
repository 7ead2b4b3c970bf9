/* The twin stands apart from the rest of core, so that a page that does not need it does not load it. */
export { Twin, type SavedTwin, type TwinSite } from './twin';
export type { CouplerState } from './couplerState';
export type { Effect } from './effects';
export type { Wear } from './wear';
export type { AirEvent } from './solver/airRun';
export type { Network, NetElement, NetNode, WayDoes } from './network/network';
export { OUTSIDE } from './network/network';
export { faultsOf, partOf } from './faults/faultsOf';
export { placeInfo, type Circuit, type PlaceKind } from './network/placeKinds';
export { twinWith } from './faults/twinWith';
export { effectsOf, type Fault, type Severity } from './faults/fault';
export { scfmOf } from './senses/freeAir';
export { deviceStates, type Device, type DeviceState } from './senses/deviceStates';
export { nearestReadingPsi } from '../gauge/graduation';
export { needlePsi, trembleAt, usualSeenGauge, type SeenGauge } from './senses/seenGauge';
export { drive, REFERENCE_S, referenceMoves, type Move } from './referenceRun';
export {
  exhaustsOf,
  jointsOf,
  listenAt,
  lossAt,
  soapAt,
  type Heard,
  type Soap,
} from './senses/soapAndEar';
