export type { RigUnderTest } from '@keen-bleed/core';
export type {
  Act,
  CouplerState,
  Device,
  DeviceState,
  HandBrake,
  Heard,
  KnownPatterns,
  Soap,
  Wear,
} from '@keen-bleed/core/twin';
