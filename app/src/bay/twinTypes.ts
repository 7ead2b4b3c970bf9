export type { RigUnderTest } from '@keen-bleed/core';
export type {
  Act,
  CouplerState,
  Device,
  DeviceState,
  HandBrake,
  KnownPatterns,
  Wear,
} from '@keen-bleed/core/twin';
