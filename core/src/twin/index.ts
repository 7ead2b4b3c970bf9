/* The twin stands apart from the rest of core, so that a page that does not need it does not load it. */
export { Twin, type SavedTwin, type TwinSite } from './twin';
export type { CouplerState } from './couplerState';
export type { Effect } from './effects';
export type { Wear } from './wear';
export type { AirEvent } from './solver/airRun';
export type { Network, NetElement, NetNode, WayDoes } from './network/network';
export { OUTSIDE } from './network/network';
export { faultsOf, partOf } from './faults/faultsOf';
export { knownPatterns, learnPatterns, type KnownPatterns } from './equations/knownPatterns';
export { placeInfo, type Circuit, type PlaceKind } from './network/placeKinds';
export { twinWith } from './faults/twinWith';
export { noticedShare } from './faults/noticed';
export { effectsOf, type Fault, type Severity } from './faults/fault';
export { scfmOf } from './senses/freeAir';
export { deviceStates, type Device, type DeviceState } from './senses/deviceStates';
export { nearestReadingPsi } from '../gauge/graduation';
export { needlePsi, trembleAt, usualSeenGauge, type SeenGauge } from './senses/seenGauge';
export { driveByTheBook, REFERENCE_S, referenceRoutine } from './routine/referenceRun';
export { actOn, type Act, type HandBrake } from './routine/act';
export { played, RoutinePlayer } from './routine/player';
export { atDash, exactReader, type Reader } from './routine/reader';
export { act, pump, wait } from './routine/steps';
export { dashRun } from './routine/dashRun';
export type { Routine, RoutineStep, Sight, Sighting, Until } from './routine/routine';
export { drawsOf, type Draws } from './random';
export { drawRig, type DrawnRig } from './spread/drawnRig';
export { spreadOf, type Known } from './spread/spreadOf';
export { exhaustsOf, lossAt } from './senses/soapAndEar';
export { faultTables } from './signature/tabledRigs';
export { shownBy, signatureOf, type Shown, type Signature } from './signature/signature';
export {
  dashReadings,
  dashFigures,
  type DashFigure,
  type DashReadings,
} from './signature/dashReadings';
export { airOf } from './network/airOf';
