export type { RigUnderTest } from '@keen-bleed/core';
export type { CouplerState, Device, DeviceState, Heard, Soap, Wear } from '@keen-bleed/core/twin';
